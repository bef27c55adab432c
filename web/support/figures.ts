import type { Analysis, Recording } from '#contract/recording'
import { durationWords } from './dates.ts'

/** A recording whose figures are there. */
export type ReadRecording = Recording & { analysis: Analysis }

export const hasFigures = (r: Recording | null | undefined): r is ReadRecording => !!r && r.analysis !== null

/** Why a recording has no figures just now; empty when it has. */
export const figuresWords = (r: Recording): string =>
  r.figures === 'renewing'
    ? 'Its figures are being made again by the newer version; that takes a moment.'
    : r.figures === 'broken'
      ? 'No sound figures could be made from its bytes any more. The file itself is kept and can be given back.'
      : ''

/** How long it is, how finely it was kept and where, in a few words. */
export const recordingFacts = (r: ReadRecording): string =>
  `${durationWords(r.durationS)} min · ${Math.round(r.sampleRateHz)} Hz · rear at the ${r.analysis.rearAt}`
