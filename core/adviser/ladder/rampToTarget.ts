import type { Adjuster } from '#contract/adjuster'
import type { End } from '#contract/common'
import type { Evidence, Proposal } from '#contract/proposal'
import type { Mark } from '#contract/run'
import { facts as rules } from '../../causes/factRules.ts'
import { isComplaint } from '../../causes/words.ts'
import { knownSagPct } from '../../setup/sagOf.ts'
import { strokePct } from '../../spring/sag.ts'
import { plain, reason } from '../cards.ts'
import { answerTo } from '../answers.ts'
import { cautionFor, stepWords } from '../change.ts'
import { stoppedShort, type Deepest } from '../deepest.ts'
import { oneStep } from '../remedies.ts'
import { bottomed, bottomWords, signsOf, timesHere } from './bottomSigns.ts'
import { complaintsOf } from './complaint.ts'
import { hasAskedEnough, heard, type Climb, type Rung } from './climb.ts'
import { leadsBack } from './leadsBack.ts'
import { sagFirst } from './sagFirst.ts'
import { sensorSays } from './sensorSays.ts'
import { readPart } from './readPart.ts'
import { spacerStep, unreadSpacers } from './spacerStep.ts'
import { byAir } from './springToTarget.ts'

/** A reading is asked for this often; who cannot take it goes on without. */
const askedOften = 2

/**
 * The end of the stroke: bottoming is answered by its spring where sag is deep (the rung before), by a spacer with the
 * pressure of the same sag where sag is right, and by high-speed compression where no spacer is left. With sag unread it
 * is read first: the answer decides which.
 */
export const rampToTarget: Rung = (c) => atEnd(c, 'rear') ?? atEnd(c, 'front')

function atEnd(c: Climb, end: End): Proposal | null {
  const unit = c.space[end]
  const signs = signsOf(c, end)
  if (!unit || !c.now || signs.length === 0) return null
  const short = stoppedShort(c.onNow[c.onNow.length - 1], end, c.space)
  if (short) return hasAskedEnough(c) ? null : otherKnock(c, end, short, signs)
  if (answerTo(c.onNow, 'bottoms-on', end)?.answer === 'hardest-now-and-then') return fineNowAndThen(c, end)
  const sag = knownSagPct(c.h.setups, c.now, unit)
  if (sag === null) {
    if (sensorSays(c, end)) return null
    const often = c.counted.filter((r) => bottomed(r, end)).length
    return often <= askedOften ? readSag(c, end, signs) : null
  }
  if (Math.abs(sag - unit.sagTargetPct) > rules.sagBandPct) return null
  // Once, of settings that were ridden without it before: again before a unit is opened.
  if ((timesHere(c, end) === 1 && c.onNow.length > 1) || isBesideWorse(c, end)) return null
  const harsh = heard(c, end, bottomWords)?.mark.word === 'harsh-and-bottoms'
  const by = sag - unit.sagTargetPct
  const air = unit.adjusters.find((a) => a.role === 'main-pressure')
  const spring =
    !harsh && by >= rules.sagRightPct && air?.kind === 'pressure' ? byAir(c, end, air, sag) : null
  const unread = spring || hasAskedEnough(c) ? null : unreadSpacers(c, end)
  if (unread) return readPart(c, [unread], [...signs, reason('Nobody has noted how many spacers are in')])
  const card =
    spring ??
    bySpacer(c, end, harsh) ??
    byHighSpeed(c, end) ??
    (by > -rules.sagRightPct ? byLessSag(c, end) : null) ??
    (c.onNow.length > 1 ? null : noneLeft(end))
  if (!card || leadsBack(c, card.moves)) return null
  const words =
    Math.abs(by) < rules.sagRightPct
      ? 'Sag is right'
      : by > 0
        ? 'Sag is on the deep side'
        : 'Sag is on the shallow side'
  return {
    ...card,
    speaksFor: [...signs, reason(`${words}: ${Math.round(sag)} %, its target is ${unit.sagTargetPct} %`)],
    causes: c.causes(),
  }
}

/** Something else was complained of more strongly on the same run: the worst first, and it may be what makes it bottom. */
function isBesideWorse(c: Climb, end: End): boolean {
  const said = complaintsOf(c)
  const isOfEnd = (m: Mark) => bottomWords.includes(m.word) && (m.end === end || m.end === 'both')
  const here = Math.max(0, ...said.filter(isOfEnd).map((m) => m.strength))
  return here > 0 && said.some((m) => !bottomWords.includes(m.word) && m.strength > here)
}

/** It was said to bottom, and ring or sensor show that it did not: no spring, spacer or dial is turned for that. */
function otherKnock(c: Climb, end: End, short: Deepest, signs: readonly Evidence[]): Proposal {
  const seen = `The ${end} ${short.by} went to ${Math.round(short.pct)} %`
  return {
    ...plain(
      'check-first',
      `The ${end} did not bottom: look what knocks`,
      short.by === 'ring'
        ? `${seen}: there was travel left. Look for what is loose, tops out or strikes: axle, headset, links, a rim on the ground, a cable in the frame.`
        : `${seen}: there was travel left. Push the ring home and read it after the next run. At the end: the scale of the sensor is off. Short of it: look for what is loose, tops out or strikes.`,
      'A ring at the end of the stroke.',
    ),
    speaksFor: [...signs, reason(seen)],
    causes: c.causes(),
  }
}

/** Travel is there to be used: the last of it on the biggest hit is no fault. Other complaints go on to the next rungs. */
function fineNowAndThen(c: Climb, end: End): Proposal | null {
  const last = c.onNow[c.onNow.length - 1]
  const only = last.feel?.marks.every((m) => !isComplaint(m.word) || bottomWords.includes(m.word)) ?? false
  if (!only || hasAskedEnough(c)) return null
  return {
    ...plain(
      'leave-it',
      `The ${end} uses its travel: leave it alone`,
      'The last of it on the biggest hit of the hardest ground, now and then, is what it is there for. It costs nothing elsewhere.',
      'A clank on ordinary ground, or on every lap.',
    ),
    speaksFor: [reason('It bottoms on the biggest hit of the hardest ground, now and then', last.run.id)],
    causes: c.causes(),
  }
}

function readSag(c: Climb, end: End, signs: readonly Evidence[]): Proposal {
  const last = c.onNow[c.onNow.length - 1].run
  const ring = end === 'front' ? last.ringFrontMm : last.ringRearMm
  const unit = c.space[end]!
  return sagFirst(
    c,
    end,
    'A minute on the bench. Deep: the spring is too soft. Right: it wants more ramp, a spacer. The two answers go different ways.',
    [
      ...signs,
      reason(`Nobody has read sag at this pressure`),
      ...(ring === null
        ? []
        : [reason(`The ring shows ${Math.round(strokePct(ring, unit.strokeMm))} % used`)]),
    ],
  )
}

/** One spacer more with the pressure that keeps the sag; harsh as well: two per cent less than that. */
function bySpacer(c: Climb, end: End, harsh: boolean): Proposal | null {
  const step = spacerStep(c, end, 1, harsh ? 0.98 : 1)
  return (
    step && {
      ...plain(
        'change',
        step.words,
        'Does the ring stop at 80 to 90 % of travel on the biggest hit? Small bumps should feel as before.',
        'If it still uses everything with the right sag, look at high-speed compression.',
      ),
      moves: step.moves,
      caution: cautionFor(step.dial),
    }
  )
}

function byHighSpeed(c: Climb, end: End): Proposal | null {
  const dial = c.space[end]!.adjusters.find((a: Adjuster) => a.role === 'high-speed-compression')
  const from = dial && c.positions.get(dial.id)
  const to = dial && from !== undefined ? oneStep(dial, from, -1) : null
  if (!dial || from === undefined || to === null) return null
  const hasSpacers = c.space[end]!.adjusters.some((a) => a.role === 'spacers')
  return {
    ...plain(
      'change',
      stepWords(end, dial, from, to, c.space),
      `${hasSpacers ? 'No spacer is left.' : 'There are no spacers in it.'} It takes the edge off the biggest hits, and sharp edges get harsher: come back if they do.`,
      'If it still bottoms, ride with less sag and say goodbye to some grip, or ask a workshop for another spring.',
    ),
    moves: [{ end, adjusterId: dial.id, from, to }],
    caution: `It stands in for ${hasSpacers ? 'a missing spacer' : 'ramp that it does not have'}. ${cautionFor(dial)}`,
  }
}

/** No spacer and no high-speed dial is left: less sag holds it up as well, at a price. */
function byLessSag(c: Climb, end: End): Proposal | null {
  const air = c.space[end]!.adjusters.find((a) => a.role === 'main-pressure')
  const from = air && c.positions.get(air.id)
  const to = air && from !== undefined ? oneStep(air, from, 1) : null
  if (!air || from === undefined || to === null) return null
  return {
    ...plain(
      'change',
      stepWords(end, air, from, to, c.space),
      'No spacer and no high-speed dial is left for this. Less sag keeps it off the end, and costs grip and comfort everywhere: say which is worse.',
      'If it still bottoms on ordinary ground: another spring, or a workshop. A clank now and then on the biggest hit is fine.',
    ),
    moves: [{ end, adjusterId: air.id, from, to }],
    caution: cautionFor(air),
  }
}

const noneLeft = (end: End): Proposal =>
  plain(
    'check-first',
    `The ${end} has no spacer and no high-speed dial left for this`,
    'What is left: a firmer spring or less sag, at the price of grip; or a workshop. A clank now and then on the biggest hit is fine.',
    'A ring that stops short of full travel.',
  )
