import type { End } from '#contract/common'
import type { Hold, LoggerChannel, LoggerIdentity } from '#contract/logger'
import type { ColumnMapping, ImportMapping } from '#contract/recording'
import { seaLevelPa } from '../spring/air.ts'
import { paPerPsi } from '../units/convert.ts'
import type { CalibrationStep, HeldSteps, HoldVerdict } from './calibrationStep.ts'
import { chamberByDepths, heldDepthSteps, isHeldDepth, judgeDepth } from './heldDepthSteps.ts'

const letOut: CalibrationStep = {
  key: 'let-out',
  title: 'Let all air out, then cycle it five times',
  how: 'Press the valve until it is silent. Compress and pull five times, slowly.',
  why: 'Air left behind in either chamber would pass for travel.',
  holdSeconds: 0,
  hands: { pose: 'extended', air: 'let-out' },
}

/** How a chamber is calibrated: emptied and pressed to the end, or filled as it is ridden, at depths read off the ring. */
export type CalibrationWay = 'emptied' | 'held'

/** Steps in their order. */
export const stepsFor = (kind: LoggerIdentity['kind'], way: CalibrationWay): CalibrationStep[] =>
  kind === 'chamber-pressure' && way === 'held' ? heldDepthSteps : calibrationSteps[kind]

/** Steps in their order for a kind of logger, emptied. */
export const calibrationSteps: Record<LoggerIdentity['kind'], CalibrationStep[]> = {
  'chamber-pressure': [
    letOut,
    {
      key: 'extended',
      title: 'Hold it fully extended, empty',
      how: 'Lift the bike so that the wheel hangs, and keep still.',
      why: 'This is the pressure of the open air, from which everything else counts.',
      holdSeconds: 5,
      hands: { pose: 'extended', air: 'let-out' },
    },
    {
      key: 'compressed',
      title: 'Hold it fully compressed, empty',
      how: 'Lean on it until it stands at the very end of the stroke, and stay there.',
      why: 'How much the pressure grows tells how much smaller the chamber gets: the compression ratio, with the spacers that are in now.',
      holdSeconds: 5,
      hands: { pose: 'compressed', air: 'let-out' },
    },
    {
      key: 'fill',
      title: 'Fill to the start pressure and equalise',
      how: 'Fill in steps; cycle slowly through the first third after each, so that both chambers fill.',
      why: 'A chamber that equalises later, on the trail, would look like travel lost.',
      holdSeconds: 0,
      hands: { pose: 'extended', air: 'filled' },
    },
    {
      key: 'baseline',
      title: 'Hold it fully extended, filled',
      how: 'Lift the bike so that the wheel hangs, and keep still.',
      why: 'Every depth counts from this pressure. It is also where a leaking adapter shows itself.',
      holdSeconds: 8,
      hands: { pose: 'extended', air: 'filled' },
    },
  ],
  travel: [
    letOut,
    {
      key: 'extended',
      title: 'Hold it fully extended',
      how: 'Lift the bike so that both wheels hang, and keep still.',
      why: 'This reading becomes 0 % of travel.',
      holdSeconds: 4,
      hands: { pose: 'extended', air: 'let-out' },
    },
    {
      key: 'compressed',
      title: 'Hold it fully compressed',
      how: 'Lean on it until it stands at the very end of the stroke, and stay there. Watch that nothing touches frame, tyre or crown.',
      why: 'This reading becomes 100 % of travel, and tells which way the sensor counts.',
      holdSeconds: 4,
      hands: { pose: 'compressed', air: 'let-out' },
    },
    {
      key: 'fill',
      title: 'Fill to the start pressure and equalise',
      how: 'Fill in steps; cycle slowly through the first third after each.',
      why: 'The bike must not be ridden empty.',
      holdSeconds: 0,
      hands: { pose: 'extended', air: 'filled' },
    },
  ],
}

export const holdRules = {
  /** Scatter within a hold: psi, and share of a raw sensor's range. */
  stillPsi: 0.6,
  stillRangeShare: 0.01,
  /** A filled chamber losing this much per second leaks. */
  leakPsiPerS: 0.03,
  /** The two ends of a sensor must lie at least so far apart, share of its range. */
  leastSpanShare: 0.2,
  leastRatio: 1.3,
} as const

const ambientPsi = seaLevelPa / paPerPsi

/** Whether a hold can be used, in a sentence; the held ones before it included. */
export function judgeHold(
  key: CalibrationStep['key'],
  identity: LoggerIdentity,
  held: HeldSteps,
  strokeMm: Partial<Record<End, number>> = {},
): HoldVerdict {
  const hold = held[key]
  if (!hold) return { ok: false, words: 'Nothing was measured yet.', fault: null }
  for (const c of calibrated(identity)) {
    const now = hold.channels[c.key]
    const name = c.end ?? c.key
    const range = (c.high ?? 1) - (c.low ?? 0)
    if (!now || now.samples < 3)
      return { ok: false, words: `The ${name} sensor sent no readings; look at its plug.`, fault: 'stuck' }
    const atEnd =
      c.high !== null && now.mean >= c.high ? c.high : c.low !== null && now.mean <= c.low ? c.low : null
    if (key !== 'extended' && atEnd !== null)
      return {
        ok: false,
        words: `The ${name} reading stands at the end of its range, ${atEnd} ${c.unit === 'raw' ? 'counts' : c.unit}.`,
        fault: 'range',
      }
    const pressure = identity.kind === 'chamber-pressure'
    if (key === 'baseline' && now.slopePerS < -holdRules.leakPsiPerS)
      return {
        ok: false,
        words: `The ${name} pressure falls by ${(-60 * now.slopePerS).toFixed(1)} psi a minute while nothing moves.`,
        fault: 'leak',
      }
    const still = pressure ? holdRules.stillPsi : holdRules.stillRangeShare * range
    if (now.sd > still)
      return {
        ok: false,
        words: `The ${name} reading moved during the hold; keep the bike still and hold again.`,
        fault: null,
      }
    const before = held.extended?.channels[c.key]
    if (key === 'compressed' && before) {
      if (pressure && (now.mean + ambientPsi) / (before.mean + ambientPsi) < holdRules.leastRatio)
        return {
          ok: false,
          words: `The ${name} pressure hardly grew; hold it at the very end of the stroke, with all air let out before.`,
          fault: null,
        }
      if (!pressure && Math.abs(now.mean - before.mean) < holdRules.leastSpanShare * range)
        return {
          ok: false,
          words: `The ${name} readings extended and compressed are nearly the same; look at the mount and the plug.`,
          fault: 'stuck',
        }
    }
  }
  return isHeldDepth(key)
    ? judgeDepth(key, calibrated(identity), held, strokeMm)
    : { ok: true, words: stillWords(key, identity, hold), fault: null }
}

function stillWords(key: CalibrationStep['key'], identity: LoggerIdentity, hold: Hold): string {
  const list = calibrated(identity)
    .map((c) =>
      `${c.end ?? c.key} ${hold.channels[c.key].mean.toFixed(c.unit === 'raw' ? 0 : 1)} ${c.unit === 'raw' ? '' : c.unit}`.trim(),
    )
    .join(', ')
  return key === 'compressed' && identity.kind === 'travel'
    ? `Held: ${list}; both ends are known now.`
    : `Held: ${list}.`
}

/** Channels that a calibration is for. */
export const calibrated = (identity: LoggerIdentity): LoggerChannel[] =>
  identity.channels.filter((c) => /-(travel|pressure)$/.test(c.role))

/**
 * How the files of a calibrated logger are to be read: its own columns in order, each with its calibration.
 * @param strokeMm of the units; a missing end is left out
 * @returns null while a hold is missing
 */
export function mappingFor(
  identity: LoggerIdentity,
  held: HeldSteps,
  strokeMm: Partial<Record<End, number>>,
  way: CalibrationWay = 'emptied',
): ImportMapping | null {
  const columns: ColumnMapping[] = [{ column: 0, role: 'time', unit: 'ms', calibration: null }]
  for (const [i, c] of identity.channels.entries()) {
    const column = i + 1
    if (!/-(travel|pressure)$/.test(c.role)) {
      columns.push({ column, role: c.role, unit: c.unit, calibration: null })
      continue
    }
    const stroke = c.end && strokeMm[c.end]
    if (!stroke) {
      columns.push({ column, role: 'ignore', unit: 'none', calibration: null })
      continue
    }
    if (way === 'held' && identity.kind === 'chamber-pressure') {
      const calibration = chamberByDepths(c, held, stroke)
      if (!calibration) return null
      columns.push({ column, role: c.role, unit: c.unit, calibration })
      continue
    }
    const extended = held.extended?.channels[c.key]
    const compressed = held.compressed?.channels[c.key]
    if (!extended || !compressed) return null
    if (identity.kind === 'travel') {
      const calibration = {
        extendedReading: extended.mean,
        compressedReading: compressed.mean,
        compressedMm: stroke,
      }
      columns.push({ column, role: c.role, unit: 'raw', calibration })
    } else {
      const baseline = held.baseline?.channels[c.key]
      if (!baseline) return null
      const compressionRatio = (compressed.mean + ambientPsi) / (extended.mean + ambientPsi)
      columns.push({
        column,
        role: c.role,
        unit: c.unit,
        calibration: { compressionRatio, baselinePsi: baseline.mean },
      })
    }
  }
  return { delimiter: ',', decimal: '.', columns, sampleRateHz: null }
}

/** Looked at before every ride: nothing may touch. */
export const fittingChecks = [
  'Fully compressed, the sensor, its cable and its mount touch neither frame nor tyre nor crown.',
  'Steering fully left and right, nothing is pulled, pinched or touched.',
  'Every screw of the mount is tight, and the cable cannot reach the wheel if a tie breaks.',
  'The adapter is screwed on by hand until it stops, and the valve cap is kept safe.',
] as const
