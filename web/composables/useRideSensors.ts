import { computed, ref, shallowRef, watch, type Ref } from 'vue'
import type { Recording } from '#contract/recording'
import type { PracticeDay } from '#core/practice/day'
import { keepDraft, readDraft } from '../support/drafts.ts'
import type { RiderKey } from '../workers/practice.worker.ts'
import { practiceThread } from '../workers/practiceThread.ts'

const wantedKey = 'practice-sensors'

/**
 * What the sensors kept of the rides of a day of practice. They are on the bike at every ride; their figures are worked out
 * when somebody wants to look, for the rides that were ridden before, too.
 *
 * @param day the day without what sensors kept of it
 */
export function useRideSensors(
  key: Readonly<Ref<RiderKey | null>>,
  day: Readonly<Ref<Pick<PracticeDay, 'runs'> | null>>,
) {
  const on = ref(readDraft<boolean>(wantedKey) === true)
  const made = shallowRef<Recording[]>([])
  const fault = ref('')
  /** Counts what was begun and given up: what comes back later belongs to nobody. */
  let round = 0
  let busy = false
  const missing = () =>
    day.value?.runs.find((r) => !made.value.some((x) => x.runId === `practice-run-${r.number}`))

  async function read(): Promise<void> {
    if (busy) return
    const mine = round
    busy = true
    fault.value = ''
    try {
      for (let run = missing(); on.value && key.value && run; run = missing()) {
        const recording = await practiceThread().record({ ...key.value }, { ...run.positions }, run.number)
        if (mine !== round) return
        made.value = [...made.value, recording]
      }
    } catch (e) {
      if (mine === round)
        fault.value = `The sensors of this ride could not be read (${e instanceof Error ? e.message : String(e)}). What the rider says stands.`
    } finally {
      if (mine === round) busy = false
    }
  }
  /** What was made is of another rider or day, or the thread it was made on has ended. */
  function giveUp(): void {
    round++
    busy = false
  }
  function forget(): void {
    giveUp()
    made.value = []
    fault.value = ''
  }
  function toggle(): void {
    on.value = !on.value
    keepDraft(wantedKey, on.value || null)
  }
  watch([key, () => day.value?.runs.length, on], () => void read(), { flush: 'post', immediate: true })
  return {
    on,
    toggle,
    fault,
    forget,
    giveUp,
    read,
    /** Those that are looked at. */
    recordings: computed(() => (on.value ? made.value : [])),
  }
}
