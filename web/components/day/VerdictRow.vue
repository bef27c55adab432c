<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import type { Verdict } from '#contract/run'
import { vRoving } from '../../support/roving.ts'

const props = defineProps<{
  /** Of the run that is judged: what is between it and the others is on its own row. */
  number: number
  verdicts: Verdict[]
  others: { id: string; number: number }[]
}>()
const emit = defineEmits<{ judge: [verdicts: Verdict[]] }>()

const isThere = (id: string) => props.others.some((o) => o.id === id)
/** What was judged already, else the run before this one, as a rider compares. */
function usual(): string {
  const judged = props.verdicts.find((v) => isThere(v.againstRunId))?.againstRunId
  const before = props.others.findLast((o) => o.number < props.number)
  return judged ?? (before ?? props.others.at(0))?.id ?? ''
}
const against = ref(usual())
// A run that is logged elsewhere meanwhile is not what the next tap is held against.
watch(
  () => props.others.map((o) => o.id).join(),
  () => isThere(against.value) || (against.value = usual()),
)
const options = computed(() => props.others.map((o) => ({ value: o.id, text: `run ${o.number}` })))
const steps = [
  { value: -2, text: 'much worse' },
  { value: -1, text: 'worse' },
  { value: 0, text: 'the same' },
  { value: 1, text: 'better' },
  { value: 2, text: 'much better' },
] as const
const said = computed(() => props.verdicts.find((v) => v.againstRunId === against.value)?.value)
function judge(value: Verdict['value']) {
  const rest = props.verdicts.filter((v) => v.againstRunId !== against.value)
  emit('judge', said.value === value ? rest : [...rest, { againstRunId: against.value, value }])
}
</script>

<template>
  <div v-if="others.length" class="verdict">
    <label class="lead"
      >Against <BFormSelect v-model="against" :options="options" size="sm" aria-label="Compared with"
    /></label>
    <div v-roving class="steps" role="group" aria-label="Worse or better">
      <button
        v-for="s in steps"
        :key="s.value"
        type="button"
        :aria-pressed="said === s.value"
        @click="judge(s.value)"
      >
        {{ s.text }}
      </button>
    </div>
  </div>
</template>

<style scoped>
.verdict {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 0.4rem 0.8rem;
}
.lead {
  display: flex;
  align-items: center;
  gap: 0.4rem;
  font-weight: 600;
}
.steps {
  display: flex;
  flex: 1;
  gap: 8px;
}
.steps button {
  flex: 1;
  min-height: var(--touch);
  border: 1px solid var(--line);
  border-radius: 9px;
  background: var(--card);
  color: var(--ink);
  font-size: 0.9rem;
  padding: 0 0.35rem;
  white-space: nowrap;
}
.steps button[aria-pressed='true'] {
  background: #23483c;
  color: #fdfaf2;
}
@media (max-width: 480px) {
  .steps {
    flex-basis: 100%;
  }
  .steps button {
    font-size: 0.8rem;
    white-space: normal;
    line-height: 1;
  }
}
</style>
