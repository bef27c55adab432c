import { describe, expect, it } from 'vitest'
import type { Adjuster } from '#contract/adjuster'
import type { SetupSpace } from '../adviser/dayHistory.ts'
import { fork, shock } from '../test/dayBuilder.ts'
import { parseCommand } from './parse.ts'
import { nearestReadings } from './readings.ts'

/**
 * A bike with more to say: the fork has LSC 8 (of 16), rebound 6 (of 12, from closed), 80 psi and a bar that can be raised;
 * the shock has rebound 7 (of 14, counted from open), HSC 4 (of 8), 180 psi, 1 spacer of 3 and a lever.
 */
const lever: Adjuster = {
  id: 'rl',
  alias: null,
  tool: 'hand',
  kind: 'lever',
  role: 'lever',
  positions: ['Open', 'Middle', 'Firm'],
}
const hsc: Adjuster = {
  id: 'rh',
  alias: 'HS',
  tool: 'hand',
  kind: 'click',
  role: 'high-speed-compression',
  clicks: 8,
  step: 1,
  countBase: 'closed-0',
}
const bar: Adjuster = {
  id: 'bar',
  alias: null,
  tool: 'hex-4',
  kind: 'custom',
  role: 'custom',
  name: 'Bar height',
  unitLabel: 'mm',
  min: 0,
  max: 40,
  step: 5,
  acts: { stroke: 'whole', on: 'geometry', speed: 'both' },
}
const space: SetupSpace = {
  front: { ...fork, adjusters: [...fork.adjusters, bar] },
  rear: { ...shock, adjusters: [...shock.adjusters, lever, hsc] },
}
const positions = new Map(
  Object.entries({ fp: 80, fc: 8, fr: 6, rp: 180, rr: 7, rs: 1, rl: 0, rh: 4, bar: 10 }),
)
const people = { rider: 'Ilka', others: ['Joren', 'Mara Lund'] }
const moves = (line: string) => {
  const c = parseCommand(line, space, positions, people)
  return c.kind !== 'change'
    ? c.kind
    : c.moves.map((m) => `${m.adjuster.id} ${Math.round(m.to * 100) / 100}`).join(', ')
}

/** What is said at a trailhead, and what the hand then does. Shock rebound counts from open: fewer closed = more open. */
const said: [string, string][] = [
  // the effect, before and after, in digits and words
  ['slow the shock down one', 'rr 6'],
  ['slow the rear down by two clicks', 'rr 5'],
  ['slow down the rear rebound 1', 'rr 6'],
  ['speed the fork up one', 'fr 7'],
  ['speed up the fork rebound 2', 'fr 8'],
  ['rear reb 1 slower', 'rr 6'],
  ['shock rebound one slower', 'rr 6'],
  ['one slower on the rear rebound', 'rr 6'],
  ['two clicks faster front rebound', 'fr 8'],
  ['make the rear rebound a couple of clicks faster', 'rr 9'],
  ['fork reb quicker', 'fr 7'],
  ['rear rebound slower', 'rr 6'],
  ['front reb slower three', 'fr 3'],
  ['fork faster 1', 'fr 7'],
  // firmer, softer
  ['firm up the fork lsc by two', 'fc 6'],
  ['lsc 2 softer', 'fc 10'],
  ['soften lsc two clicks', 'fc 10'],
  ['fork low speed compression firmer 1', 'fc 7'],
  ['low-speed comp harder 1', 'fc 7'],
  ['high speed compression one softer', 'rh 5'],
  ['hsc stiffer', 'rh 3'],
  ['shock hs softer 1', 'rh 5'],
  ['fork compression softer', 'fc 9'],
  ['rear pressure firmer 5', 'rp 185'],
  ['f psi softer 3', 'fp 77'],
  // numbers that move a number
  ['fork +2 psi', 'fp 82'],
  ['fork up two psi', 'fp 82'],
  ['add 2 psi to the fork', 'fp 82'],
  ['drop the shock 5 psi', 'rp 175'],
  ['take 4 psi out of the rear', 'rp 176'],
  ['shock minus 10 psi', 'rp 170'],
  ['+3psi front', 'fp 83'],
  ['rear down 3 psi', 'rp 177'],
  ['let 2 psi out of the fork', 'fp 78'],
  ['add a spacer to the shock', 'rs 2'],
  ['spacer +1', 'rs 2'],
  ['take one spacer out', 'rs 0'],
  ['bar height up 5', 'bar 15'],
  ['bar height 20 mm', 'bar 20'],
  // a place
  ['lsc 9', 'fc 9'],
  ['lsc to 9', 'fc 9'],
  ['set the fork lsc at nine', 'fc 9'],
  ['fork 5.4 bar', 'fp 78.32'],
  ['fork pressure to 5,4 bar', 'fp 78.32'],
  ['shock 185 psi', 'rp 185'],
  ['fork to 84 psi', 'fp 84'],
  ['hsc 3', 'rh 3'],
  ['shock rebound 5', 'rr 9'],
  ['shock rebound 4 from closed', 'rr 4'],
  ['front reb 8 from open', 'fr 4'],
  // which way the hand goes
  ['front rebound 2 out', 'fr 8'],
  ['open the fork rebound one', 'fr 7'],
  ['close front rebound by 2', 'fr 4'],
  ['rear rebound in 1', 'rr 6'],
  ['lsc out two clicks', 'fc 10'],
  ['hsc 1 clockwise', 'rh 3'],
  // a lever by its places
  ['shock lever firm', 'rl 2'],
  ['lever middle', 'rl 1'],
  ['put the lever to firm', 'rl 2'],
  // a part in two words
  ['rear rebound damping slower 1', 'rr 6'],
  ['fork air pressure +2', 'fp 82'],
  ['fork air spring +2', 'fp 82'],
  // several at once are one linked change
  ['shock rebound one slower, fork up two psi', 'rr 6, fp 82'],
  ['shock spacer +1 psi -4', 'rs 2, rp 176'],
  ['fork lsc firmer 1 and reb slower 1', 'fc 7, fr 5'],
  ['fork +2 psi and shock +5 psi', 'fp 82, rp 185'],
  ['slow the shock one and soften lsc two', 'rr 6, fc 10'],
  ['rear reb 1 slower then hsc 1 softer', 'rr 6, rh 5'],
  // both ends at once
  ['front and rear rebound slower 1', 'fr 5, rr 6'],
  ['fork and shock rebound 1 slower', 'fr 5, rr 6'],
  ['slow both ends one', 'fr 5, rr 6'],
  ['one click slower, both ends', 'fr 5, rr 6'],
  ['1 slower, front and rear', 'fr 5, rr 6'],
  // where, said last
  ['one click slower, rear', 'rr 6'],
  ['+2 psi, front', 'fp 82'],
  ['fork +2 psi, 1 slower, shock', 'fp 82, rr 6'],
  ['rebound slower 1 at both ends', 'fr 5, rr 6'],
  ['both rebounds 1 slower and hsc 1 softer', 'fr 5, rr 6, rh 5'],
  ['fork and shock +2 psi', 'fp 82, rp 182'],
  // more and less of what has numbers
  ['2 more psi in the fork', 'fp 82'],
  ['fork 2 psi more', 'fp 82'],
  ['2 psi less in the fork', 'fp 78'],
  ['2 more psi out of the fork', 'fp 78'],
  ['slow both fork and shock rebound by 1', 'fr 5, rr 6'],
  ['another 2 psi in the fork', 'fp 82'],
  ['one more spacer in the shock', 'rs 2'],
  ['rear rebound slower 1 more', 'rr 6'],
  ['one more click of rear rebound slower', 'rr 6'],
  ['two more clicks out on the front rebound', 'fr 8'],
  // from where it stands to where it goes
  ['rear rebound from 7 to 5', 'rr 9'],
  ['fork lsc 8 to 6', 'fc 6'],
  ['fork psi from 80 to 84', 'fp 84'],
  ['put the shock lever from open to firm', 'rl 2'],
  ['fork psi from 80,4 to 84', 'fp 84'],
  // the back, and a way back
  ['slow the back down two', 'rr 5'],
  ['one slower at the back', 'rr 6'],
  ['fork rebound back to 4', 'fr 4'],
  // who it is for
  ['ilka fork +2 psi', 'fp 82'],
  ['Ilka’s shock rebound one slower', 'rr 6'],
  // back
  ['undo', 'undo'],
  ['undo that', 'undo'],
  ['revert', 'undo'],
  ['go back', 'undo'],
  ['put it back', 'undo'],
  ['take the last change back', 'undo'],
  // a back end is no way back
  ['back rebound 1 slower', 'rr 6'],
  ['Fork, up 2 psi.', 'fp 82'],
]

describe('what mechanics say', () => {
  it.each(said)('%s', (line, expected) => {
    expect(moves(line)).toBe(expected)
  })
  it('is said in at least 60 ways here', () => {
    expect(said.length).toBeGreaterThanOrEqual(60)
  })
})

/** What must not be guessed. */
const refused: [string, RegExp][] = [
  ['rebound slower 1', /which end/],
  ['+2 psi', /which end/],
  ['fork +2', /Say what to turn: the front unit has rebound, compression, psi, bar height/],
  ['soften the fork', /Say what to turn/],
  ['rear reb up 1', /goes slower or faster; its numbers run either way/],
  ['rear rebound firmer 1', /slower or faster/],
  ['fork lsc slower', /firmer or softer/],
  ['joren fork +2 psi', /This is the bike of Ilka. Open the day of Joren first/],
  ['mara lund shock reb 1 slower', /Open the day of Mara Lund/],
  ['fork hsc softer 1', /front unit has no hsc/],
  ['preload 2 in', /Neither end of this bike has preload/],
  ['shock lever', /how far/],
  ['fork lsc 30', /16 clicks; 30 is outside/],
  ['take 9 spacers out', /outside/],
  ['wobble the fork', /not understood/],
  ['lsc 8', /already there/],
  ['shock', /Say what to turn|how far/],
  ['7', /which end/],
  // what was said must not be dropped in silence
  ['rear reb slower faster 1', /one part, one way and one number/],
  ['1 2 rear reb slower', /one part, one way and one number/],
  ['fork lsc firmer softer 2', /one part, one way and one number/],
  ['fork rebound lsc 9', /one part, one way and one number/],
  ['rear hsc rebound slower 1', /one part, one way and one number/],
  ['open the fork rebound in 1', /one part, one way and one number/],
  // a step is no place: these stood at 2, 13 and 2 once
  ['front rebound 2 more', /goes slower or faster/],
  ['one more click of rear rebound', /goes slower or faster/],
  ['two more clicks of lsc', /goes firmer or softer/],
  ['rear reb 1 less', /goes slower or faster/],
  ['rear reb back 1', /not understood/],
  ['put rear reb back one', /not understood/],
  ['rear rebound 1 click back', /not understood/],
  ['rear rebound 2 less slow', /one part, one way and one number/],
  ['more psi in the fork', /how far/],
  ['more fork pressure', /how far/],
  ['less air in the shock', /how far/],
  // one part, told twice
  ['rear reb slower 2, rear reb faster 1', /rear rebound is said twice/],
  ['rear reb slower 1, rear reb slower 1', /rear rebound is said twice/],
  ['both ends rebound slower 1, fork reb faster 1', /front rebound is said twice/],
  // an end of which nothing is said
  ['fork rebound slower 1 and shock', /What about the rear\? Say its part/],
  ['fork reb slower 1 shock', /What about the rear\?/],
  ['shock reb slower 1, fork too', /What about the front\?/],
  ['shock reb slower 1 and both ends', /What about both ends\?/],
  // all the way, or one click?
  ['lsc closed', /how far/],
  ['close the fork lsc', /how far/],
  ['fork rebound open', /how far/],
  ['shock spacers out', /how far/],
  ['fork air out', /how far/],
  ['let some air out of the fork', /how far/],
  // it stands elsewhere than is said
  ['rear rebound from 6 to 5', /rear rebound stands at 7 clicks, not at 6/],
  ['fork psi 78 to 82', /stands at 80 psi, not at 78/],
  ['fork lsc from 7,6 to 6', /stands at 8 clicks, not at 7.6/],
  // only one end has it
  ['both ends fork rebound slower 1', /one part, one way and one number/],
  ['fork both rebounds slower 1', /one part, one way and one number/],
  ['both ends hsc softer 1', /front unit has no hsc/],
]

describe('what must not be guessed', () => {
  it.each(refused)('%s', (line, sentence) => {
    expect(() => moves(line)).toThrow(sentence)
  })
  it('no word in front of a known rider’s name is taken for a command', () => {
    expect(() => moves('tell joren fork +2 psi')).toThrow(/not understood/)
  })
})

const offered = (line: string) =>
  nearestReadings(line, space, positions, people).map((r) =>
    r.command.kind !== 'change'
      ? r.command.kind
      : r.command.moves.map((m) => `${m.adjuster.id} ${Math.round(m.to * 100) / 100}`).join(', '),
  )

describe('the nearest readings of a line that was refused', () => {
  it('mend a slip of a letter', () => {
    expect(offered('shock reboudn slower 1')[0]).toBe('rr 6')
    expect(offered('frk psi +2')[0]).toBe('fp 82')
  })
  it('put the end in', () => {
    expect(offered('rebound slower 1')).toEqual(['fr 5', 'rr 6'])
    expect(offered('+2 psi')).toEqual(['fp 82', 'rp 182'])
    expect(offered('fork rebound slower 1 and shock')).toEqual(['fr 5, rr 6'])
  })
  it('put the part in, and the way', () => {
    expect(offered('fork +2')).toContain('fp 82')
    expect(offered('rear reb up 1')).toEqual(['rr 6', 'rr 8'])
    expect(offered('rear rebound firmer 1')).toEqual(['rr 6', 'rr 8'])
  })
  it('offer nothing for a line that is understood, that is out of reach or that is meant for another', () => {
    expect(offered('fork +2 psi')).toEqual([])
    expect(offered('fork lsc 30')).toEqual([])
    expect(offered('joren fork +2 psi')).toEqual([])
    // Without the word that is not understood they would be done, or done elsewhere.
    for (const line of ['rear rebound not slower', 'don’t slow the rear', 'front tyre -1 psi'])
      expect(offered(line)).toEqual([])
    expect(offered('')).toEqual([])
  })
  it('every one offered is understood, and at most four are', () => {
    for (const [line] of refused) {
      const list = nearestReadings(line, space, positions, people)
      expect(list.length).toBeLessThanOrEqual(4)
      for (const r of list) expect(moves(r.line)).toBeTruthy()
    }
  })
})
