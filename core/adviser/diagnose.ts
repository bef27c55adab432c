import type { End } from '#contract/common'
import type { Cause, Evidence } from '#contract/proposal'
import type { Mark } from '#contract/run'
import { markCauses } from '../causes/marks.ts'
import { facts } from '../causes/factRules.ts'
import { springCauses } from '../causes/kinds.ts'
import { wordRules } from '../causes/words.ts'
import { meantWord } from '../causes/questions.ts'
import { metricFindings } from '../causes/metricRules.ts'
import { posterior, type Finding } from '../causes/posterior.ts'
import { diffSetups, moveWords } from '../setup/diff.ts'
import { knownSagPct } from '../setup/sagOf.ts'
import { mindVariance } from '../stats/session.ts'
import { canonicalUnits, say, sayDifference, type UnitChoice } from '../units/choice.ts'
import type { DayHistory, HistoryRun, SetupSpace } from './dayHistory.ts'
import { countedRuns, fittedUnits, keyOfRun, rideHeightTargets, setupOf, settingsKey } from './history.ts'
import { answersOf } from './remedies.ts'
import { conditionsNow } from '../conditions/at.ts'
import { strokePct } from '../spring/sag.ts'
import { answerFindings, answersGiven, explains, holdsAllDay } from './answers.ts'
import { isRefuted } from './deepest.ts'
import { unbelievedEnds } from './unbelieved.ts'

const strengthFactor = { 1: 0.7, 2: 1, 3: 1.3 } as const
/** What was said on the setup before still counts a little: the trail and the rider are the same. */
const olderFactor = 0.25

/**
 * All causes that the runs on the present settings speak for, with what speaks for and against each.
 */
export function diagnose(h: DayHistory, space: SetupSpace): Cause[] {
  const units = space.units ?? canonicalUnits
  const findings: Finding[] = []
  const now = setupOf(h, h.currentSetupId)
  const nowKey = now ? settingsKey(now) : ''
  const counted = countedRuns(h)
  const onNow = counted.filter((r) => keyOfRun(h, r) === nowKey)
  const lastOther = counted.filter((r) => keyOfRun(h, r) !== nowKey).slice(-1)
  for (const r of onNow) addRun(findings, h, r, space, 1 / Math.sqrt(onNow.length))
  if (onNow.length === 0) for (const r of lastOther) addRun(findings, h, r, space, 1)
  else for (const r of lastOther) addRun(findings, h, r, space, olderFactor)
  addTurned(findings, h, space, onNow, lastOther)
  addAnswers(findings, h, [...onNow, ...(onNow.length === 0 ? lastOther : [])])
  addConditions(findings, h, units)
  addBench(findings, h, space)
  addTyres(findings, h, sinceTyreLook(counted), units)
  // What springs nowhere causes nothing.
  return posterior(findings.filter((f) => f.end === null || space[f.end]))
}

function addRun(findings: Finding[], h: DayHistory, r: HistoryRun, space: SetupSpace, factor: number): void {
  const weight = factor / Math.sqrt(mindVariance[r.run.mind])
  for (const mark of r.feel?.marks ?? []) addMark(findings, h, r, mark, weight, space)
  for (const f of measuredFindings(r, space))
    findings.push({ ...f, evidence: { ...f.evidence, weight: f.evidence.weight * factor } })
}

/** A complaint that is new since a turn: the turn may have gone too far that way. */
const newSince = 0.6
function addTurned(
  findings: Finding[],
  h: DayHistory,
  space: SetupSpace,
  onNow: readonly HistoryRun[],
  before: readonly HistoryRun[],
): void {
  const [old] = before
  // Ridden again after the turn: what was said of these settings before it cannot be new since.
  const first = old && onNow.find((r) => r.number > old.number)
  const from = old && setupOf(h, old.run.setupId)
  const to = first && setupOf(h, first.run.setupId)
  if (!from || !to) return
  const moves = diffSetups(from, to, fittedUnits(space))
  for (const mark of first.feel?.marks ?? []) {
    if (old.feel?.marks.some((m) => m.word === mark.word)) continue
    for (const end of mark.end === 'both' ? (['front', 'rear'] as const) : [mark.end])
      for (const c of markCauses(mark.word, end, null)) {
        const way = answersOf(c.kind, c.end, space).filter((a) => !a.standIn)
        const move = moves.find((m) =>
          way.some((a) => a.adjuster.id === m.adjuster.id && a.direction === -Math.sign(m.to - m.from)),
        )
        if (!move) continue
        findings.push({
          kind: c.kind,
          end: c.end,
          evidence: {
            weight: newSince,
            text: `New since ${moveWords(move, space.units)}`,
            topic: `new since ${move.adjuster.id} ${mark.word}`,
            runNumbers: [first.number],
            link: { kind: 'runs', runId: first.run.id, sectionId: null, word: null },
          },
        })
      }
  }
}

/** What was answered of these settings. */
function addAnswers(findings: Finding[], h: DayHistory, here: readonly HistoryRun[]): void {
  for (const given of answersGiven(h))
    if (holdsAllDay(given.answer.question) || here.includes(given.run))
      findings.push(...answerFindings(given))
}

/** Tyres that were measured and put right begin anew. */
function sinceTyreLook(counted: readonly HistoryRun[]): readonly HistoryRun[] {
  const looked = counted.findLastIndex((r) => r.feel?.answers.some((a) => a.question === 'tyres-now'))
  return counted.slice(looked + 1)
}

/** What the figures and the rings of a run say, whatever was felt. */
export function measuredFindings(r: HistoryRun, space: SetupSpace): Finding[] {
  const findings: Finding[] = []
  const link: Evidence['link'] = { kind: 'metric', runId: r.run.id, sectionId: null, word: null }
  const wrong = unbelievedEnds(r, space)
  if (r.analysis) {
    const targets = rideHeightTargets(space, r.analysis.rearAt)
    for (const f of metricFindings(r.analysis, targets, wrong)) {
      findings.push({
        kind: f.kind,
        end: f.end,
        evidence: {
          weight: f.weight,
          text: capital(f.text),
          topic: f.topic,
          runNumbers: [r.number],
          link,
        },
      })
    }
  }
  const untold = ends.filter((end) => !r.analysis?.whole[end] || wrong.includes(end))
  addRings(findings, r, space, link, untold)
  addHeard(findings, r, space, link, untold)
  return findings
}

function addMark(
  findings: Finding[],
  h: DayHistory,
  r: HistoryRun,
  mark: Mark,
  factor: number,
  space: SetupSpace,
): void {
  const rule = wordRules[mark.word]
  const section = h.sections.find((s) => s.id === mark.sectionId)
  const where = section ? ` in ${section.name}` : ''
  const ends: End[] = mark.end === 'both' ? ['front', 'rear'] : [mark.end]
  const strong = strengthFactor[mark.strength] * factor
  const link: Evidence['link'] = { kind: 'mark', runId: r.run.id, sectionId: mark.sectionId, word: mark.word }
  for (const end of ends) {
    if (isRefuted(mark.word, end, r, space)) continue
    const word = meantWord(
      mark.word,
      (r.feel?.answers ?? []).filter((a) => explains(a, mark.word, end)),
    )
    for (const c of markCauses(word, end, section?.kind ?? null)) {
      // A word for both ends is one statement: it must not count twice for a whole-bike cause.
      if (c.end === null && end !== ends[0]) continue
      findings.push({
        kind: c.kind,
        end: c.end,
        evidence: {
          weight: c.weight * strong,
          text: `“${rule.label}”${where}, ${mark.end === 'both' ? 'both ends' : mark.end}`,
          topic: `${mark.word} ${mark.sectionId} ${mark.end}`,
          runNumbers: [r.number],
          link,
        },
      })
    }
  }
}

const ends = ['front', 'rear'] as const

/** The ring shows the deepest point of the run; it works without any sensor. @param untold ends of which none tells */
function addRings(
  findings: Finding[],
  r: HistoryRun,
  space: SetupSpace,
  link: Evidence['link'],
  untold: readonly End[],
): void {
  for (const end of untold) {
    const unit = space[end]
    const mm = end === 'front' ? r.run.ringFrontMm : r.run.ringRearMm
    if (!unit || mm === null) continue
    const pct = strokePct(mm, unit.strokeMm)
    const text = `The ${end} ring shows ${Math.round(pct)} % of travel used`
    const evidence = (weight: number): Evidence => ({
      weight,
      text,
      topic: `ring ${end}`,
      runNumbers: [r.number],
      link,
    })
    const { full, short } = facts.ringEffort[r.run.effort ?? 'usual']
    if (pct >= facts.ringFullPct) {
      findings.push({ kind: 'ramp-low', end, evidence: evidence(facts.ringFull * full) })
      findings.push({ kind: 'spring-soft', end, evidence: evidence(facts.ringFull * full) })
    } else if (pct < facts.ringShortPct && short > 0) {
      findings.push({ kind: 'spring-firm', end, evidence: evidence(facts.ringShortSpring * short) })
      findings.push({ kind: 'ramp-high', end, evidence: evidence(facts.ringShortRamp * short) })
    }
  }
}

/** Bottom-outs that somebody counted by ear, where no sensor counts them. One now and then on hard ground is fine. */
function addHeard(
  findings: Finding[],
  r: HistoryRun,
  space: SetupSpace,
  link: Evidence['link'],
  untold: readonly End[],
): void {
  for (const end of untold) {
    const times = end === 'front' ? r.run.heardBottomsFront : r.run.heardBottomsRear
    if (!space[end] || times === null) continue
    const tooMany = times >= facts.heardFrom[r.run.effort ?? 'usual']
    if (!tooMany && times > 0) continue
    for (const kind of ['ramp-low', 'spring-soft'] as const)
      findings.push({
        kind,
        end,
        evidence: {
          weight: tooMany ? facts.heard : -facts.heard,
          text: tooMany
            ? `The ${end} was heard to bottom ${times} ${times === 1 ? 'time' : 'times'}`
            : `Nobody heard the ${end} bottom`,
          topic: `heard ${end}`,
          runNumbers: [r.number],
          link,
        },
      })
  }
}

function addConditions(findings: Finding[], h: DayHistory, units: UnitChoice): void {
  const t = conditionsNow(h).airTempC
  if (t === null) return
  const link: Evidence['link'] = { kind: 'conditions', runId: null, sectionId: null, word: null }
  if (t >= facts.hotC)
    findings.push({
      kind: 'heat',
      end: null,
      evidence: {
        weight: facts.weather,
        text: `${say('temperature', t, units)}: the oil is thin`,
        topic: 'temperature',
        runNumbers: [],
        link,
      },
    })
  if (t <= facts.coldC)
    findings.push({
      kind: 'cold',
      end: null,
      evidence: {
        weight: facts.weather,
        text: `${say('temperature', t, units)}: the oil is thick`,
        topic: 'temperature',
        runNumbers: [],
        link,
      },
    })
}

/** What was true when the day began: the sag of the baseline, the weather it was found in, a lever left firm. */
function addBench(findings: Finding[], h: DayHistory, space: SetupSpace): void {
  const say = (kind: Finding['kind'], end: End | null, weight: number, text: string, topic: string) =>
    findings.push({
      kind,
      end,
      evidence: {
        weight,
        text,
        topic,
        runNumbers: [],
        link: { kind: 'bench', runId: null, sectionId: null, word: null },
      },
    })
  const now = setupOf(h, h.currentSetupId)
  for (const end of ['front', 'rear'] as const) {
    const unit = space[end]
    const sag = unit && now ? knownSagPct(h.setups, now, unit) : null
    if (unit && sag !== null) {
      const off = sag - unit.sagTargetPct
      if (Math.abs(off) > facts.sagBandPct)
        say(
          off > 0 ? 'spring-soft' : 'spring-firm',
          end,
          facts.sag,
          `${capital(end)} sag was ${Math.round(sag)} % on the bench, its target is ${unit.sagTargetPct} %`,
          `sag ${end}`,
        )
      else if (Math.abs(off) <= facts.sagRightPct)
        for (const kind of springCauses)
          // Only against what something speaks for: nobody has named the other.
          if (findings.some((f) => f.kind === kind && f.end === end && f.evidence.weight > 0))
            say(
              kind,
              end,
              -facts.sagRight,
              `${capital(end)} sag was ${Math.round(sag)} % on the bench: right`,
              `sag ${end}`,
            )
    }
    for (const a of unit?.adjusters ?? []) {
      const at = now?.positions.find((p) => p.adjusterId === a.id)?.value
      if (a.kind === 'lever' && at !== undefined && at > 0)
        say('lsc-closed', end, facts.lever, `The ${end} lever stands at “${a.positions[at]}”`, `lever ${end}`)
    }
  }
  const t = conditionsNow(h).airTempC
  const found = setupOf(h, h.startSetupId)?.foundIn
  if (t !== null && typeof found?.airTempC === 'number') {
    const rise = t - found.airTempC
    if (Math.abs(rise) >= facts.temperatureJumpC)
      say(
        rise > 0 ? 'heat' : 'cold',
        null,
        facts.temperatureJump,
        `${sayDifference('temperature', Math.round(Math.abs(rise)), space.units ?? canonicalUnits)} ${rise > 0 ? 'warmer' : 'colder'} than where the setup was found`,
        'temperature jump',
      )
  }
}

/** Wrong or wandering tyre pressure makes all the rest meaningless. */
function addTyres(
  findings: Finding[],
  h: DayHistory,
  counted: readonly HistoryRun[],
  units: UnitChoice,
): void {
  for (const key of ['tyreFrontPsi', 'tyreRearPsi'] as const) {
    const seen = counted.map((r) => r.run[key]).filter((x) => x !== null)
    const spread = Math.max(...seen) - Math.min(...seen)
    const end = key === 'tyreFrontPsi' ? 'front' : 'rear'
    const own = h.bikeTyresPsi[end]
    const [now] = seen.slice(-1)
    const off = own === null || now === undefined ? 0 : now - own
    const text =
      seen.length >= 2 && spread > facts.tyreSpreadPsi
        ? `The ${end} tyre differed by ${sayDifference('pressure', spread, units)} between runs`
        : Math.abs(off) >= facts.tyreOffPsi
          ? `The ${end} tyre has ${sayDifference('pressure', Math.abs(off), units)} ${off > 0 ? 'above' : 'below'} the bike’s own pressure`
          : null
    if (text !== null) {
      findings.push({
        kind: 'tyres',
        end: null,
        evidence: {
          weight: facts.tyre,
          text,
          topic: `tyre ${end}`,
          runNumbers: [],
          link: { kind: 'runs', runId: null, sectionId: null, word: null },
        },
      })
    }
  }
}

const capital = (s: string) => s.charAt(0).toUpperCase() + s.slice(1)
