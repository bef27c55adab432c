import type { ImportIssue, PressureCalibration } from '#contract/recording'
import { fitHeldDepths } from './heldDepths.ts'
import { issue } from './issues.ts'
import type { PressureTravel } from './pressure.ts'

/** Depth less sure than this is told, share of the stroke. */
const toldFrom = 0.015
/** Noise that makes so much of the stroke passes for speed and chatter. */
const noiseFrom = 0.005
/** Where a ride mostly stands. */
const ridingShare = 0.25

/** What a person should know of travel that was read from a chamber's pressure. @param role as the words name the column */
export function pressureIssues(
  found: PressureTravel,
  calibration: PressureCalibration,
  strokeMm: number,
  role: string,
): ImportIssue[] {
  const issues: ImportIssue[] = []
  const held = calibration.heldDepths
  const unsure = Math.hypot(
    found.unsureShare,
    held ? fitHeldDepths(held, strokeMm).shareSeAt(ridingShare) : 0,
  )
  const within = `Depth from ${role} is right to about ± ${Math.ceil(100 * unsure)} % of travel`
  if (found.leaking)
    issues.push(
      issue(
        'leak',
        `The ${role} at full extension falls by ${Math.round(100 * (1 - found.drift))} % over the ride: the adapter or the valve leaks. Travel was corrected for it, but check the pressure before riding on.`,
      ),
    )
  const rest = found.otherBaselinePsi
  if (rest !== null)
    issues.push(
      issue(
        'other-baseline',
        `The ${role} rests at ${Math.round(rest)} psi when the ride begins, and the calibration says ${Math.round(calibration.baselinePsi)} psi at full extension: ${rest < calibration.baselinePsi ? 'air is missing' : 'it stands on its wheels, or was filled anew'}. Take the baseline again after every change of pressure; until then every depth is off by the same.`,
      ),
    )
  if (found.extendedMoments === 0)
    issues.push(
      issue(
        'no-extended-moment',
        `The ${role} never rests at full extension, so its drift with warmth, or a leak, could not be followed. ${within}; lift the bike for three seconds when a recording starts and ends.`,
      ),
    )
  else if (unsure > toldFrom)
    issues.push(
      issue(
        'pressure-unsure',
        `${within}, as far as its ${found.extendedMoments} moments at full extension tell.`,
      ),
    )
  if (found.noiseShare > noiseFrom)
    issues.push(
      issue(
        'noisy-pressure',
        `The ${role} scatters so much that depth jitters by ± ${(100 * found.noiseShare).toFixed(1)} % of travel from sample to sample: its speeds, chatter and returns are not to be trusted.`,
      ),
    )
  return issues
}
