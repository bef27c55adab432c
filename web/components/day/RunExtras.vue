<script setup lang="ts">
import { useMediaQuery } from '@vueuse/core'
import { ref, watch } from 'vue'
import type { Run } from '#contract/run'
import { mindWords } from '../../support/words.ts'
import { vRoving } from '../../support/roving.ts'
import { useUnits } from '../../composables/useUnits.ts'
import NumberField from '../shell/NumberField.vue'

/** What was not usual about a run, added to it where it stands; what nobody taps is as it was logged. */
const props = defineProps<{
  run: Run
  hasRear: boolean
  frontStrokeMm: number | null
  rearStrokeMm: number | null
}>()
const emit = defineEmits<{ change: [change: Partial<Run>]; details: [] }>()

const open = ref<'ring' | 'time' | 'why' | null>(null)
watch(
  () => props.run.id,
  () => {
    open.value = null
    all.value = false
  },
)
const fault = ref('')
/** A phone shows the likeliest, in one row. */
const narrow = useMediaQuery('(max-width: 480px)')
const all = ref(false)
const { say } = useUnits()
const reasons = ['crash', 'stopped', 'puncture', 'held up', 'wrong line']
const toggleKind = (kind: Run['kind']) =>
  emit('change', { kind: props.run.kind === kind ? 'counted' : kind, voidReason: null })
function voided(voidReason: string) {
  open.value = null
  emit('change', { kind: 'void', voidReason })
}
const toggleMind = (mind: Run['mind']) => emit('change', { mind: props.run.mind === mind ? 'normal' : mind })
function ring(end: 'front' | 'rear', mm: number | null) {
  const stroke = end === 'front' ? props.frontStrokeMm : props.rearStrokeMm
  fault.value =
    mm === null || (mm >= 0 && (stroke === null || mm <= stroke))
      ? ''
      : `The ${end} ring lies between 0 and ${say('length', stroke!)}; measure from wiper to ring.`
  if (!fault.value && !Number.isNaN(mm))
    emit('change', end === 'front' ? { ringFrontMm: mm } : { ringRearMm: mm })
}
function time(durationS: number | null) {
  fault.value = durationS === null || durationS > 0 ? '' : 'A lap takes some seconds.'
  if (!fault.value && !Number.isNaN(durationS)) emit('change', { durationS })
}
const toggle = (what: 'ring' | 'time' | 'why') => (open.value = open.value === what ? null : what)
</script>

<template>
  <div class="extras">
    <div v-roving class="chips" role="group" aria-label="What was not usual about this run">
      <button
        type="button"
        :aria-pressed="run.kind === 'void'"
        :aria-expanded="open === 'why'"
        @click="run.kind === 'void' ? toggleKind('void') : toggle('why')"
      >
        {{ run.kind === 'void' ? `doesn’t count: ${run.voidReason}` : 'crashed …' }}
      </button>
      <button type="button" :aria-pressed="run.mind === 'nervous'" @click="toggleMind('nervous')">
        {{ mindWords.nervous }}
      </button>
      <button type="button" :aria-expanded="open === 'ring'" @click="toggle('ring')">ring …</button>
      <template v-if="all || !narrow">
        <button type="button" :aria-expanded="open === 'time'" @click="toggle('time')">lap time …</button>
        <button type="button" :aria-pressed="run.mind === 'tired'" @click="toggleMind('tired')">
          {{ mindWords.tired }}
        </button>
        <button type="button" :aria-pressed="run.kind === 'warm-up'" @click="toggleKind('warm-up')">
          warm-up
        </button>
        <button type="button" @click="emit('details')">Run details</button>
      </template>
      <button v-else type="button" @click="all = true">more …</button>
    </div>
    <div v-if="open === 'why'" v-roving class="chips" role="group" aria-label="Why it doesn’t count">
      <button v-for="r in reasons" :key="r" type="button" @click="voided(r)">{{ r }}</button>
    </div>
    <div v-else-if="open === 'ring'" class="fields">
      <NumberField
        :model-value="run.ringFrontMm"
        label="Front ring, deepest"
        quantity="length"
        @update:model-value="(v) => ring('front', v)"
      />
      <NumberField
        v-if="hasRear"
        :model-value="run.ringRearMm"
        label="Rear ring, deepest"
        quantity="length"
        @update:model-value="(v) => ring('rear', v)"
      />
    </div>
    <div v-else-if="open === 'time'" class="fields">
      <NumberField :model-value="run.durationS" label="Lap time" unit="s" @update:model-value="time" />
    </div>
    <p v-if="fault" class="fault" role="alert">{{ fault }}</p>
  </div>
</template>

<style scoped>
.extras {
  display: grid;
  gap: 8px;
}
.chips {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
.chips button {
  min-height: var(--touch);
  min-width: var(--touch);
  padding: 0 0.7rem;
  border: 1px solid var(--line);
  border-radius: 10px;
  background: none;
  color: var(--ink);
  font-size: 0.92rem;
}
.chips button[aria-pressed='true'] {
  background: var(--pine);
  border-color: var(--pine);
  color: var(--pine-ink);
}
.fields {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(150px, 1fr));
  gap: 8px;
}
</style>
