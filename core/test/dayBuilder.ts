import type { Adjuster } from '#contract/adjuster'
import type { Bench } from '#contract/bench'
import type { Analysis, EndMetrics } from '#contract/recording'
import type { End } from '#contract/common'
import type { HourLine } from '#contract/hour'
import type { Answer } from '#contract/question'
import type { Mark, Run } from '#contract/run'
import type { Known, Setup } from '#contract/setup'
import type { SuspensionUnit } from '#contract/unit'
import type { BenchRider } from '../bench/evidence.ts'
import { withAnswered } from '../causes/answered.ts'
import { runBefore } from '../setup/runBefore.ts'
import { nothingNoted } from '../setup/nothingNoted.ts'
import { assumed, readBy, setBy } from '../setup/known.ts'
import type { Memory } from '../adviser/memory/remembered.ts'
import type { DayHistory, SetupSpace } from '../adviser/dayHistory.ts'

const base = { alias: null, tool: 'hand' } as const

export const frontPressure: Adjuster = {
  ...base,
  id: 'fp',
  kind: 'pressure',
  role: 'main-pressure',
  tool: 'shock-pump',
  minPsi: 40,
  maxPsi: 140,
  stepPsi: 1,
}
export const frontLsc: Adjuster = {
  ...base,
  id: 'fc',
  kind: 'click',
  role: 'low-speed-compression',
  clicks: 16,
  step: 1,
  countBase: 'closed-0',
}
export const frontRebound: Adjuster = {
  ...base,
  id: 'fr',
  kind: 'click',
  role: 'rebound',
  clicks: 12,
  step: 1,
  countBase: 'closed-0',
}
export const rearPressure: Adjuster = {
  ...base,
  id: 'rp',
  kind: 'pressure',
  role: 'main-pressure',
  tool: 'shock-pump',
  minPsi: 100,
  maxPsi: 300,
  stepPsi: 1,
}
export const rearRebound: Adjuster = {
  ...base,
  id: 'rr',
  kind: 'click',
  role: 'rebound',
  clicks: 14,
  step: 1,
  countBase: 'open',
}
export const rearSpacers: Adjuster = {
  ...base,
  id: 'rs',
  kind: 'spacer',
  role: 'spacers',
  tool: 'workshop',
  maxCount: 3,
}

export const fork: SuspensionUnit = {
  id: 'fork',
  version: 1,
  name: '150 mm air fork',
  end: 'front',
  spring: 'air',
  strokeMm: 150,
  sagTargetPct: 20,
  revalved: false,
  revalvedOn: null,
  ownerId: null,
  loan: null,
  idNote: '',
  airSpring: null,
  preloadPitchMm: 1.5,
  serviceEveryDays: null,
  charts: [],
  assumed: [],
  adjusters: [frontPressure, frontLsc, frontRebound],
  note: '',
}
export const shock: SuspensionUnit = {
  id: 'shock',
  version: 1,
  name: '55 mm air shock',
  end: 'rear',
  spring: 'air',
  strokeMm: 55,
  sagTargetPct: 30,
  revalved: false,
  revalvedOn: null,
  ownerId: null,
  loan: null,
  idNote: '',
  airSpring: null,
  preloadPitchMm: 1.5,
  serviceEveryDays: null,
  charts: [],
  assumed: [],
  adjusters: [rearPressure, rearRebound, rearSpacers],
  note: '',
}
export const space: SetupSpace = { front: fork, rear: shock }

export const startPositions: Record<string, number> = { fp: 80, fc: 8, fr: 6, rp: 180, rr: 7, rs: 1 }

/** Runs of the story follow each other every ten minutes. */
const clockAt = (run: number) => new Date(Date.UTC(2031, 4, 2, 9, 10 * run)).toISOString()

/** A day told run by run; ids are the numbers of the story. */
export class DayBuilder {
  private setups: Setup[] = []
  private runs: DayHistory['runs'] = []
  private tempC: number | null = 15
  private hours: HourLine[] = []
  private limit = 8
  private memory: Memory | null = null

  constructor(start: Record<string, number> = startPositions) {
    this.addSetup(start, 'baseline', false)
  }

  /** Moves adjusters from where they are; one setup, whatever is moved. */
  change(
    to: Record<string, number>,
    options: { linked?: boolean; source?: Setup['reason']['source'] } = {},
  ): this {
    const now = this.setups[this.setups.length - 1]
    const positions = Object.fromEntries(now.positions.map((p) => [p.adjusterId, p.value]))
    return this.addSetup({ ...positions, ...to }, options.source ?? 'own-idea', options.linked ?? false)
  }

  run(
    rating: number | null,
    marks: Partial<Mark>[] = [],
    options: Partial<Run> & {
      analysis?: Analysis
      against?: [number, -2 | -1 | 0 | 1 | 2]
      answers?: Answer[]
    } = {},
  ): this {
    const { analysis, against, answers, ...facts } = options
    const n = this.runs.length + 1
    const id = `run${n}`
    const setupId = this.setups[this.setups.length - 1].id
    this.runs.push({
      number: n,
      run: {
        id,
        version: 1,
        dayId: 'day',
        setupId,
        startedAt: clockAt(n),
        kind: 'counted',
        ...nothingNoted,
        ...facts,
      },
      feel:
        rating === null && marks.length === 0
          ? null
          : {
              runId: id,
              version: 1,
              rating,
              note: '',
              answers: answers ?? [],
              verdicts: against ? [{ againstRunId: `run${against[0]}`, value: against[1] }] : [],
              marks: marks.map((m, i) => ({
                id: `${id}m${i}`,
                word: 'kicks',
                sectionId: null,
                end: 'rear',
                strength: 2,
                ...m,
              })),
            },
      analysis: analysis ?? null,
    })
    return this
  }

  /** An answer to what was asked after the last run. */
  answer(given: Answer): this {
    const last = this.runs[this.runs.length - 1]
    const before = runBefore(
      this.runs.map((r) => r.run),
      last.run.id,
    )
    if (last.feel) last.feel = withAnswered(last.feel, given, before?.id ?? null)
    return this
  }

  /** Sag read on what is on the bike now; nothing is turned. */
  readSag(end: End, sagPct: number): this {
    const now = this.setups[this.setups.length - 1]
    this.addSetup(Object.fromEntries(now.positions.map((p) => [p.adjusterId, p.value])), 'reading', true)
    this.setups[this.setups.length - 1].foundIn = {
      airTempC: this.tempC,
      altitudeM: 400,
      place: '',
      sagFrontPct: end === 'front' ? sagPct : null,
      sagRearPct: end === 'rear' ? sagPct : null,
      postureFront: null,
      postureRear: null,
    }
    return this
  }

  /** A dial counted to its stop, a gauge put on: where parts were found to stand; nothing is turned. */
  look(found: Record<string, number>): this {
    const now = this.setups[this.setups.length - 1]
    this.change(found, { source: 'reading', linked: true })
    const read = this.setups[this.setups.length - 1]
    const hand = { at: `2031-05-02T10:${String(this.setups.length).padStart(2, '0')}:00Z` }
    read.positions = read.positions.map((p) =>
      p.adjusterId in found
        ? { ...p, known: readBy(hand) }
        : (now.positions.find((x) => x.adjusterId === p.adjusterId) ?? p),
    )
    return this
  }

  /** Nobody counted these: they come off a card. */
  assuming(...ids: string[]): this {
    for (const s of this.setups)
      s.positions = s.positions.map((p) =>
        ids.includes(p.adjusterId) ? { ...p, known: assumed('as the card says') } : p,
      )
    return this
  }

  at(tempC: number): this {
    this.tempC = tempC
    return this
  }

  /** A line of the log by the hour, noted between the last run and the next. */
  hour(line: Partial<HourLine>): this {
    const at = clockAt(this.runs.length + 0.5)
    const nothing = { airTempC: null, altitudeM: null, surface: null, track: [], note: '' }
    this.hours.push({ id: `hour${this.hours.length + 1}`, at, ...nothing, ...line })
    return this
  }

  allow(changes: number): this {
    this.limit = changes
    return this
  }

  remembering(memory: Memory | null): this {
    this.memory = memory
    return this
  }

  history(): DayHistory {
    return {
      dayId: 'day',
      sections: [
        { id: 'roots', name: 'Root web', kind: 'roots', lengthM: 100, severity: 1 },
        { id: 'lip', name: 'Step-down', kind: 'jump', lengthM: 40, severity: 1 },
      ],
      conditions: { airTempC: this.tempC, altitudeM: 400, surface: 'damp' },
      hours: this.hours,
      runs: this.runs,
      setups: this.setups,
      currentSetupId: this.setups[this.setups.length - 1].id,
      startSetupId: this.setups[0].id,
      changeLimit: this.limit,
      settledSetupId: null,
      purpose: 'testing',
      ownCharts: [],
      memory: this.memory,
      bikeTyresPsi: { front: null, rear: null },
    }
  }

  private addSetup(
    positions: Record<string, number>,
    source: Setup['reason']['source'],
    linked: boolean,
  ): this {
    const id = `setup${this.setups.length + 1}`
    const parentId = this.setups[this.setups.length - 1]?.id ?? null
    this.setups.push({
      id,
      bikeId: 'bike',
      parentId,
      dayId: 'day',
      madeAt: '2031-05-02T08:00:00Z',
      name: null,
      frontUnitId: 'fork',
      rearUnitId: 'shock',
      positions: Object.entries(positions).map(([adjusterId, value]) => ({
        end: adjusterId.startsWith('f') ? 'front' : 'rear',
        adjusterId,
        value,
        known: this.knownOf(adjusterId, value),
      })),
      reason: { text: '', source, linked, proposalId: null, undoes: null, fromSetupId: null },
      foundIn: null,
      wanted: false,
    })
    return this
  }

  /** What is not turned is known as it was; a count that nobody took stays one. */
  private knownOf(adjusterId: string, value: number): Known {
    const n = this.setups.length
    const before = this.setups[n - 1]?.positions.find((p) => p.adjusterId === adjusterId)
    const isAsBefore = before && (before.value === value || before.known.how === 'assumed')
    return isAsBefore ? before.known : setBy({ at: `2031-05-02T08:${String(n).padStart(2, '0')}:00Z` })
  }
}

const quiet: EndMetrics = {
  rideHeightPct: 20,
  depthP05Pct: 5,
  depthP50Pct: 20,
  depthP95Pct: 60,
  depthMaxPct: 88,
  depthHistogram: { start: 0, width: 2, share: [] },
  speedHistogram: { start: -4000, width: 100, share: [] },
  compressionP95MmS: 900,
  compressionMaxMmS: 2500,
  reboundP95MmS: 700,
  reboundMaxMmS: 1500,
  highSpeedCompressionShare: 0.4,
  highSpeedReboundShare: 0.4,
  supportPct: 5,
  smallBumpPct: 3,
  chatterS: 12,
  bottomOuts: 0,
  hardBottomOuts: 0,
  topOuts: 0,
  hits: 60,
  midHits: 40,
  bigHits: 4,
  trains: 0,
  valleyDriftPctPerHit: null,
  valleyDriftSe: null,
  reboundDampingRatio: null,
  reboundDampingSe: null,
  reboundDampingHits: 0,
  recoveryMs: 200,
  returnSlopePerS: null,
  returnInterceptMmS: null,
  chatterPctPerG: null,
  diveRisePct: null,
}

/** An analysis with nothing remarkable in it but what is given. */
export function analysisWith(front: Partial<EndMetrics>, rear: Partial<EndMetrics>): Analysis {
  const f = { ...quiet, ...front }
  const r = { ...quiet, rideHeightPct: 30, ...rear }
  return {
    coreVersion: 'test',
    rearAt: 'axle',
    sections: [],
    sectionsBy: 'marks',
    sectionsDoubt: null,
    edgePlaces: [],
    events: [],
    spectra: { front: null, rear: null },
    hitPoints: { front: [], rear: [] },
    whole: {
      sectionId: null,
      startS: 0,
      endS: 60,
      front: f,
      rear: r,
      balancePct: f.rideHeightPct - r.rideHeightPct,
      airtimeS: 0,
      compressionSpeedRatio: null,
      reboundSpeedRatio: null,
      wheelbaseCorrelation: null,
      wheelbaseLagS: null,
      buzzMS2: null,
      brakings: null,
      loadedTurns: null,
      landings: null,
    },
  }
}

/** A bench with fork and shock where `startPositions` stand. */
export function benchOn(over: Partial<Bench> = {}): Bench {
  return {
    id: 'bench',
    version: 1,
    bikeId: 'bike',
    startedAt: '2031-05-02T08:00:00Z',
    orderSchool: 'sag-rebound-volume',
    equaliseSchool: 'every-50',
    spacerSchool: 'as-delivered',
    posture: { front: 'ready', rear: 'seated' },
    airTempC: 15,
    altitudeM: 300,
    place: '',
    airSaidAt: null,
    airSaidEach: null,
    gaugeId: { front: null, rear: null },
    positions: Object.entries(startPositions).map(([adjusterId, value]) => ({
      end: adjusterId.startsWith('f') ? 'front' : 'rear',
      adjusterId,
      value,
      known: setBy({ at: '2031-05-02T08:00:00Z' }),
    })),
    checks: [],
    checksOut: [],
    readings: [],
    reboundTests: [],
    travelReadings: [],
    steps: [],
    finishedSetupId: null,
    note: '',
    ...over,
  }
}

/** A rider with kit of that riding weight, in the usual postures. */
export const benchRider = (ridingMassKg: number | null): BenchRider => ({
  ridingMassKg,
  kitKnown: true,
  shares: { seatedPct: null, readyPct: null },
})
