import type { Adjuster } from '#contract/adjuster'
import type { End } from '#contract/common'
import type { Evidence, Proposal } from '#contract/proposal'
import { isComplaint, wordRules } from '../../causes/words.ts'
import { facts as rules } from '../../causes/factRules.ts'
import { clampToRange } from '../../adjusters/range.ts'
import { knownSagPct, sagReadingsPct } from '../../setup/sagOf.ts'
import { solveOne } from '../sagWish.ts'
import { plain, reason } from '../cards.ts'
import { cautionFor, stepWords } from '../change.ts'
import type { HistoryRun } from '../dayHistory.ts'
import { strokePct } from '../../spring/sag.ts'
import { hasAskedEnough, saidOf, type Climb, type Rung } from './climb.ts'
import { leadsBack } from './leadsBack.ts'
import { byPreload } from './preloadToTarget.ts'
import { wasRiddenNear } from './riddenNear.ts'
import { sagFirst } from './sagFirst.ts'
import { usedUpFor } from './usedUp.ts'

/** Rated from here on without a complaint, a spring is left alone even where its sag is off: the rider likes it so. */
const likedFrom = 8
/** Beyond this share of its pressure a spring asks for another rebound. */
const reboundFollowsFrom = 0.08

/**
 * A spring that the bench has read out of its window is brought to its target before any damper is asked: a damper cannot
 * repair it. Air goes there by the solver, not by a usual step; a coil by its collar where that is enough, else to the next
 * spring that is owned.
 */
export const springToTarget: Rung = (c) => worst(c, ['rear', 'front'])

function worst(c: Climb, ends: End[]): Proposal | null {
  const off = ends
    .flatMap((end) => {
      const unit = c.space[end]
      const sag = unit && c.now ? knownSagPct(c.h.setups, c.now, unit) : null
      if (!unit || sag === null || !(sag > 0 && sag < 100)) return []
      const by = sag - unit.sagTargetPct
      return Math.abs(by) > rules.sagBandPct && !isLiked(c, end) ? [{ end, unit, sag, by }] : []
    })
    .sort((a, b) => Math.abs(b.by) - Math.abs(a.by))
  for (const { end, unit, sag, by } of off) {
    const air = unit.adjusters.find((a) => a.role === 'main-pressure')
    const card =
      air?.kind === 'pressure'
        ? (readOnceMore(c, end, air, sag) ?? byAir(c, end, air, sag) ?? atItsLimit(c, end, air, by))
        : (byPreload(c, end, sag) ?? byCoil(c, end, by > 0 ? 1 : -1))
    if (card && !leadsBack(c, card.moves))
      return {
        ...card,
        speaksFor: [
          reason(
            `${end === 'front' ? 'Front' : 'Rear'} sag was read at ${Math.round(sag)} %, its target is ${unit.sagTargetPct} %`,
          ),
          ...card.speaksFor.filter((e) => e.link.kind === 'runs'),
          ...ringReasons(c, end, unit.strokeMm),
          ...saidOf(c, end)
            .filter(({ mark }) => isComplaint(mark.word))
            .slice(0, 2)
            .map(({ run, mark }) =>
              reason(`“${wordRules[mark.word].label}” on run ${run.number}`, run.run.id),
            ),
        ],
        causes: c.causes(),
      }
  }
  return null
}

/** What the latest ring of this end shows, where it was read. */
function ringReasons(c: Climb, end: End, strokeMm: number): Evidence[] {
  const read = [...c.onNow].reverse().find((r) => ringOf(r, end) !== null)
  return read
    ? [reason(`The ring shows ${Math.round(strokePct(ringOf(read, end)!, strokeMm))} % used`, read.run.id)]
    : []
}
const ringOf = (r: HistoryRun, end: End) => (end === 'front' ? r.run.ringFrontMm : r.run.ringRearMm)

function isLiked(c: Climb, end: End): boolean {
  const rating = c.onNow[c.onNow.length - 1]?.feel?.rating ?? null
  return rating !== null && rating >= likedFrom && !saidOf(c, end).some(({ mark }) => isComplaint(mark.word))
}

/** The pressure of the target sag, by the solver; null where it is there already, or was ridden and left today. */
export function byAir(
  c: Climb,
  end: End,
  air: Extract<Adjuster, { kind: 'pressure' }>,
  sagPct: number,
): Proposal | null {
  const unit = c.space[end]!
  const psi = c.positions.get(air.id)
  if (psi === undefined) return null
  const spacerDial = unit.adjusters.find((a) => a.role === 'spacers')
  const spacers = (spacerDial && c.positions.get(spacerDial.id)) ?? 0
  const { pressurePsi, expectedSagPct, clampedBy } = solveOne(unit, air, {
    sagPct,
    pressurePsi: psi,
    spacers,
  })
  const to = clampToRange(air, Math.round(pressurePsi / air.stepPsi) * air.stepPsi)
  if (Math.abs(to - psi) < air.stepPsi / 2 || wasRiddenNear(c, air.id, to)) return null
  const firmer = to > psi
  const follows =
    Math.abs(to / psi - 1) > reboundFollowsFrom
      ? ` Its rebound follows it: check it at the kerb, it will want to be a click ${firmer ? 'slower' : 'faster'}.`
      : ''
  return {
    ...plain(
      'change',
      stepWords(end, air, psi, to, c.space),
      `The spring first: it should stand near ${Math.round(expectedSagPct)} % there.${clampedBy ? ` That is the unit’s own ${clampedBy === 'max' ? 'maximum' : 'minimum'}.` : ''} Read sag again before you ride.${follows}`,
      'If sag is right and the complaint stays, it was a damper.',
    ),
    moves: [{ end, adjusterId: air.id, from: psi, to }],
    caution: cautionFor(air),
  }
}

/** A reading that asks for so much more or less air is more often a slip than true: as a share. */
const hardToBelieve = 0.4

/** One reading far off is taken again before a pump is fetched; two that are there are believed. */
function readOnceMore(
  c: Climb,
  end: End,
  air: Extract<Adjuster, { kind: 'pressure' }>,
  sagPct: number,
): Proposal | null {
  const unit = c.space[end]!
  const [move] = byAir(c, end, air, sagPct)?.moves ?? []
  if (!move || Math.abs(move.to / move.from - 1) <= hardToBelieve || hasAskedEnough(c)) return null
  if (sagReadingsPct(c.h.setups, c.now!, unit).length > 1) return null
  return {
    ...sagFirst(
      c,
      end,
      'One reading asks for so much air that it is more often a slip. Lever open, brakes off, both chambers equalised, in kit, the ring pushed home. Two that agree are believed.',
      [],
    ),
    headline: `Read the ${end} sag once more`,
  }
}

/** The unit has no air left to give or take: said so, with what stands in for it. */
function atItsLimit(
  c: Climb,
  end: End,
  air: Extract<Adjuster, { kind: 'pressure' }>,
  byPct: number,
): Proposal | null {
  const psi = c.positions.get(air.id)
  const limit = byPct > 0 ? air.maxPsi : air.minPsi
  if (psi === undefined || Math.abs(psi - limit) > air.stepPsi) return null
  const kind = byPct > 0 ? 'spring-soft' : 'spring-firm'
  const cause = c.causes().find((x) => x.kind === kind && x.end === end)
  return cause ? usedUpFor(c, cause) : null
}

function byCoil(c: Climb, end: End, direction: 1 | -1): Proposal | null {
  const unit = c.space[end]!
  const coil = unit.adjusters.find((a) => a.role === 'spring-rate')
  const from = coil && c.positions.get(coil.id)
  if ((unit.spring !== 'coil' && !coil) || (coil && from === undefined)) return null
  const owned = coil?.kind === 'spring-rate' ? coil.ratesNPerMm : []
  const further = owned.filter((r) => Math.sign(r - from!) === direction)
  const to = direction > 0 ? further[0] : further[further.length - 1]
  if (to === undefined && hasAskedEnough(c)) return null
  if (!coil || from === undefined || to === undefined)
    return plain(
      'check-first',
      `The ${end} needs a ${direction > 0 ? 'firmer' : 'softer'} spring than those at hand`,
      'Preload moves where it rests, not how firm it is. The bench names the rate for its target.',
      'Sag read again within its window.',
    )
  return {
    ...plain(
      'change',
      stepWords(end, coil, from, to, c.space),
      'The spring first. Read sag again before you ride.',
      'If sag is right and the complaint stays, it was a damper.',
    ),
    moves: [{ end, adjusterId: coil.id, from, to }],
    caution: cautionFor(coil),
  }
}
