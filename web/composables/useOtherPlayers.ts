import { onMounted, onUnmounted, ref, shallowRef } from 'vue'
import type { PracticeAct } from '#core/practice/day'

/** Who else rides the same rider: the adviser, and one thing at a time with a notebook. */
export type OtherPlayer = 'adviser' | 'tester'
export type PlayedBy = Partial<Record<OtherPlayer, PracticeAct[]>>

const names: Record<OtherPlayer, string> = { adviser: 'The adviser', tester: 'The notebook' }

interface Playing {
  /** Runs that each rider is given; one of whom nobody rode is not played. */
  mostRuns: readonly number[]
  play: (rider: number, who: OtherPlayer, onRun: (run: number) => void) => Promise<PracticeAct[]>
  /** Ends what is being played. */
  stop: () => void
}

/** What others would have done with the same riders; played while one reads on, and cancelled when one goes. */
export function useOtherPlayers({ mostRuns, play, stop }: Playing) {
  const played = shallowRef<PlayedBy[]>(mostRuns.map(() => ({})))
  const progress = ref('')
  const failed = ref('')
  const stopped = ref(false)
  async function playAll(): Promise<void> {
    try {
      for (const [i, most] of mostRuns.entries())
        for (const who of ['tester', 'adviser'] as const) {
          if (most === 0) continue
          const whom = mostRuns.length > 1 ? ` with rider ${i + 1}` : ''
          progress.value = `${names[who]} is riding${whom} …`
          const acts = await play(
            i,
            who,
            (run) => (progress.value = `${names[who]} is on run ${run} of ${most}${whom}`),
          )
          if (stopped.value) return
          played.value = played.value.map((p, k) => (k === i ? { ...p, [who]: acts } : p))
        }
    } catch (e) {
      failed.value = `The others could not be played (${e instanceof Error ? e.message : String(e)}). Yours stands as it is.`
    } finally {
      progress.value = ''
    }
  }
  function cancel(): void {
    stopped.value = true
    progress.value = ''
    stop()
  }
  onMounted(playAll)
  onUnmounted(cancel)
  return { played, progress, failed, cancel }
}
