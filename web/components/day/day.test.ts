// @vitest-environment happy-dom
import { mount, type VueWrapper } from '@vue/test-utils'
import { describe, expect, it } from 'vitest'
import type { Feel } from '#contract/run'
import type { Proposal } from '#contract/proposal'
import { cannotSay } from '#core/causes/questions'
import { advise } from '#core/adviser/advise'
import { summarise } from '#core/adviser/summary'
import { analysisWith, DayBuilder, rearPressure, rearRebound, space } from '#core/test/dayBuilder'
import DialHint from './DialHint.vue'
import FeelStrip from './FeelStrip.vue'
import NextChange from './NextChange.vue'
import RatingRow from './RatingRow.vue'
import VerdictRow from './VerdictRow.vue'

const stubs = {
  RouterLink: { template: '<a><slot /></a>' },
  BFormTextarea: true,
  BFormInput: true,
  BFormSelect: true,
  BButton: { template: '<button type="button"><slot /></button>' },
}
const global = { stubs }
const button = (w: VueWrapper, name: string | RegExp) => {
  const hit = w
    .findAll('button')
    .find((b) =>
      typeof name === 'string' ? b.text() === name : name.test(b.attributes('aria-label') ?? b.text()),
    )
  if (!hit) throw new Error(`no button ${name}`)
  return hit
}

describe('the rating', () => {
  const tap = async (from: number | null, n: number) => {
    const w = mount(RatingRow, { props: { rating: from } })
    await w.findAll('button')[n - 1].trigger('click')
    return w.emitted('rate')?.map((x) => x[0])
  }
  const half = 11
  it('a number is a number, however often it is tapped', async () => {
    expect(await tap(null, 6)).toEqual([6])
    expect(await tap(6.5, 6)).toEqual([6])
    expect(await tap(6, 6)).toBeUndefined()
  })
  it('the half is a key of its own; there is none without a number and none above ten', async () => {
    expect(await tap(6, half)).toEqual([6.5])
    expect(await tap(6.5, half)).toEqual([6])
    expect(await tap(null, half)).toBeUndefined()
    expect(await tap(10, half)).toBeUndefined()
  })
  it('no key of a number or half ever erases', async () => {
    for (const from of [null, 1, 5.5, 10])
      for (let key = 1; key <= half; key++) expect((await tap(from, key)) ?? []).not.toContain(null)
  })
  it('digits rate, 0 is ten, a comma is the half; a shortcut is left to the browser', async () => {
    const w = mount(RatingRow, { props: { rating: 7 } })
    for (const key of ['8', '0', ',', '.']) await w.trigger('keydown', { key })
    await w.trigger('keydown', { key: '5', ctrlKey: true })
    expect(w.emitted('rate')).toEqual([[8], [10], [7.5], [7.5]])
  })
  it('says the half, and is one stop of the tab key', () => {
    const w = mount(RatingRow, { props: { rating: 4.5 }, attachTo: document.body })
    expect(w.text()).toContain('4½ of 10')
    expect(w.findAll('button').filter((b) => b.attributes('tabindex') === '0')).toHaveLength(1)
    w.unmount()
  })
})

describe('worse or better than another run', () => {
  const others = [
    { id: 'run2', number: 2 },
    { id: 'run3', number: 3 },
  ]
  const around3 = [
    { id: 'run1', number: 1 },
    { id: 'run2', number: 2 },
    { id: 'run4', number: 4 },
  ]
  it('judges against the last one unless another was chosen', async () => {
    const w = mount(VerdictRow, { props: { number: 4, verdicts: [], others }, global })
    await button(w, 'better').trigger('click')
    expect(w.emitted('judge')![0][0]).toEqual([{ againstRunId: 'run3', value: 1 }])
  })
  it('looked back at, a run is held against the one before it, not against what came after', async () => {
    const w = mount(VerdictRow, { props: { number: 3, verdicts: [], others: around3 }, global })
    await button(w, 'better').trigger('click')
    expect(w.emitted('judge')![0][0]).toEqual([{ againstRunId: 'run2', value: 1 }])
  })
  it('a run that is logged elsewhere meanwhile is not what the next tap is held against', async () => {
    const w = mount(VerdictRow, { props: { number: 3, verdicts: [], others: around3.slice(0, 2) }, global })
    await w.getComponent({ name: 'BFormSelect' }).vm.$emit('update:modelValue', 'run1')
    await w.setProps({ others: around3 })
    await button(w, 'worse').trigger('click')
    expect(w.emitted('judge')![0][0]).toEqual([{ againstRunId: 'run1', value: -1 }])
    // What was chosen does not count any more: it goes back to the run before.
    await w.setProps({ others: around3.slice(1) })
    await button(w, 'worse').trigger('click')
    expect(w.emitted('judge')![1][0]).toEqual([{ againstRunId: 'run2', value: -1 }])
  })
  it('tapping the same again takes it back', async () => {
    const w = mount(VerdictRow, {
      props: { number: 4, verdicts: [{ againstRunId: 'run2', value: -1 }], others },
      global,
    })
    await button(w, 'worse').trigger('click')
    expect(w.emitted('judge')![0][0]).toEqual([])
  })
  it('is not there when there is nothing to judge against', () => {
    expect(
      mount(VerdictRow, { props: { number: 3, verdicts: [], others: [] }, global })
        .find('button')
        .exists(),
    ).toBe(false)
  })
})

describe('the feel strip', () => {
  const h = new DayBuilder().run(6).history()
  const feel = (over: Partial<Feel> = {}): Feel => ({
    runId: 'run1',
    version: 1,
    rating: 6,
    marks: [],
    verdicts: [],
    answers: [],
    note: '',
    ...over,
  })
  const strip = (f: Feel) =>
    mount(FeelStrip, {
      props: { run: h.runs[0].run, number: 1, feel: f, sections: h.sections, others: [], saving: 'saved' },
      global,
    })
  const edited = (w: VueWrapper) => (w.emitted('edit')!.at(-1)![0] as Feel).marks
  it('two taps make a mark: a place, then a word', async () => {
    const w = strip(feel())
    await button(w, /^Root web, rear$/).trigger('click')
    await button(w, 'kicks').trigger('click')
    expect(edited(w)).toMatchObject([{ word: 'kicks', sectionId: 'roots', end: 'rear', strength: 2 }])
  })
  it('a word without a place is about the whole run, at its usual end', async () => {
    const w = strip(feel())
    await button(w, 'dives').trigger('click')
    expect(edited(w)).toMatchObject([{ word: 'dives', sectionId: null, end: 'front' }])
  })
  it('the same word at the same place again gets stronger, then faint, then goes', async () => {
    const mark = { id: 'm', word: 'kicks' as const, sectionId: 'roots', end: 'rear' as const }
    const after = async (strength: 1 | 2 | 3) => {
      const w = strip(feel({ marks: [{ ...mark, strength }] }))
      await button(w, /^kicks Root web, rear, strength/).trigger('click')
      return edited(w).map((m) => m.strength)
    }
    expect(await after(2)).toEqual([3])
    expect(await after(3)).toEqual([1])
    expect(await after(1)).toEqual([])
  })
  it('at the front, words of the rear are out of the way', async () => {
    const w = strip(feel())
    expect(w.text()).toContain('pedals strike')
    await button(w, /^Root web, front$/).trigger('click')
    expect(w.text()).not.toContain('pedals strike')
    expect(w.text()).toContain('dives')
  })
  it('keeps showing a mark whose section was taken off the trail', () => {
    const w = strip(
      feel({ marks: [{ id: 'm', word: 'pogo', sectionId: 'gone', end: 'front', strength: 2 }] }),
    )
    expect(w.find('[aria-label="Said of this run"]').text()).toMatch(/bounces on\s+whole run/)
  })
})

describe('the next change', () => {
  const card = (proposal: Proposal, over: object = {}) =>
    mount(NextChange, {
      props: {
        proposal,
        space,
        positions: new DayBuilder().history().setups[0].positions,
        gauges: [],
        dayId: 'day',
        bikeId: 'bike',
        judging: false,
        canSettle: true,
        settled: false,
        past: false,
        busy: false,
        ...over,
      },
      global,
    })
  const sinking = analysisWith({}, { valleyDriftPctPerHit: 1.6, trains: 5 })
  const day = () =>
    new DayBuilder().run(5, [{ word: 'harsh-gets-worse', sectionId: 'roots', strength: 3 }], {
      analysis: sinking,
    })
  it('says what to turn, with what, from where to where in the part’s own count', () => {
    const p = advise(day().history(), space)
    const text = card(p).text()
    // The dial of this shock is counted from open: canonical 7 of 14 is 7, one click faster is 6.
    const to = 14 - p.moves[0].to
    expect(text).toContain(`Red dial on the shock, by hand: from 7 to ${to} clicks (from open)`)
    expect(text).toContain(`${7 - to} click${7 - to > 1 ? 's' : ''} ↺`)
    expect(text).toContain('Speaks for it')
    expect(text).toContain('throw a rider')
    expect(text).toContain('What would change our mind')
  })
  it('a step into the unknown is called one, and no recommendation', () => {
    const p = advise(day().history(), space)
    const at = (better: number) =>
      card({ ...p, outlook: { ...p.outlook!, better } })
        .find('.lead')
        .text()
    expect(at(0.49)).toBe('To find out')
    expect(at(0.72)).toBe('Likely better: 72 %')
  })
  it('takes what the gauge shows, end by end, and nothing that nobody said', async () => {
    const p = advise(new DayBuilder().run(8).run(8).run(8).run(5).history(), space)
    const w = card(p)
    const nothing = async () => {
      expect(button(w, 'Nothing read yet').attributes('aria-disabled')).toBe('true')
      await w.find('form.read').trigger('submit')
      expect(w.emitted('found')).toBeUndefined()
    }
    await nothing()
    await button(w, /^Front pressure: still 80 psi/).trigger('click')
    await button(w, /^Front pressure: still 80 psi/).trigger('click')
    await nothing()
    const [, rear] = w.findAll('input')
    await rear.setValue('not a number')
    await rear.trigger('change')
    await nothing()
    await rear.setValue('168')
    await rear.trigger('change')
    await w.find('form.read').trigger('submit')
    expect(w.emitted('found')).toMatchObject([
      [[{ end: 'rear', adjuster: { id: 'rp' }, value: 168, was: 180 }], null],
    ])
  })
  it('what a gauge reads high is taken off, with the gauge that it was read with before until another is chosen', async () => {
    const p = advise(new DayBuilder().run(8).run(8).run(8).run(5).history(), space)
    const positions = new DayBuilder()
      .history()
      .setups[0].positions.map((x) => ({ ...x, known: { ...x.known, gaugeId: 'old' } }))
    const gauge = (id: string, readsHighPsi: number) => ({
      id,
      version: 1,
      name: id,
      readsHighPsi,
      hoseCc: 0,
      note: '',
    })
    const w = card(p, { positions, gauges: [gauge('old', 6), gauge('new', 0)] })
    expect(w.text()).toContain('reads 6 psi high')
    await button(w, /^Front pressure: still 86 psi/).trigger('click')
    const [, rear] = w.findAll('form.read input')
    await rear.setValue('174')
    await rear.trigger('change')
    await w.find('form.read').trigger('submit')
    expect(w.emitted('found')).toMatchObject([[[{ value: 80 }, { value: 168, was: 180 }], 'old']])
    // A gauge that is gone from the garage takes nothing off.
    const gone = card(p, { positions, gauges: [gauge('new', 0)] })
    expect(button(gone, /^Front pressure: still 80 psi/).text()).toBe('Still 80 psi')
  })
  it('what was said stays what it was when the gauges come in after it', async () => {
    const p = advise(new DayBuilder().run(8).run(8).run(8).run(5).history(), space)
    const positions = new DayBuilder()
      .history()
      .setups[0].positions.map((x) => ({ ...x, known: { ...x.known, gaugeId: 'old' } }))
    const w = card(p, { positions })
    await button(w, /^Front pressure: still 80 psi/).trigger('click')
    await w.setProps({
      gauges: [{ id: 'old', version: 1, name: 'old', readsHighPsi: 6, hoseCc: 0, note: '' }],
    })
    await w.find('form.read').trigger('submit')
    expect(w.emitted('found')).toMatchObject([[[{ value: 80, was: 80 }], null]])
  })
  it('a count is typed as the dial is counted, and one that it does not have is told', async () => {
    const p = { ...advise(new DayBuilder().run(8).history(), space), lookAt: ['rr'] }
    const w = card(p)
    const field = w.find('input')
    await field.setValue('19')
    await field.trigger('change')
    expect(w.text()).toContain('outside 0 to 14')
    expect(w.emitted('found')).toBeUndefined()
    // From open: 4 of 14 is canonical 10.
    await field.setValue('4')
    await field.trigger('change')
    await w.find('form.read').trigger('submit')
    expect(w.emitted('found')).toMatchObject([[[{ value: 10 }], null]])
  })
  it('a part that nobody has read is asked for without a number that it would still have', async () => {
    const h = new DayBuilder({ fp: 80, fc: 8, fr: 6, rp: 180, rs: 1 }).run(8).history()
    const p = { ...advise(h, space), lookAt: ['rr'] }
    const w = card(p, { positions: h.setups[0].positions })
    expect(w.find('form.read').text()).toContain('Rear rebound, counted from open')
    expect(w.find('form.read').text()).not.toContain('Still')
    const field = w.find('form.read input')
    await field.setValue('4')
    await field.trigger('change')
    await w.find('form.read').trigger('submit')
    expect(w.emitted('found')).toEqual([[[expect.objectContaining({ value: 10, was: undefined })], null]])
  })
  it('each of its buttons says one thing', async () => {
    const w = card(advise(day().history(), space))
    await button(w, /^Done/).trigger('click')
    await button(w, 'Something else').trigger('click')
    await button(w, 'Repeat this setup').trigger('click')
    await button(w, 'We’re happy').trigger('click')
    expect(Object.keys(w.emitted())).toEqual(expect.arrayContaining(['done', 'other', 'repeat', 'happy']))
  })
  it('what was not ridden can be neither liked nor repeated: only ridden', async () => {
    const w = card(advise(day().change({ rr: 8 }).history(), space))
    expect(w.text()).toContain('New on the bike')
    expect(w.text()).not.toMatch(/Speaks against|We’re happy|Repeat this setup|still alive/)
    await button(w, 'Log the run').trigger('click')
    expect(w.emitted('log')).toHaveLength(1)
  })
  describe('a reading', () => {
    const bottoming = () => card(advise(new DayBuilder().run(6, [{ word: 'bottoms' }]).history(), space))
    const type = (w: ReturnType<typeof card>, mm: string) =>
      w
        .find('.sag input')
        .setValue(mm)
        .then(() => w.find('.sag input').trigger('change'))
    it('is taken on the card, in mm, and only with lever and compression open', async () => {
      const w = bottoming()
      await w.find('.sag').trigger('submit')
      expect(w.text()).toContain('Enter how far the ring was pushed')
      await type(w, '16.5')
      expect(w.text()).toContain('30 % of 55 mm')
      await w.find('.sag').trigger('submit')
      expect(w.text()).toContain('tells nothing of the spring')
      expect(w.emitted('read')).toBeUndefined()
      await w.find('.tick input').setValue(true)
      await w.find('.sag').trigger('submit')
      expect(w.emitted('read')).toEqual([[30]])
    })
    it('asks once where mm and per cent look exchanged, and refuses what the stroke has not', async () => {
      const w = bottoming()
      await w.find('.tick input').setValue(true)
      await type(w, '56')
      await w.find('.sag').trigger('submit')
      expect(w.text()).toContain('Between 0 and 55 mm')
      await type(w, '30')
      await w.find('.sag').trigger('submit')
      expect(w.text()).toContain('If you meant 30 %, enter 16.5 mm')
      expect(w.emitted('read')).toBeUndefined()
      await w.find('.sag').trigger('submit')
      expect(w.emitted('read')![0][0]).toBeCloseTo(54.5, 1)
    })
    it('can be done on the bench, or left out for something else', async () => {
      const w = bottoming()
      expect(w.text()).toContain('On the bench, step by step')
      await button(w, 'Something else').trigger('click')
      expect(w.emitted('other')).toHaveLength(1)
    })
    it('is not offered on a day that is over', () => {
      const h = new DayBuilder().run(6, [{ word: 'bottoms' }]).history()
      expect(card(advise(h, space), { past: true }).find('.sag').exists()).toBe(false)
    })
  })
  describe('a question', () => {
    const kicks = () => new DayBuilder().run(5, [{ word: 'kicks', sectionId: 'roots' }])
    it('shows each answer with what it leads to, and passes on the one that was tapped', async () => {
      const w = card(advise(kicks().history(), space))
      const taps = w.findAll('.tap')
      expect(taps.length).toBeGreaterThanOrEqual(3)
      for (const t of taps) expect(t.text()).toMatch(/→ ./)
      await taps[1].trigger('click')
      expect(w.emitted('answer')).toEqual([['single-hits']])
      expect(w.text()).not.toContain('Done')
      expect(w.findAll('button').map((b) => b.text())).not.toContain('Repeat this setup')
    })
  })
  it('a separating test names both causes and offers the click only as a probe', () => {
    const unsaid = { question: 'kicks-when', end: 'rear', answer: cannotSay } as const
    const day = new DayBuilder().run(5, [{ word: 'kicks', sectionId: 'roots' }], { answers: [unsaid] })
    const text = card(advise(day.history(), space)).text()
    expect(text).toContain('Find out first')
    for (const way of ['fast', 'slow']) expect(text).toContain(`For: rear rebound too ${way}`)
    expect(text).toMatch(/Try it on \d+ once/)
  })
  it('a settled day offers to be carried over or opened, and nothing to turn', () => {
    const w = card(advise({ ...day().history(), settledSetupId: 'setup1' }, space), { settled: true })
    expect(w.findAll('button').map((b) => b.text())).toEqual(['Carry it over', 'Open the day again'])
  })
  it('one that is over stays settled: it could not be settled again', () => {
    const w = card(advise({ ...day().history(), settledSetupId: 'setup1' }, space), {
      settled: true,
      past: true,
    })
    expect(w.findAll('button').map((b) => b.text())).toEqual(['Carry it over'])
  })
  it('before the baseline the one thing to do is to ride', () => {
    const w = card(advise(new DayBuilder().history(), space), { canSettle: false })
    expect(w.findAll('button').map((b) => b.text())).toEqual(['Log the run'])
  })
  it('what the day knows is one plain sentence', () => {
    const { words } = summarise(day().history(), space)
    expect(words).toMatch(/^Not settled yet\. [A-Z]/)
    expect(words).not.toContain('!')
  })
})

describe('the dial', () => {
  it('turns the way the hand does, and pressure only points', () => {
    expect(mount(DialHint, { props: { adjuster: rearRebound, from: 7, to: 6 } }).text()).toBe(
      '1 click ↻ clockwise, seen at the knob',
    )
    expect(mount(DialHint, { props: { adjuster: rearRebound, from: 6, to: 7 } }).text()).toContain(
      '↺ counter-clockwise',
    )
    expect(mount(DialHint, { props: { adjuster: rearPressure, from: 180, to: 187 } }).text()).toBe('7 psi ↑')
  })
})
