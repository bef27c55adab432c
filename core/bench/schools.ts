import type { BenchStep, EqualiseSchool, OrderSchool } from '#contract/bench'

/** A question on which good mechanics differ, the answers, and ours with its reason. */
export interface School {
  key: string
  question: string
  answers: { name: string; text: string }[]
  ours: string
}

/** Shown in the handbook and beside the step that asks. */
export const schools: readonly School[] = [
  {
    key: 'posture',
    question: 'Sag seated, or standing?',
    answers: [
      { name: 'Seated', text: 'On the saddle, feet on level pedals, hands light on the bar.' },
      { name: 'Standing ready', text: 'Off the saddle, hips back over the pedals as when descending.' },
    ],
    ours: 'Standing for the fork, which carries little of a seated rider; seated for the shock. What matters more: the same posture every time.',
  },
  {
    key: 'equalise',
    question: 'How to equalise the two chambers?',
    answers: [
      {
        name: 'Every 50 psi',
        text: 'Stop every 50 psi, ten slow cycles through a quarter of the travel, then on; top up at the end.',
      },
      {
        name: 'Pump on, short',
        text: 'Inflate to the target and make about ten short cycles with the pump still on.',
      },
      {
        name: 'Pump off, deep',
        text: 'Inflate to 100 psi or the chart, take the pump off, five cycles to half travel, top up.',
      },
    ],
    ours: 'The unit’s manual first. Without one, every 50 psi: the chambers never get far apart, so the unit cannot lock down.',
  },
  {
    key: 'spacers',
    question: 'With how many spacers to begin?',
    answers: [
      { name: 'As delivered', text: 'Leave them, and add one when it bottoms too easily.' },
      {
        name: 'Start full',
        text: 'Put in all that are allowed and take out one by one until full travel is just reached.',
      },
    ],
    ours: 'As delivered. Start full is for riders who bottom often.',
  },
  {
    key: 'hold-up',
    question: 'What holds the bike up?',
    answers: [
      { name: 'Less sag', text: 'More pressure, a higher ride.' },
      {
        name: 'Right sag and low-speed compression',
        text: 'The spring for the weight, the damper for the movement.',
      },
    ],
    ours: 'Right sag and low-speed compression. Air against a dive is the classic wrong move.',
  },
  {
    key: 'rebound-start',
    question: 'Where to begin with rebound?',
    answers: [
      { name: 'Open and close', text: 'Begin fast, close until it no longer kicks.' },
      { name: 'The maker’s clicks', text: 'By pressure or weight, from the chart.' },
    ],
    ours: 'The chart by pressure where there is one, else a computed damping ratio; then the bench test.',
  },
  {
    key: 'order',
    question: 'In which order?',
    answers: [
      { name: 'Sag, rebound, volume', text: 'Spring, then the way back, then the end of the stroke.' },
      { name: 'Sag, volume, rebound', text: 'Spring and its ramp first, then the dampers.' },
    ],
    ours: 'Sag, rebound, volume; whatever an earlier step changes is marked to be checked again.',
  },
  {
    key: 'compression',
    question: 'What is compression for?',
    answers: [
      { name: 'Climbing', text: 'A lever against bobbing.' },
      { name: 'Tuning', text: 'Clicks against dive, wallow and harshness.' },
    ],
    ours: 'Tuning, where the unit has clicks. Open first, judge, then add; high-speed last and least.',
  },
  {
    key: 'judging',
    question: 'Feel or sensors?',
    answers: [
      { name: 'Feel', text: 'The rider is who rides it.' },
      { name: 'Sensors', text: 'Numbers do not get tired.' },
    ],
    ours: 'Both, feel first and without seeing the data.',
  },
  {
    key: 'count',
    question: 'Clicks from closed, or from open?',
    answers: [
      { name: 'From closed', text: 'Clockwise to the stop is 0 (some call it 1), then count while opening.' },
      { name: 'From open', text: 'Counter-clockwise to the stop is 0, then count while closing.' },
    ],
    ours: 'From closed, unless the unit’s manual counts from open. The base always stands beside the number.',
  },
]

const sag: BenchStep[] = ['who', 'prepare', 'start', 'equalise', 'sag-rear', 'sag-front', 'sag-both']

/** Steps in the order of a school. */
export const stepOrder: Record<OrderSchool, readonly BenchStep[]> = {
  'sag-rebound-volume': [...sag, 'rebound', 'compression', 'end-of-stroke', 'save'],
  'sag-volume-rebound': [...sag, 'end-of-stroke', 'rebound', 'compression', 'save'],
}

/** One stop on the way to a pressure. */
export interface EqualiseStage {
  psi: number
  cycles: number
  /** How deep, % of travel. */
  depthPct: number
  pumpOn: boolean
}

/**
 * Stops on the way from empty to the target, by school.
 * @param targetPsi > 0
 */
export function equaliseStages(school: EqualiseSchool, targetPsi: number): EqualiseStage[] {
  if (school === 'pump-on-quarter') return [{ psi: targetPsi, cycles: 10, depthPct: 25, pumpOn: true }]
  if (school === 'pump-off-half') {
    const first = Math.min(100, targetPsi)
    const stages = [{ psi: first, cycles: 5, depthPct: 50, pumpOn: false }]
    if (targetPsi > first) stages.push({ psi: targetPsi, cycles: 5, depthPct: 50, pumpOn: false })
    return stages
  }
  const stages: EqualiseStage[] = []
  // A last stop closer than 15 psi to the one before it is no stop of its own.
  for (let psi = 50; psi < targetPsi - 15; psi += 50)
    stages.push({ psi, cycles: 10, depthPct: 25, pumpOn: false })
  return [...stages, { psi: targetPsi, cycles: 10, depthPct: 25, pumpOn: false }]
}
