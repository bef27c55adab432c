import { describe, expect, it } from 'vitest'
import type { Answer } from '#contract/question'
import type { Feel } from '#contract/run'
import { emptyFeel } from '../setup/nothingNoted.ts'
import { withAnswered, withTakenBack, withVerdicts } from './answered.ts'

const better: Answer = { question: 'than-before', end: null, answer: 'better' }
const worse: Answer = { ...better, answer: 'worse' }
const open: Answer = { question: 'lever-open', end: 'rear', answer: 'open' }
const feel: Feel = {
  ...emptyFeel('run3'),
  rating: 6,
  answers: [open],
  verdicts: [{ againstRunId: 'run1', value: -1 }],
}

describe('what was tapped on a card, in the feel of its run', () => {
  it('is a verdict against the run before, and leaves those against others', () => {
    expect(withAnswered(feel, better, 'run2').verdicts).toEqual([
      { againstRunId: 'run1', value: -1 },
      { againstRunId: 'run2', value: 1 },
    ])
  })

  it('taken back, leaves the feel as it was', () => {
    expect(withTakenBack(withAnswered(feel, better, 'run2'), better, 'run2')).toEqual(feel)
    expect(withTakenBack(withAnswered(feel, open, 'run2'), open, 'run2')).toEqual({ ...feel, answers: [] })
  })

  it('answered again, says the new one only', () => {
    const twice = withAnswered(withAnswered(feel, better, 'run2'), worse, 'run2')
    expect(twice.answers).toEqual([open, worse])
    expect(twice.verdicts.filter((v) => v.againstRunId === 'run2')).toEqual([
      { againstRunId: 'run2', value: -1 },
    ])
  })

  it('answered again with “can’t say”, says nothing of the run before any more', () => {
    const unsure = withAnswered(
      withAnswered(feel, better, 'run2'),
      { ...better, answer: 'cannot-say' },
      'run2',
    )
    expect(unsure.verdicts).toEqual(feel.verdicts)
  })

  it('taken back after it was said otherwise by hand, leaves what was said by hand', () => {
    const said = withAnswered(feel, better, 'run2')
    const byHand = { ...said, verdicts: [{ againstRunId: 'run2', value: -2 as const }] }
    expect(withTakenBack(byHand, better, 'run2').verdicts).toEqual([{ againstRunId: 'run2', value: -2 }])
  })

  it('said otherwise by hand, is no answer any more; what else was answered stays', () => {
    const said = withAnswered(feel, better, 'run2')
    expect(withVerdicts(said, [{ againstRunId: 'run2', value: -2 }], 'run2').answers).toEqual([open])
    expect(withVerdicts(said, [...said.verdicts], 'run2').answers).toEqual([open, better])
    expect(withVerdicts(said, [], 'run2').answers).toEqual([open])
  })

  it('of a first run, says nothing against another', () => {
    expect(withAnswered(feel, better, null).verdicts).toEqual(feel.verdicts)
  })
})
