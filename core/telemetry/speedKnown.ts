import type { ImportIssue } from '#contract/recording'
import type { CleanRecording } from './cleanRecording.ts'
import { issue } from './issues.ts'

const counts = 'ride height counts all that is not flight or standing still for 2 s'
/** A receiver that finds itself at the start leaves less than this. */
const toldShare = 0.02

/**
 * What the figures rest on where nothing tells how fast the bike was, as a remark; none where the speed is known. Asked
 * once all files of a recording were joined: any of them may bring the speed.
 */
export function speedRemarks({ speedMS, samples }: CleanRecording): ImportIssue[] {
  if (!speedMS) return [issue('speed-missing', `Nothing tells how fast the bike was, so ${counts}.`, samples)]
  const unknown = speedMS.reduce((n, v) => n + (Number.isNaN(v) ? 1 : 0), 0)
  if (unknown <= toldShare * samples) return []
  const known = Math.round((1 - unknown / samples) * 100)
  return [issue('speed-gaps', `The speed is known for ${known} % of the ride; elsewhere ${counts}.`, unknown)]
}
