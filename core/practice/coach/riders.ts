import { seededRandom } from '../../numeric/random.ts'
import { drills } from '../drills.ts'
import { hiddenRider, type HiddenRider } from '../hiddenRider.ts'

/** So many stand in the tent at once. */
export const coachRiders = 3

/** Three riders of three drills, drawn by a number: the same for everybody who types it. */
export function ridersOf(seed: number): HiddenRider[] {
  const random = seededRandom((seed ^ 0x5eed) >>> 0)
  const left = drills.filter((d) => d.group !== 'first')
  return Array.from({ length: coachRiders }, () => {
    const [drill] = left.splice(Math.floor(random() * left.length), 1)
    return hiddenRider(drill, 1 + Math.floor(random() * 999))
  })
}
