import type { Feel, Run } from '#contract/run'

/** A run of which nothing was noted but that it was ridden. */
export const nothingNoted = {
  voidReason: null,
  durationS: null,
  mind: 'normal',
  ringFrontMm: null,
  ringRearMm: null,
  tyreFrontPsi: null,
  tyreRearPsi: null,
  surface: null,
  airTempC: null,
  altitudeM: null,
  effort: null,
  heardBottomsFront: null,
  heardBottomsRear: null,
  note: '',
} satisfies Partial<Run>

/** How a run was, before anybody said a word of it. */
export const emptyFeel = (runId: string): Feel => ({
  runId,
  version: 0,
  rating: null,
  marks: [],
  verdicts: [],
  answers: [],
  note: '',
})
