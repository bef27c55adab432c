import { computed, ref, shallowRef, watch, type Ref } from 'vue'
import type { PracticeAct } from '#core/practice/day'
import { coachDay, type CoachAct } from '#core/practice/coach/clock'
import { ridersOf } from '#core/practice/coach/riders'
import type { RiddenCourse } from '#core/practice/ride'
import { keepDraft, readDraft } from '../support/drafts.ts'
import { practiceThread } from '../workers/practiceThread.ts'
import { useChosen } from './useChosen.ts'

/** Several riders of practice by one clock. It is made from what was done alone, and stays on this device. */
export function useCoachTent(seed: Readonly<Ref<number>>) {
  const key = () => `practice-coach:${seed.value}`
  const acts = shallowRef<CoachAct[]>([])
  const riders = computed(() => ridersOf(seed.value))
  const tent = computed(() => coachDay(riders.value, acts.value))
  /** Who is spoken to, 0-based. */
  const with_ = ref(0)
  const at = computed(() => tent.value.riders[with_.value])
  const bundle = computed(() => at.value.day.bundle)
  const chosen = useChosen(bundle)
  /** Rides of this visit, by rider: what was not seen is not kept. */
  const courses = shallowRef<Record<number, RiddenCourse>>({})
  const sending = ref(false)
  /** Counts the times that it was begun again. */
  let begun = 0
  watch(
    seed,
    () => {
      const kept = readDraft<CoachAct[]>(key())
      acts.value = Array.isArray(kept) ? kept : []
      with_.value = 0
      courses.value = {}
      chosen.drop()
    },
    { immediate: true },
  )
  function keep(next: CoachAct[]): void {
    acts.value = next
    keepDraft(key(), next.length > 0 ? next : null)
  }
  const add = (act: PracticeAct) => keep([...acts.value, { rider: with_.value, act }])
  function speakTo(i: number): void {
    with_.value = i
    chosen.drop()
  }
  /** Who has stood here longest and is not happy; -1: nobody is here. */
  const longestHere = () =>
    tent.value.riders.reduce(
      (best, r, i, all) =>
        r.backAtMin === null && !r.day.settled && (best < 0 || r.hereSinceMin < all[best].hereSinceMin)
          ? i
          : best,
      -1,
    )
  /** Sends out whom one speaks to, and turns to the next. @throws Error when the ride cannot be made */
  async function sendOut(): Promise<void> {
    if (sending.value) return
    sending.value = true
    const [of, i, time] = [seed.value, with_.value, begun]
    const rider = riders.value[i]
    const { day } = at.value
    try {
      const which = { drill: rider.drill.key, variation: null, seed: rider.seed }
      const ridden = await practiceThread().ride(which, { ...day.positions }, day.runs.length + 1)
      // Others were chosen, or it was begun again, meanwhile.
      if (seed.value !== of || begun !== time) return
      if (JSON.stringify(tent.value.riders[i].day.positions) !== JSON.stringify(day.positions))
        throw new Error('Something was turned on this bike while it went out; send the rider out again.')
      courses.value = { ...courses.value, [i]: ridden }
      keep([...acts.value, { rider: i, act: { do: 'ride', ringMm: ridden.ringMm } }])
      const next = longestHere()
      if (with_.value === i && next >= 0) speakTo(next)
    } finally {
      sending.value = false
    }
  }
  function turn(linked: boolean, text: string): void {
    const to = { ...chosen.pending.value }
    chosen.drop()
    add({ do: 'turn', to, linked, text, source: 'own-idea' })
  }
  /** Until the next one is back, who is spoken to then. */
  function wait(): void {
    const away = tent.value.riders.map((r) => r.backAtMin)
    const next = away.reduce<number>((n, m, i) => (m !== null && (n < 0 || m < away[n]!) ? i : n), -1)
    keep([...acts.value, { wait: true }])
    if (next >= 0) speakTo(next)
  }
  function again(): void {
    begun++
    keep([])
    courses.value = {}
    speakTo(0)
  }
  return {
    ...chosen,
    riders,
    tent,
    acts,
    spokenTo: with_,
    at,
    bundle,
    courses,
    sending,
    add,
    speakTo,
    sendOut,
    turn,
    wait,
    again,
  }
}
