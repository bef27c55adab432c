import type { Proposal } from '#contract/proposal'
import type { Outlook } from './decide.ts'
import type { DayHistory, SetupSpace } from './dayHistory.ts'
import { againstMemory } from './ladder/againstMemory.ts'
import { asking } from './ladder/ask.ts'
import { sticks } from './ladder/sticks.ts'
import { withBottomsCounted } from './ladder/bottomSigns.ts'
import { climbOf, type Climb, type Rung } from './ladder/climb.ts'
import { enough, goBack } from './ladder/earlier.ts'
import { countFirst } from './ladder/countFirst.ts'
import { endOrNot } from './ladder/endOrNot.ts'
import { gaugeFirst } from './ladder/gaugeFirst.ts'
import { lookAtTyres } from './ladder/lookAtTyres.ts'
import { lostAir } from './ladder/lostAir.ts'
import { openLever } from './ladder/openLever.ts'
import { withPlan } from './plan.ts'
import { noSpringThere } from './ladder/noSpringThere.ts'
import { notTheDials } from './ladder/notTheDials.ts'
import { nothingHelps } from './ladder/nothingHelps.ts'
import { otherGround } from './ladder/otherGround.ts'
import { onceOnly } from './ladder/onceOnly.ts'
import { rampToTarget } from './ladder/rampToTarget.ts'
import { goOn } from './ladder/goOn.ts'
import { leverForClimbs } from './ladder/leverForClimbs.ts'
import { ratingAgainstVerdict } from './ladder/ratingAgainstVerdict.ts'
import { ridingAgain } from './ladder/rideAgain.ts'
import { restOfTheWay } from './ladder/restOfTheWay.ts'
import { riddenOtherwise } from './ladder/riddenOtherwise.ts'
import { separate } from './ladder/separate.ts'
import { almostSettled, leaveIt, settled } from './ladder/settle.ts'
import { settledDay } from './ladder/settledDay.ts'
import { firstRun, rideIt, tellTheFeel, untangle } from './ladder/somethingToJudge.ts'
import { readBeforePumping } from './ladder/readBeforePumping.ts'
import { readSomething, readTheAnswer } from './ladder/readTheAnswer.ts'
import { readWhereItPoints } from './ladder/readWhereItPoints.ts'
import { readWhereNothingPoints } from './ladder/readWhereNothingPoints.ts'
import { springByChart } from './ladder/springByChart.ts'
import { springBySensor } from './ladder/springBySensor.ts'
import { springToTarget } from './ladder/springToTarget.ts'
import { byHand, lookAgain, turn } from './ladder/turn.ts'
import { travelLeft } from './ladder/travelLeft.ts'
import { upToSpeed } from './ladder/upToSpeed.ts'
import { usedUp } from './ladder/usedUp.ts'
import { weather } from './ladder/weather.ts'
import { wordAgainstFigure } from './ladder/wordAgainstFigure.ts'
import { cannotRideThere, cannotRideThereWords } from './cannotRideThere.ts'
import { toldInOrder } from './toldInOrder.ts'
import { zeroMoved, zeroMovedWords } from './zeroMoved.ts'

/**
 * What a good mechanic does before he turns anything, in his order. The first rung that holds is the proposal; a rung is
 * passed by evidence only, never by a default and never by silence.
 */
const ladder: readonly Rung[] = [
  settledDay,
  firstRun,
  tellTheFeel,
  lostAir,
  untangle,
  rideIt,
  notTheDials,
  ridingAgain(climbOn),
  openLever,
  lookAtTyres,
  noSpringThere,
  sticks,
  riddenOtherwise,
  ratingAgainstVerdict,
  gaugeFirst,
  otherGround,
  endOrNot,
  leverForClimbs,
  nothingHelps,
  asking(climbOn),
  weather,
  upToSpeed,
  enough,
  springToTarget,
  springByChart,
  rampToTarget,
  travelLeft,
  settled,
  goBack,
  almostSettled,
  leaveIt,
  onceOnly,
  readTheAnswer,
  readSomething,
  usedUp,
  separate,
  byHand,
  againstMemory,
  goOn,
  wordAgainstFigure,
  readWhereItPoints,
  readBeforePumping,
  springBySensor,
  restOfTheWay,
  readWhereNothingPoints,
  countFirst,
  turn,
  lookAgain,
]

/**
 * The most useful next step of the day. A pure function of what was ridden and what can be turned.
 *
 * @param outlook where the day stands by its surface, when it is known already
 */
export function advise(h: DayHistory, space: SetupSpace, outlook?: () => Outlook): Proposal {
  const climb = climbOf(toldInOrder(h), space, outlook)
  return withSensorCaution(climb, withBottomsCounted(climb, withPlan(climb, climbOn(climb))))
}

/** A sensor that shows what cannot be is said on the card that no longer rests on it. */
function withSensorCaution(c: Climb, p: Proposal): Proposal {
  const last = c.counted.at(-1)
  const said = last
    ? [...zeroMoved(last, c.space).map(zeroMovedWords), ...cannotRideThere(last).map(cannotRideThereWords)]
    : []
  return said.length > 0 ? { ...p, caution: [p.caution, ...said].filter(Boolean).join(' ') } : p
}

function climbOn(climb: Climb): Proposal {
  for (const rung of ladder) {
    const proposal = rung(climb)
    if (proposal) return proposal
  }
  throw new Error('the last rung holds everything')
}
