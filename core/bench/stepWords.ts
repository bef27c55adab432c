import type { BenchStep } from '#contract/bench'

/** What a step on the bench is called, on the screen and on paper. */
export const stepWords: Record<BenchStep, string> = {
  who: 'Rider and bike',
  prepare: 'Prepare',
  start: 'Start pressure or spring',
  equalise: 'Equalise',
  'sag-rear': 'Sag, rear',
  'sag-front': 'Sag, front',
  'sag-both': 'Sag, both together',
  rebound: 'Rebound',
  compression: 'Compression',
  'end-of-stroke': 'End of the stroke',
  save: 'Name and save',
}
