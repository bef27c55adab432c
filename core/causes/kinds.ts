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

export function causeLabel(kind: CauseKind, end: End | null): string {
  return end ? `${end} ${labels[kind]}` : labels[kind]
}

export const springCauses: readonly CauseKind[] = ['spring-soft', 'spring-firm']
