import type { End } from '#contract/common'
import type { CauseKind } from '#contract/proposal'

/** A cause as a sentence part: "rear rebound too slow". */
const labels: Record<CauseKind, string> = {
  'spring-soft': 'spring too soft',
  'spring-firm': 'spring too firm',
  'ramp-low': 'too little ramp at the end of the stroke',
  'ramp-high': 'too much ramp at the end of the stroke',
  'lsc-open': 'low-speed compression too soft',
  'lsc-closed': 'low-speed compression too firm',
  'hsc-open': 'high-speed compression too soft',
  'hsc-closed': 'high-speed compression too firm',
  'rebound-fast': 'rebound too fast',
  'rebound-slow': 'rebound too slow',
  stiction: 'sticky seals, due for service',
  'nose-low': 'front rides low against the rear',
  'nose-high': 'front rides high against the rear',
  tyres: 'tyre pressure',
  heat: 'thin, hot oil',
  cold: 'thick, cold oil',
  'line-or-rider': 'the line or the day',
  none: 'nothing wrong',
}

/** One check by hand for each cause: ten seconds, on the spot. */
export const handChecks: Record<CauseKind, string> = {
  'spring-soft': 'Sit on it in kit and look at the ring: deeper than the target?',
  'spring-firm': 'Sit on it in kit and look at the ring: short of the target?',
  'ramp-low': 'Look at the ring after the biggest hit: at the very end, with sag right?',
  'ramp-high': 'Look at the ring after the biggest hit: well short, with sag right?',
  'lsc-open': 'Stand beside it and press the end down slowly with your weight: does it give way at once?',
  'lsc-closed': 'Press the end down slowly: does it resist before it moves?',
  'hsc-open': 'Hop it hard on the spot: does it run through its travel?',
  'hsc-closed': 'Roll over a kerb at walking pace: does the edge come through?',
  'rebound-fast': 'Push it down and let go: does the wheel leave the ground, or does it swing past?',
  'rebound-slow': 'Push it down and let go: does it creep back up?',
  stiction: 'Push it down very slowly: does it stick and jump?',
  'nose-low': 'Stand on the pedals and have somebody look from the side: lower in front?',
  'nose-high': 'Stand on the pedals and have somebody look from the side: higher in front?',
  tyres: 'Gauge on both tyres: as at the baseline run?',
  heat: 'Feel the damper: too hot to hold? Do other bikes feel soft as well?',
  cold: 'Cycle it twenty times: does it get livelier?',
  'line-or-rider': 'Ride it again, the same line at the same speed.',
  none: 'Ride it again; nothing is turned.',
}

export function causeLabel(kind: CauseKind, end: End | null): string {
  return end ? `${end} ${labels[kind]}` : labels[kind]
}

export const springCauses: readonly CauseKind[] = ['spring-soft', 'spring-firm']
