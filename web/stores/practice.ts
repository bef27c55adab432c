import { proxy } from 'comlink'
import { defineStore } from 'pinia'
import { computed, ref, shallowRef } from 'vue'
import type { End } from '#contract/common'
import type { AskedQuestion } from '#contract/question'
import { practiceDay, withRecordings, type NotedFeel, type PracticeAct } from '#core/practice/day'
import { drillOf } from '#core/practice/drills'
import { hiddenRider } from '#core/practice/hiddenRider'
import type { RiddenCourse } from '#core/practice/ride'
import { varied } from '#core/practice/vary'
import { useChosen } from '../composables/useChosen.ts'
import { useRideSensors } from '../composables/useRideSensors.ts'
import { useUnits } from '../composables/useUnits.ts'
import { keepDraft, readDraft } from '../support/drafts.ts'
import type { RiderKey } from '../workers/practice.worker.ts'
import { endPracticeThread, practiceThread } from '../workers/practiceThread.ts'
import { useDayJudge } from './day/judge.ts'

/** Runs that other players get. */
export const mostRuns = 12
const nameOf = (k: RiderKey) => `practice:${k.drill}:${k.variation ?? ''}:${k.seed}`

/**
 * A day of practice. It is made from its acts alone, lives on this device, and knows neither the server nor any record:
 * nothing of it can get among what is real.
 */
export const usePractice = defineStore('practice', () => {
  const { units } = useUnits()
  const key = shallowRef<RiderKey | null>(null)
  const acts = shallowRef<PracticeAct[]>([])
  const rider = computed(() => {
    const drill = key.value && drillOf(key.value.drill)
    return drill ? hiddenRider(varied(drill, key.value!.variation), key.value!.seed) : null
  })
  const told = computed(() => rider.value && practiceDay(rider.value, acts.value))
  const sensors = useRideSensors(key, told)
  const day = computed(() => told.value && withRecordings(told.value, sensors.recordings.value))
  const bundle = computed(() => day.value?.bundle ?? null)
  const { pending, held, moves, choose, drop } = useChosen(bundle)
  /** Wanted by whoever practises; what it says is theirs to follow or not. */
  const adviserOn = ref(false)
  const judged = computed(() => (adviserOn.value && (day.value?.runs.length ?? 0) > 0 ? bundle.value : null))
  const nothingEarlier = shallowRef([])
  const { proposal, knowledge, judging, fault, forget } = useDayJudge(judged, nothingEarlier, units)
  /** What the rider says is noted by whoever practises, as on a trail day; from the next ride on. */
  const notesByHand = ref(false)
  /** The ride that was just made, to be looked at. */
  const course = shallowRef<RiddenCourse | null>(null)
  const riding = ref(false)
  /** Counts the days that were begun. */
  let begun = 0

  function open(wanted: RiderKey): void {
    if (key.value && nameOf(key.value) === nameOf(wanted)) return
    sensors.forget()
    key.value = wanted
    const kept = readDraft<PracticeAct[]>(nameOf(wanted))
    acts.value = Array.isArray(kept) ? kept : []
    notesByHand.value = acts.value.some((a) => a.do === 'ride' && a.byHand)
    pending.value = {}
    course.value = null
    forget()
  }
  function keep(next: PracticeAct[]): void {
    acts.value = next
    if (key.value) keepDraft(nameOf(key.value), next.length > 0 ? next : null)
  }
  const add = (act: PracticeAct) => keep([...acts.value, act])

  /** @throws Error when the ride cannot be made */
  async function ride(): Promise<void> {
    if (!key.value || !day.value || riding.value) return
    riding.value = true
    const of = key.value
    const at = begun
    const before = acts.value.length
    const byHand = notesByHand.value
    try {
      const ridden = await practiceThread().ride(
        { ...of },
        { ...day.value.positions },
        day.value.runs.length + 1,
      )
      // Another rider was chosen meanwhile, or the day begun again: this ride belongs to neither.
      if (key.value !== of || begun !== at) return
      course.value = ridden
      // It began where it began: what was asked or turned while it was made came after.
      const [then, since] = [acts.value.slice(0, before), acts.value.slice(before)]
      const ride: PracticeAct = { do: 'ride', ringMm: ridden.ringMm, ...(byHand ? { byHand: true } : {}) }
      keep([...then, ride, ...since])
    } finally {
      riding.value = false
    }
  }
  /** Notes what the rider said of a run, in the place of what was noted of it before. */
  function note(run: number, feel: NotedFeel): void {
    const without = acts.value.filter((a) => a.do !== 'note' || a.run !== run)
    const rides = without.flatMap((a, i) => (a.do === 'ride' ? [i] : []))
    // Right behind its ride: what was turned since stays the last act, which can be undone.
    without.splice(rides[run - 1] + 1, 0, { do: 'note', run, feel })
    keep(without)
  }
  function turn(text: string, linked: boolean): void {
    const to = { ...pending.value }
    drop()
    add({ do: 'turn', to, linked, text, source: 'own-idea' })
  }
  function doProposal(): void {
    const p = proposal.value
    const b = bundle.value
    if (!p || !b) return
    const back = p.setupId ? b.setups.find((s) => s.id === p.setupId) : null
    const places = back
      ? back.positions.map((x) => [x.adjusterId, x.value])
      : p.moves.map((m) => [m.adjusterId, m.to])
    drop()
    add({
      do: 'turn',
      to: Object.fromEntries(places) as Record<string, number>,
      linked: places.length > 1,
      text: p.headline,
      source: back ? 'revert' : 'proposal',
    })
  }
  const ask = ({ id, end }: Pick<AskedQuestion, 'id' | 'end'>) => add({ do: 'ask', question: id, end })
  const read = (end: End) => add({ do: 'read', end })
  const look = (adjusterId: string) => add({ do: 'look', adjusterId })
  const settle = () => add({ do: 'settle' })
  /** Takes the last act back, as long as it was not a ride: a ride was ridden. */
  const undoable = computed(() => {
    const last = acts.value.at(-1)
    return last?.do === 'turn' || last?.do === 'settle' ? last : null
  })
  const undo = () => undoable.value && keep(acts.value.slice(0, -1))
  function again(): void {
    begun++
    sensors.forget()
    keep([])
    drop()
    course.value = null
    forget()
  }
  /** A ride with the channels its sensors kept. @throws Error when it was not ridden, or cannot be read */
  async function trace(number: number) {
    const run = day.value?.runs.find((r) => r.number === number)
    if (!key.value || !run) throw new Error(`Run ${number} was not ridden.`)
    return practiceThread().trace({ ...key.value }, { ...run.positions }, number)
  }
  function stopPlaying(): void {
    endPracticeThread()
    sensors.giveUp()
    void sensors.read()
  }
  /** What others would have done with this rider. */
  const playedBy = (who: 'adviser' | 'tester', onRun: (run: number) => void) =>
    practiceThread().play({ ...key.value! }, who, sensors.on.value, mostRuns, proxy(onRun))

  return {
    key,
    acts,
    rider,
    day,
    bundle,
    pending,
    adviserOn,
    notesByHand,
    note,
    proposal,
    knowledge,
    judging,
    fault,
    course,
    riding,
    held,
    moves,
    undoable,
    open,
    ride,
    choose,
    drop,
    turn,
    doProposal,
    ask,
    read,
    look,
    settle,
    undo,
    again,
    playedBy,
    /** Nobody waits for other players any more. */
    stopPlaying,
    sensorsOn: sensors.on,
    recordings: sensors.recordings,
    sensorsFault: sensors.fault,
    toggleSensors: sensors.toggle,
    trace,
  }
})
