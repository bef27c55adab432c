import type { BaselineSource } from '#contract/baseline'
import type {
  Effort,
  EqualiseSchool,
  OrderSchool,
  Posture,
  ReboundOutcome,
  SagMethod,
  SpacerSchool,
} from '#contract/bench'
import type { ServiceKind } from '#contract/care'
import type { AdjusterRole } from '#contract/adjuster'
import { roleWords } from '#core/adjusters/words'
import type { FactChange, StepState } from '#core/bench/states'
import type { Reminder } from '#core/care/reminders'
import { say, sayDifference, type UnitChoice } from '#core/units/choice'

export const postureWords: Record<Posture, string> = { seated: 'seated', ready: 'standing ready' }
export const methodWords: Record<SagMethod, string> = {
  ring: 'ring on the shaft',
  'eye-to-eye': 'eye to eye',
  wheel: 'at the wheel',
}
export const outcomeWords: Record<ReboundOutcome, string> = {
  creeps: 'creeps back',
  settles: 'returns once, settles',
  cycles: 'comes back and bobs again',
}
export const effortWords: Record<Effort, string> = {
  'car-park': 'a hard bounce in the car park',
  'small-drop': 'a small drop to flat',
  trail: 'a usual descent',
  'hardest-trail': 'the hardest trail',
}
export const equaliseWords: Record<EqualiseSchool, string> = {
  'every-50': 'every 50 psi, ten slow cycles',
  'pump-on-quarter': 'at the target, pump on, ten short cycles',
  'pump-off-half': 'at 100 psi, pump off, five deep cycles',
}
export const orderWords: Record<OrderSchool, string> = {
  'sag-rebound-volume': 'sag, rebound, end of stroke',
  'sag-volume-rebound': 'sag, end of stroke, rebound',
}
export const spacerSchoolWords: Record<SpacerSchool, string> = {
  'as-delivered': 'as delivered, add when it bottoms',
  'start-full': 'start full, take out until full travel is reached',
}
export const sourceWords: Record<BaselineSource, string> = {
  'unit-maker': 'maker of the unit',
  'frame-maker': 'maker of the frame',
  workshop: 'workshop',
  own: 'own',
  computed: 'computed',
  'another-rider': 'another rider',
  device: 'a device or app',
}
export const serviceWords: Record<ServiceKind, string> = {
  'pressure-check': 'pressure checked',
  'small-service': 'small service',
  'full-service': 'full service',
  seals: 'new seals',
  oil: 'new oil',
  're-valved': 're-valved',
  'new-part': 'new part',
  other: 'other',
}

/** "Rear pressure: was 180 psi, now 192 psi" */
export function factWords(c: FactChange, units: UnitChoice): string {
  const value = (v: FactChange['was']) =>
    v === null
      ? 'not known'
      : typeof v === 'string'
        ? (postureWords[v as Posture] ?? v)
        : c.fact === 'riding-mass'
          ? say('mass', v, units)
          : c.fact.endsWith('pressure')
            ? say('pressure', v, units)
            : c.fact.endsWith('spring-rate')
              ? say('springRate', v, units)
              : String(Math.round(v * 100) / 100)
  if (c.fact === 'riding-mass') return 'the riding weight changed'
  const [, end, name] = /^(front|rear)-(.*)$/.exec(c.fact) ?? ['', '', c.fact]
  const part = roleWords[name as AdjusterRole]?.toLowerCase() ?? name.replace(/^custom .*/, 'own adjuster')
  return `${end} ${part}: was ${value(c.was)}, now ${value(c.is)}`
}

/** Why a step is to be looked at again: what changed since, else what it does not (any more) have to show. */
export const staleWords = (s: StepState, units: UnitChoice) =>
  s.changed.length
    ? `Since it was done: ${s.changed.map((c) => factWords(c, units)).join('; ')}.`
    : `Not shown (any more): ${s.evidence.words.join('; ')}.`

/** "front reads about 61 psi here; for the same sag set 64 psi" */
const shiftWords = (r: Reminder, units: UnitChoice) =>
  r.pressures
    .map(
      (p) =>
        `${p.end} reads about ${say('pressure', Math.round(p.readsPsi), units)}; for the same sag set ${say('pressure', Math.round(p.setPsi), units)}`,
    )
    .join(', ')

const withNumbers = (words: string, r: Reminder, units: UnitChoice) =>
  r.pressures.length ? `${words}: ${shiftWords(r, units)}` : words

/** Why a pressure should be read again, in words. */
export function reminderWords(r: Reminder, units: UnitChoice): string {
  switch (r.kind) {
    case 'never':
      return 'a pressure was never set or read'
    case 'weeks':
      return `last set or checked ${r.amount} days ago`
    case 'venue':
      return 'another place than last time'
    case 'temperature':
      return withNumbers(
        `${sayDifference('temperature', Math.abs(Math.round(r.amount)), units)} ${r.amount > 0 ? 'warmer' : 'colder'} than last time`,
        r,
        units,
      )
    case 'height':
      return withNumbers(
        `${sayDifference('altitude', Math.abs(Math.round(r.amount)), units)} ${r.amount > 0 ? 'higher' : 'lower'} than last time`,
        r,
        units,
      )
    case 'serviced':
      return `${r.unitName ?? 'it'} was opened ${r.amount === 0 ? 'today' : `${r.amount} days ago`}`
    case 'service-due':
      return `${r.unitName ?? 'it'}: last service ${r.amount} days ago, it is due`
  }
}
