import type { CauseKind } from '#contract/proposal'
import type { CautionKey } from '../support/cautions.ts'

/** What is done about each cause, once it is the likely one. */
export const remedies: Record<CauseKind, string> = {
  'spring-soft': 'Pressure up, or a firmer coil, until sag is at its target; then rebound slower to match.',
  'spring-firm': 'Pressure down, or a softer coil, until sag is at its target; then rebound faster to match.',
  'ramp-low': 'One spacer more, and a little air out for the same sag.',
  'ramp-high': 'One spacer less, and a little air in for the same sag.',
  'lsc-open': 'Low-speed compression one or two clicks firmer.',
  'lsc-closed': 'Low-speed compression one or two clicks softer.',
  'hsc-open': 'High-speed compression one click firmer, with spring and ramp right.',
  'hsc-closed': 'High-speed compression one or two clicks softer.',
  'rebound-fast': 'Rebound one or two clicks slower.',
  'rebound-slow': 'Rebound one or two clicks faster.',
  stiction: 'Service before anything is turned.',
  'nose-low': 'More air in front, or less behind: by sag of both ends.',
  'nose-high': 'Less air in front, or more behind: by sag of both ends.',
  tyres: 'Tyres back to what they were at the baseline run.',
  heat: 'Both ends together one or two clicks: rebound slower, compression firmer. Taken back as it cools.',
  cold: 'Ride it warm first; for a cold day one or two clicks open at both ends.',
  'line-or-rider': 'The same line at the same speed again. Nothing is turned.',
  none: 'Leave it alone.',
}

/** Cautions of what is turned for it. */
export const cautionOf: Partial<Record<CauseKind, CautionKey>> = {
  'rebound-fast': 'stop',
  'rebound-slow': 'rebound',
  'ramp-low': 'trapped',
  'ramp-high': 'trapped',
  'spring-soft': 'maximum',
  stiction: 'unsound',
}
