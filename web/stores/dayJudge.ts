import { wrap } from 'comlink'
import { computed, ref, shallowRef, watch, type Ref } from 'vue'
import type { DayBundle } from '#contract/endpoints'
import type { Proposal } from '#contract/proposal'
import type { DayKnowledge } from '#core/adviser/summary'
import type { UnitChoice } from '#core/units/choice'
import { judgedOf } from '../support/judged.ts'
import type { JudgeDay } from '../workers/judge.worker.ts'

let judge: ReturnType<typeof wrap<JudgeDay>> | null = null
const judgeDay = (bundle: DayBundle, units: UnitChoice) => {
  judge ??= wrap<JudgeDay>(
    new Worker(new URL('../workers/judge.worker.ts', import.meta.url), { type: 'module' }),
  )
  // A plain copy: a reactive proxy cannot cross to a worker.
  return judge(bundle, { ...units })
}

/**
 * The next change and what is known of a day, worked out off the page's thread: once per change of what it rests on, the
 * latest wins, and a worker that fails is said.
 */
export function useDayJudge(bundle: Ref<DayBundle | null>, units: Ref<UnitChoice> | { value: UnitChoice }) {
  const proposal = shallowRef<Proposal | null>(null)
  const knowledge = shallowRef<DayKnowledge | null>(null)
  const judging = ref(false)
  const fault = ref('')
  const key = computed(() => (bundle.value ? judgedOf(bundle.value, units.value) : null))
  let wanted = false

  async function run(): Promise<void> {
    wanted = true
    // One at a time: whatever changed meanwhile is judged once, when this one is through.
    if (judging.value) return
    judging.value = true
    try {
      while (wanted && bundle.value) {
        wanted = false
        const of = key.value
        const result = await judgeDay(bundle.value, units.value)
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
