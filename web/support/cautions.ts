import type { BenchStep } from '#contract/bench'

/** Cautions in the words they are shown with; each has its step. */
export const cautions = {
  manuals: 'Makers’ manuals and qualified technicians come first; this is an aid to judgement.',
  pump: 'Shock pump only, threaded on by hand, straight, finger-tight. No tyre pump, no compressor, never poke the valve.',
  maximum: 'Never above the pressure printed on the unit.',
  lockedSolid:
    'If pumping turns very hard and the unit feels locked solid, the chambers are not equalised: let the air out slowly, cycle, start again.',
  trapped:
    'Let all air out slowly and cycle the unit before opening an air can. Trapped pressure can injure: if unsure, leave it to a workshop.',
  unsound: 'Never ride with a unit that leaks, clanks or won’t return.',
  stop: 'Turn a dial to its stop gently and never force it; small dials snap.',
  rebound: 'A wrong rebound setting can throw a rider: try it at low speed in a safe place first.',
  oneChange: 'Make one change, try it at low speed in a safe place first.',
  testRuns: 'Helmet and pads for test runs, and a section clear of other people.',
  limits: 'Children and heavy electric bikes: check the limits of every part.',
  tie: 'Cut the zip tie off before riding: grit under it scratches the stanchion.',
} as const
export type CautionKey = keyof typeof cautions

/** Which belong to which step of the bench. */
export const cautionsAt: Record<BenchStep, readonly CautionKey[]> = {
  who: ['limits'],
  prepare: ['unsound'],
  start: ['pump', 'maximum'],
  equalise: ['lockedSolid'],
  'sag-rear': [],
  'sag-front': [],
  'sag-both': [],
  rebound: ['rebound', 'stop'],
  compression: [],
  'end-of-stroke': ['trapped'],
  save: ['tie', 'oneChange'],
}
