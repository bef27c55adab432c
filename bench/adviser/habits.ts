import { normalFrom, seededRandom } from '#core/numeric/random'
import { tuning } from './families.ts'
import { testRider, type RiddenFeel, type TestRider } from './riders.ts'
import { ourAdviser } from './strategies.ts'
import { outcome } from './study.ts'

/** What a rider makes of a ride that was felt as `felt`. */
type Telling = (felt: RiddenFeel, run: number, isChanged: boolean) => RiddenFeel
/**
 * How riders tell what they felt; nothing was chosen by these riders. On others of the three whose number says nothing it was
 * tried when they are asked what was better.
 */
interface Habit {
  name: string
  telling: (random: () => number) => Telling
}

const onScale = (rating: number) => Math.min(10, Math.max(1, Math.round(rating * 2) / 2))
const rated = (felt: RiddenFeel, rating: number): RiddenFeel => ({ ...felt, rating: onScale(rating) })
const said = (felt: RiddenFeel, word: RiddenFeel['marks'][number]): RiddenFeel => ({ ...felt, marks: [word] })

const habits: readonly Habit[] = [
  { name: 'as they felt it', telling: () => (felt) => felt },
  {
    name: 'whatever was changed is better: 0.7 points, and said so',
    telling: (random) => (felt, _run, isChanged) =>
      !isChanged
        ? felt
        : {
            ...rated(felt, felt.rating + 0.7),
            against: random() < 0.7 && (felt.against ?? 0) < 1 ? 1 : felt.against,
          },
  },
  {
    name: 'says the last number again, unless it is off by more than a point',
    telling: () => {
      let last: number | null = null
      return (felt) => {
        if (last === null || Math.abs(felt.rating - last) >= 1.25) last = felt.rating
        return { ...felt, rating: last }
      }
    },
  },
  { name: 'always a 6', telling: () => (felt) => rated(felt, 6) },
  {
    name: 'a 1 for all that is not liked, from 7.5 on as felt',
    telling: () => (felt) => (felt.rating >= 7.5 ? felt : rated(felt, 1)),
  },
  { name: 'never below 8', telling: () => (felt) => rated(felt, Math.max(8, felt.rating)) },
  {
    name: 'whole numbers, 5 to 8',
    telling: () => (felt) => ({ ...felt, rating: Math.min(8, Math.max(5, Math.round(felt.rating))) }),
  },
  {
    name: 'one pet word, on two runs of five',
    telling: (random) => (felt) =>
      random() < 0.4 ? said(felt, { word: 'harsh-everywhere', end: 'front', strength: 2 }) : felt,
  },
  {
    name: 'moods that last some runs, ± 0.8',
    telling: (random) => {
      let mood = 0
      return (felt) => {
        mood = 0.8 * mood + 0.5 * normalFrom(random)
        return rated(felt, felt.rating + mood)
      }
    },
  },
  {
    name: 'every eighth run spoilt, 2.5 points lower',
    telling: (random) => (felt) => (random() < 0.12 ? rated(felt, felt.rating - 2.5) : felt),
  },
  {
    name: 'polite: “good” instead of what was felt, on one run of three',
    telling: (random) => (felt) =>
      random() < 0.35 ? said(felt, { word: 'good', end: 'both', strength: 2 }) : felt,
  },
  {
    name: 'tired from the ninth run on, 0.12 a run',
    telling: () => (felt, run) => (run > 8 ? rated(felt, felt.rating - 0.12 * (run - 8)) : felt),
  },
]

const firstSeed = 5000
const count = Number(process.argv[2] ?? 14)

/** The rider of a family, who tells it by a habit. */
function withHabit(rider: TestRider, tell: Telling): TestRider {
  let before: string | null = null
  return {
    ...rider,
    ride: (positions, run) => {
      const now = JSON.stringify(positions)
      const isChanged = before !== null && now !== before
      before = now
      return tell(rider.ride(positions, run), run, isChanged)
    },
  }
}

console.log('| habit | within 0.5 for good | median | regret after 12 | 20 | settled | false |')
console.log('| --- | ---: | ---: | ---: | ---: | ---: | ---: |')
for (const { name, telling } of habits) {
  const out = Array.from({ length: count }, (_, i) => {
    const rider = withHabit(testRider(firstSeed + i, tuning[0]), telling(seededRandom(77 + i)))
    return outcome(rider, ourAdviser(rider), rider.start)
  })
  const reached = out.map((o) => o.reachedAfter).sort((a, b) => a - b)
  const regret = (n: number) =>
    out.reduce((sum, o) => sum + o.losses[Math.min(n, o.losses.length) - 1], 0) / count
  const settled = out.filter((o) => o.stopped !== null)
  console.log(
    `| ${name} | ${reached.filter(Number.isFinite).length} of ${count} | ${reached[Math.floor(count / 2)]} | ${regret(12).toFixed(2)} | ${regret(20).toFixed(2)} | ${settled.length} | ${settled.filter((o) => o.wrong).length} |`,
  )
}
