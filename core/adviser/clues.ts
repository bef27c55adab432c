import type { End } from '#contract/common'
import type { CauseKind } from '#contract/proposal'
import type { Answer } from '#contract/question'
import type { FeelWord, Mark, MindTag } from '#contract/run'
import { markCauses, wordShares } from '../causes/marks.ts'
import type { Finding } from '../causes/posterior.ts'
import { meantWord } from '../causes/questions.ts'
import { isComplaint } from '../causes/words.ts'
import { mindVariance, otherConditionsVariance, sessionPriors } from '../stats/session.ts'
import { comparable } from './comparable.ts'
import { answersGiven, beyondWords, explains, toldFactor } from './answers.ts'
import type { Dial } from './dials.ts'
import { isRefuted } from './deepest.ts'
import { measuredFindings } from './diagnose.ts'
import type { DayHistory, HistoryRun, SetupSpace } from './dayHistory.ts'
import { countedRuns, keyOfRun, settingsKey, setupOf } from './history.ts'
import { answersOf } from './remedies.ts'
import { wishedPsi } from './sagWish.ts'
import { together, type Normal } from '../stats/normal.ts'
import {
  surfacePriors,
  usualHabit,
  usualSteepness,
  type Clue,
  type DialPrior,
  type Hint,
  type RatedRow,
  type Silence,
  type SurfaceData,
} from './surface/model.ts'

/** Constants of what words, praise and silence are worth; tuned on tuning riders only (docs/models.md, "Next change"). */
export const clueRules = {
  /** How often a word is a slip or a look-alike, by how strongly it is said. */
  misled: { 1: 0.28, 2: 0.2, 3: 0.14 } satisfies Record<Mark['strength'], number>,
  /** Added when the same word comes again on the same settings: it is the same ear. */
  misledAgain: 0.12,
  misledInMind: {
    normal: 0,
    'track-new': 0.12,
    nervous: 0.12,
    tired: 0.12,
    'saving-tyres': 0.18,
  } satisfies Record<MindTag, number>,
  mostMisled: 0.7,
  /** The usual share of slips counts like so many times that this rider said the word. */
  slipRuns: 6,
  /** How far off a word of that strength speaks of, and where a stronger one would be due, click-equivalents. */
  feltFrom: { 1: 0.6, 2: 1.3, 3: 2.3 } satisfies Record<Mark['strength'], number>,
  fadesFrom: { 1: 2.5, 2: 4.5, 3: Infinity } satisfies Record<Mark['strength'], number>,
  /** How sharply a word points at its first causes. */
  sharpness: 1.6,
  /** Chance that a dial that stands far off would have been named beside something else, or by somebody who praises. */
  unsaid: 0.1,
  praised: 0.35,
}
/** A stand-in answers only part of what the missing part would. */
const standInShare = 0.5
/**
 * A ten stands for anything from there on. Far down ratings are no measure either: up to there so much scatter more, rating
 * points squared.
 */
const scaleEnds = { top: 10, roughUpTo: 1.5, roughVariance: 4 }

/**
 * What a day has shown, for the surface: ratings, said differences, words, figures and silences of all counted runs.
 * A dial that a run's settings do not know (fitted or recounted since) counts as standing where it stands now.
 */
export function surfaceDataOf(h: DayHistory, space: SetupSpace, dials: readonly Dial[]): SurfaceData {
  const now = clicksOf(h, h.currentSetupId, dials, null)
  const start = clicksOf(h, h.startSetupId, dials, now)
  const runs = countedRuns(h).filter((r) => setupOf(h, r.run.setupId))
  const place = new Map(runs.map((r, i) => [r.run.id, i]))
  const onSettings = new Map<string, number>()
  for (const r of runs) onSettings.set(keyOfRun(h, r)!, (onSettings.get(keyOfRun(h, r)!) ?? 0) + 1)
  const latest = runs[runs.length - 1]
  const rows: RatedRow[] = []
  const clues: Clue[] = []
  const hints: Hint[] = []
  const silences: Silence[] = []
  const seen = new Map<string, number>()
  const answers = dialAnswers(space, dials)

  runs.forEach((r, point) => {
    const like = comparable(h, r, latest)
    const noiseTimes = mindVariance[r.run.mind] * (like.equal ? 1 : otherConditionsVariance)
    if (typeof r.feel?.rating === 'number') {
      const value = r.feel.rating
      const extraVariance = value <= scaleEnds.roughUpTo ? scaleEnds.roughVariance : 0
      rows.push({ a: null, b: point, value, noiseTimes, extraVariance, atTop: value >= scaleEnds.top })
    }
    for (const v of r.feel?.verdicts ?? []) {
      const a = place.get(v.againstRunId)
      if (a !== undefined && keyOfRun(h, runs[a]) !== keyOfRun(h, r))
        rows.push({
          a,
          b: point,
          value: v.value * sessionPriors.saidStep,
          noiseTimes: comparable(h, r, runs[a]).equal ? 1 : otherConditionsVariance,
          extraVariance: sessionPriors.saidSd ** 2,
          atTop: false,
        })
    }
    const named = new Float64Array(dials.length)
    const marks = r.feel?.marks ?? []
    const complaints = marks.filter((m) => isComplaint(m.word)).length
    for (const mark of marks.filter((m) => isComplaint(m.word))) {
      const ends: End[] = mark.end === 'both' ? ['front', 'rear'] : [mark.end]
      for (const end of ends) {
        if (isRefuted(mark.word, end, r, space)) continue
        const again = `${keyOfRun(h, r)} ${mark.word} ${end}`
        const times = seen.get(again) ?? 0
        seen.set(again, times + 1)
        const floor = Math.min(
          clueRules.mostMisled,
          slipOf(h, mark) + clueRules.misledAgain * times + clueRules.misledInMind[r.run.mind],
        )
        const told = toldOf(h, r, mark.word, end)
        const spoken = clueOf({ mark, end, floor, only: isOnly(r, mark), told }, h, answers)
        clues.push({ point, ...spoken })
        for (const p of spoken.parts) named[p.dial] += p.share / (1 - floor)
      }
    }
    for (const f of measuredFindings(r, space)) {
      const times = Math.sqrt(onSettings.get(keyOfRun(h, r)!)!)
      hints.push(...hintsOf([f], point, answers).map((x) => ({ ...x, weight: x.weight / times })))
    }
    // Who says nothing says nothing about any dial; who names one thing, usually the worst, says little of the others.
    dials.forEach((d, dial) => {
      const liked = marks.some((m) => !isComplaint(m.word) && (m.end === 'both' || m.end === d.end))
      const chance = complaints > 0 ? clueRules.unsaid : liked ? clueRules.praised : 0
      const weight = chance * (1 - Math.min(1, named[dial]))
      if (weight > 0) silences.push({ point, dial, weight })
    })
  })
  for (const given of answersGiven(h)) {
    const point = place.get(given.run.run.id)
    if (point !== undefined) hints.push(...hintsOf(beyondWords(given), point, answers))
  }
  return {
    dials: dials.map((d, k) => priorOf(h, space, d, start[k])),
    habit: h.memory?.habit ?? usualHabit(),
    points: runs.map((r) => ({ at: clicksOf(h, r.run.setupId, dials, now), index: r.number })),
    rows,
    clues,
    hints,
    silences,
  }
}

/** Rated so without a complaint of that end, a pressure far off its sag target is this rider's taste. */
const likedFrom = 8
const likedOffClicks = 3
function isLikedOffTarget(h: DayHistory, d: Dial, psi: number): boolean {
  return countedRuns(h).some((r) => {
    const at = setupOf(h, r.run.setupId)?.positions.find((p) => p.adjusterId === d.adjuster.id)?.value
    return (
      at !== undefined &&
      Math.abs(d.toClicks(at) - d.toClicks(psi)) >= likedOffClicks &&
      (r.feel?.rating ?? 0) >= likedFrom &&
      !r.feel!.marks.some((m) => isComplaint(m.word) && (m.end === d.end || m.end === 'both'))
    )
  })
}

/**
 * What is believed of a dial before the day's runs: its best place at the sag target where sag was read, else about where
 * the day began; with what earlier days taught of its place and width.
 */
export function priorOf(h: DayHistory, space: SetupSpace, d: Dial, start: number): DialPrior {
  const unit = space[d.end]
  const psi = d.adjuster.role === 'main-pressure' && unit ? wishedPsi(h.setups, unit) : null
  const today: Normal =
    psi === null || isLikedOffTarget(h, d, psi)
      ? { mean: start, sd: surfacePriors.expectedSd }
      : { mean: d.toClicks(psi), sd: surfacePriors.sagExpectedSd }
  const known = h.memory?.dials.find((x) => x.adjusterId === d.adjuster.id)
  const place = known?.place ? together(today, known.place) : today
  return {
    low: d.low,
    high: d.high,
    expected: Math.min(d.high, Math.max(d.low, place.mean)),
    expectedSd: place.sd,
    logSteepness: known?.logSteepness ? together(usualSteepness(), known.logSteepness) : usualSteepness(),
  }
}

/** Whether a complaint is all that was complained of on its run, of one end. */
export const isOnly = (r: HistoryRun, mark: Mark): boolean =>
  mark.end !== 'both' && r.feel!.marks.filter((m) => isComplaint(m.word)).length === 1

/** How often a word so said is a slip: by its strength, and by how often this rider's word pointed right before. */
export function slipOf(h: DayHistory, mark: Mark): number {
  const usual = clueRules.misled[mark.strength]
  const kept = h.memory?.words.find((w) => w.word === mark.word)
  if (!kept) return usual
  const { slipRuns } = clueRules
  return (usual * slipRuns + (kept.times - kept.right)) / (slipRuns + kept.times)
}

type DialAnswers = (kind: CauseKind, end: End | null) => Clue['parts']

/** Which dials answer a cause, and which way; a stand-in counts for part. */
export function dialAnswers(space: SetupSpace, dials: readonly Dial[]): DialAnswers {
  return (kind, end) =>
    answersOf(kind, end, space).flatMap((a) => {
      const dial = dials.findIndex((d) => d.adjuster.id === a.adjuster.id)
      return dial < 0 ? [] : [{ dial, direction: a.direction, share: a.standIn ? standInShare : 1 }]
    })
}

/** Findings as what they say of the dials that answer them. */
export function hintsOf(findings: readonly Finding[], point: number, answers: DialAnswers): Hint[] {
  return findings.flatMap((f) => {
    const found = answers(f.kind, f.end)
    return found.map((a) => ({
      point,
      dial: a.dial,
      direction: a.direction,
      weight: (f.evidence.weight * a.share) / found.length,
    }))
  })
}

/** What was answered about a word: on its own run, or on another one that was ridden on the same settings of that end. */
export function toldOf(h: DayHistory, r: HistoryRun, word: FeelWord, end: End): Answer[] {
  const key = endKey(h, r, end)
  return answersGiven(h)
    .filter((g) => explains(g.answer, word, end) && (g.run === r || endKey(h, g.run, end) === key))
    .map((g) => g.answer)
}

/** Runs with equal settings of an end share this key. */
function endKey(h: DayHistory, r: HistoryRun, end: End): string {
  const s = setupOf(h, r.run.setupId)
  return s ? settingsKey({ ...s, positions: s.positions.filter((p) => p.end === end) }) : r.run.id
}

/** Positions of a setup, click-equivalents per dial; `fallback` where the setup does not know the dial. */
export function clicksOf(
  h: DayHistory,
  setupId: string,
  dials: readonly Dial[],
  fallback: Float64Array | null,
): Float64Array {
  const values = new Map(setupOf(h, setupId)?.positions.map((p) => [p.adjusterId, p.value] as const))
  return Float64Array.from(dials, (d, k) => {
    const v = values.get(d.adjuster.id)
    if (v === undefined) return fallback?.[k] ?? (d.low + d.high) / 2
    // Outside after a recount: as near as the part can stand today.
    return Math.min(d.high, Math.max(d.low, d.toClicks(v)))
  })
}

/** A word as it was heard: said of an end, a slip by `floor`, with what was answered when it was asked about. */
export interface Spoken {
  mark: Mark
  end: End
  floor: number
  /** Nothing else was complained of on that run. */
  only: boolean
  told: readonly Answer[]
}

/** A word as the surface weighs it. An answer makes it sharper: each of its causes counts as often as it answers so. */
export function clueOf(
  { mark, end, floor, only, told }: Spoken,
  h: DayHistory,
  answers: DialAnswers,
): Omit<Clue, 'point'> {
  const kind = h.sections.find((s) => s.id === mark.sectionId)?.kind ?? null
  const word = meantWord(mark.word, told)
  // An answer that says which word was meant has had its say.
  const more = word === mark.word ? told : told.filter((a) => explains(a, word, end))
  const causes = markCauses(word, end, kind)
  const shares = wordShares(word, end, kind, clueRules.sharpness).map(
    (share, i) => share * toldFactor(more, causes[i].kind, causes[i].end),
  )
  const out: Omit<Clue, 'point'> = {
    floor: floor * toldFactor(more, 'none', null),
    only,
    parts: [],
    feltFrom: clueRules.feltFrom[mark.strength],
    fadesFrom: clueRules.fadesFrom[mark.strength],
  }
  causes.forEach((c, i) => {
    const share = (1 - floor) * shares[i]
    const found = answers(c.kind, c.end)
    if (found.length === 0) out.floor += share
    for (const a of found) {
      out.parts.push({ ...a, share: (share * a.share) / found.length })
      out.floor += (share * (1 - a.share)) / found.length
    }
  })
  return out
}
