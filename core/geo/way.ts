import type { Fix } from './fix.ts'
import { smoothTrack, type SmoothTrack } from './smoothTrack.ts'

/** Not come further than this pace for so long is standing: what a receiver wanders then is no way. */
const standing = { speedMS: 1, windowS: 6 } as const

/** A track with its way. */
export interface Way extends SmoothTrack {
  /** Distance ridden at each fix, m; none while the bike stands. */
  wayM: Float64Array
}

/** Distance ridden and speed at each fix; nothing is ridden while the bike stands. */
export function wayOf(fixes: readonly Fix[]): Way {
  const track = smoothTrack(fixes)
  const { timeS, eastM, northM, speedMS } = track
  let [from, to] = [0, 0]
  const last = timeS.length - 1
  for (let i = 0; i <= last; i++) {
    while (to < last && timeS[to] < timeS[i] + standing.windowS / 2) to++
    while (timeS[from] < timeS[i] - standing.windowS / 2) from++
    const cameM = Math.hypot(eastM[to] - eastM[from], northM[to] - northM[from])
    if (cameM < standing.speedMS * (timeS[to] - timeS[from])) speedMS[i] = 0
  }
  const wayM = new Float64Array(timeS.length)
  for (let i = 1; i < wayM.length; i++)
    wayM[i] = wayM[i - 1] + ((speedMS[i] + speedMS[i - 1]) / 2) * (timeS[i] - timeS[i - 1])
  return { ...track, wayM }
}
