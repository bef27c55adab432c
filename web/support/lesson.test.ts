import { describe, expect, it } from 'vitest'
import { practiceDay, type PracticeAct } from '#core/practice/day'
import { drillOf } from '#core/practice/drills'
import { hiddenRider } from '#core/practice/hiddenRider'
import { lossesOf } from '#core/practice/review/losses'
import { lessonStep } from './lesson.ts'

const ride: PracticeAct = { do: 'ride', ringMm: { front: 128, rear: 48 } }
const turnBy = (rr: number, by: number): PracticeAct => ({
  do: 'turn',
  to: { rr: rr + by },
  linked: false,
  text: '',
  source: 'own-idea',
})

/** Somebody who knows nothing: does what stands there, word by word. */
function followed(seed: number, first: (words: string) => number = () => 0) {
  const rider = hiddenRider(drillOf('first-lesson')!, seed)
  const acts: PracticeAct[] = []
  for (let i = 0; i < 20; i++) {
    const day = practiceDay(rider, acts)
    const { does, text } = lessonStep(day)
    if (does === 'settle') return { rider, acts: [...acts, { do: 'settle' } as const] }
    if (does === 'ride') acts.push(ride)
    else {
      const by = /two clicks slower/.test(text) ? -2 : 2
      acts.push(turnBy(day.positions.rr, first(text) && day.runs.length === 1 ? first(text) : by))
    }
  }
  throw new Error('the lesson goes round in circles')
}

describe('the first lesson', () => {
  it('leads everybody to the end in a few runs, whoever the rider is', () => {
    const runs: number[] = []
    for (let seed = 1; seed <= 60; seed++) {
      const { rider, acts } = followed(seed)
      const { runs: losses, left } = lossesOf(rider, acts)
      runs.push(losses.length)
      expect(left, `rider ${seed}`).toBeLessThanOrEqual(rider.noticeable)
    }
    expect(runs.sort((a, b) => a - b)[30]).toBe(4)
    expect(Math.max(...runs)).toBeLessThanOrEqual(6)
  })

  it('brings back whoever turned the wrong way', () => {
    for (let seed = 1; seed <= 20; seed++) {
      const { rider, acts } = followed(seed, (text) => (/two clicks slower/.test(text) ? 2 : -2))
      expect(lossesOf(rider, acts).left, `rider ${seed}`).toBeLessThanOrEqual(rider.noticeable)
    }
  })

  it('asks for the baseline first, and for nothing but a ride after a turn', () => {
    const rider = hiddenRider(drillOf('first-lesson')!, 1)
    expect(lessonStep(practiceDay(rider, [])).does).toBe('ride')
    expect(lessonStep(practiceDay(rider, [ride, turnBy(rider.start.rr, 2)])).does).toBe('ride')
  })
})
