import type { End } from '#contract/common'
import type { LoggerChannel } from '#contract/logger'
import type { HeldDepth, PressureCalibration } from '#contract/recording'
import { InputError } from '../errors.ts'
import { fitHeldDepths } from '../telemetry/heldDepths.ts'
import type { CalibrationStep, HeldDepthKey, HeldSteps, HoldVerdict } from './calibrationStep.ts'

/** Calibrating a chamber at riding pressure, nothing let out: full extension, then three depths that the ring tells. */
const heldDepthKeys: readonly HeldDepthKey[] = ['deep-1', 'deep-2', 'deep-3']
export const isHeldDepth = (key: string): key is HeldDepthKey =>
  (heldDepthKeys as readonly string[]).includes(key)

const depths: Record<HeldDepthKey, { title: string; depthPct: number }> = {
  'deep-1': { title: 'Hold it a fifth of the way in', depthPct: 20 },
  'deep-2': { title: 'Hold it a third of the way in', depthPct: 35 },
  'deep-3': { title: 'Hold it half of the way in', depthPct: 50 },
}

export const heldDepthSteps: CalibrationStep[] = [
  {
    key: 'baseline',
    title: 'Hold it fully extended, at riding pressure',
    how: 'Lift the bike so that the wheels hang, wait 20 s, and keep still.',
    why: 'Every depth counts from this pressure. It is also where a leaking adapter shows itself.',
    holdSeconds: 8,
    hands: { pose: 'extended', air: 'filled' },
  },
  ...heldDepthKeys.map((key): CalibrationStep => ({
    key,
    title: depths[key].title,
    how: 'Push the rings down, lean on the bike to about there, wait 20 s without moving, hold; then read the rings. The depth need not be exact, only read to the millimetre.',
    why: 'Pressure against depth tells how much smaller the chamber gets, with the spacers that are in now. The wait lets the gas cool that the push has warmed.',
    holdSeconds: 5,
    hands: { pose: 'leaned', air: 'filled', depthPct: depths[key].depthPct },
  })),
]

/** What the ring of a stand-in stands at after a step, mm. */
export const standInRingMm = (step: CalibrationStep, strokeMm: number): number =>
  Math.round(((step.hands.depthPct ?? 0) / 100) * strokeMm)

/** Depths that are known of one channel, with full extension. */
function depthsOf(c: LoggerChannel, held: HeldSteps): HeldDepth[] {
  const found: HeldDepth[] = []
  const baseline = held.baseline?.channels[c.key]
  if (baseline) found.push({ mm: 0, psi: baseline.mean })
  for (const key of heldDepthKeys) {
    const mm = c.end && held[key]?.ringMm?.[c.end]
    const psi = held[key]?.channels[c.key]?.mean
    if (mm && psi !== undefined) found.push({ mm, psi })
  }
  return found
}

/** Whether a held depth can be used: its rings read, and on the last the whole line. */
export function judgeDepth(
  key: HeldDepthKey,
  channels: readonly LoggerChannel[],
  held: HeldSteps,
  strokeMm: Partial<Record<End, number>>,
): HoldVerdict {
  const words: string[] = []
  for (const c of channels) {
    const stroke = c.end && strokeMm[c.end]
    if (!c.end || !stroke) continue
    const mm = held[key]?.ringMm?.[c.end]
    if (!mm) return { ok: false, words: `Read the ${c.end} ring and say how deep it stood.`, fault: null }
    if (mm > stroke)
      return {
        ok: false,
        words: `The ${c.end} unit is ${stroke} mm long; ${mm} mm is beyond it.`,
        fault: null,
      }
    const psi = held[key]!.channels[c.key].mean
    words.push(`${c.end} ${mm} mm at ${psi.toFixed(1)} psi`)
    if (key !== heldDepthKeys[heldDepthKeys.length - 1]) continue
    try {
      const fit = fitHeldDepths(depthsOf(c, held), stroke)
      words.push(
        `compression ratio ${fit.compressionRatio.toFixed(2)} ± ${fit.compressionRatioSe.toFixed(2)}, baseline ${fit.baselinePsi.toFixed(0)} ± ${fit.baselineSePsi.toFixed(1)} psi`,
      )
    } catch (e) {
      if (!(e instanceof InputError)) throw e
      return { ok: false, words: `${c.end[0].toUpperCase()}${c.end.slice(1)}: ${e.message}`, fault: null }
    }
  }
  return { ok: true, words: `Held: ${words.join(', ')}.`, fault: null }
}

/** Calibration of one channel by its held depths; null while some are missing. @throws InputError 'calibration.…' */
export function chamberByDepths(
  c: LoggerChannel,
  held: HeldSteps,
  strokeMm: number,
): PressureCalibration | null {
  const heldDepths = depthsOf(c, held)
  if (heldDepths.length < 1 + heldDepthKeys.length) return null
  const { compressionRatio, baselinePsi } = fitHeldDepths(heldDepths, strokeMm)
  return { compressionRatio, baselinePsi, heldDepths }
}
