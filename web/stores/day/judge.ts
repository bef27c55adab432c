import { wrap } from 'comlink'
import { computed, ref, shallowRef, watch, type Ref } from 'vue'
import type { DayBundle } from '#contract/endpoints'
import type { Proposal } from '#contract/proposal'
import type { Learnt } from '#core/adviser/memory/learnt'
import type { DayKnowledge } from '#core/adviser/summary'
import type { UnitChoice } from '#core/units/choice'
import { judgedOf } from '../../support/judged.ts'
import type { Judging } from '../../workers/judge.worker.ts'
// Named by its content: another judge has another address.
import judgeAt from '../../workers/judge.worker.ts?worker&url'
import { workedOut, workedOutBefore } from './workedOut.ts'

let started: ReturnType<typeof wrap<Judging>> | null = null
const worker = () => (started ??= wrap<Judging>(new Worker(judgeAt, { type: 'module' })))

/** Its thread is got ready while the day itself is on its way. */
export const readyToJudge = () => void (typeof Worker === 'undefined' || worker())

/** What was learnt of days, by the very list that was held of them. */
const lessons = new WeakMap<readonly DayBundle[], Promise<Learnt[]>>()
function learntFrom(earlier: readonly DayBundle[]): Promise<Learnt[]> | Learnt[] {
  if (earlier.length === 0) return []
  let learnt = lessons.get(earlier)
  if (!learnt) lessons.set(earlier, (learnt = worker().learn(earlier)))
  return learnt
}

/** What changes with the judge's code; while somebody works on it every page has its own. */
const code = import.meta.env.DEV ? `${judgeAt} ${performance.timeOrigin}` : judgeAt

/** All that the judgement of a day rests on, as one text. */
export const basisOf = (bundle: DayBundle, earlier: readonly DayBundle[], units: UnitChoice): string =>
  [bundle, ...earlier].map((b) => judgedOf(b, units)).join()

/** What is next on a day and what is known of it, from the records of that day and of those that it starts from. */
export function judgeOnce(bundle: DayBundle, earlier: readonly DayBundle[], units: UnitChoice) {
  return workedOut(bundle.day.id, basisOf(bundle, earlier, units), code, async () => {
    const learnt = await learntFrom(earlier)
    // A plain copy: a reactive proxy cannot cross to a worker.
    return worker().judge(bundle, learnt, { ...units })
  })
}

/** The same where it was worked out before and still holds; null else. @param earlier asked for only where something is kept */
export async function judgedBefore(
  bundle: DayBundle,
  earlier: () => Promise<readonly DayBundle[]>,
  units: UnitChoice,
): Promise<Awaited<ReturnType<typeof judgeOnce>> | null> {
  const kept = await workedOutBefore<Awaited<ReturnType<typeof judgeOnce>>>(bundle.day.id)
  return kept?.holds(basisOf(bundle, await earlier(), units), code) ? kept.result : null
}

/**
 * The next change and what is known of a day, worked out off the page's thread: once per change of what it rests on, the
 * latest wins, and a worker that fails is said.
 *
 * @param earlier days that it starts from; null while they are still on their way
 */
export function useDayJudge(
  bundle: Ref<DayBundle | null>,
  earlier: Ref<readonly DayBundle[] | null>,
  units: Ref<UnitChoice> | { value: UnitChoice },
) {
  const proposal = shallowRef<Proposal | null>(null)
  const knowledge = shallowRef<DayKnowledge | null>(null)
  const judging = ref(false)
  const fault = ref('')
  const key = computed(() =>
    bundle.value && earlier.value ? basisOf(bundle.value, earlier.value, units.value) : null,
  )
  let wanted = false
  readyToJudge()

  async function run(): Promise<void> {
    wanted = true
    // One at a time: whatever changed meanwhile is judged once, when this one is through.
    if (judging.value) return
    judging.value = true
    try {
      while (wanted && bundle.value && earlier.value) {
        wanted = false
        const of = key.value
        const result = await judgeOnce(bundle.value, earlier.value, units.value)
        if (key.value !== of) continue
        proposal.value = result.proposal
        knowledge.value = result.knowledge
        fault.value = ''
      }
    } catch (e) {
      fault.value = `The next step could not be worked out (${e instanceof Error ? e.message : String(e)}). What you logged is kept; reload the page.`
      proposal.value = null
    } finally {
      judging.value = false
    }
  }
  watch(key, (k) => k !== null && void run(), { immediate: true })
  const forget = () => {
    proposal.value = null
    knowledge.value = null
    fault.value = ''
  }
  return { proposal, knowledge, judging, fault, forget }
}
