<script setup lang="ts">
import { computed } from 'vue'
import type { Adjuster } from '#contract/adjuster'
import { roleWords } from '#core/adjusters/words'
import { chosenNumber, fromChosen } from '#core/units/choice'
import { useUnits } from '../../composables/useUnits.ts'
import IconX from '~icons/lucide/x'
import NumberField from '../shell/NumberField.vue'

const { units } = useUnits()
const adjuster = defineModel<Adjuster>({ required: true })
const emit = defineEmits<{ remove: [] }>()

const damper = [
  'compression',
  'low-speed-compression',
  'high-speed-compression',
  'rebound',
  'low-speed-rebound',
  'high-speed-rebound',
] as const
const rolesOf = {
  click: damper,
  turn: [...damper, 'preload', 'start-of-stroke'],
  pressure: ['main-pressure', 'negative-pressure', 'reservoir-pressure'],
  spacer: ['spacers'],
  'spring-rate': ['spring-rate'],
  lever: ['lever'],
  custom: ['custom'],
} as const
const kindWords = {
  click: 'clicks',
  turn: 'turns',
  pressure: 'pressure',
  spacer: 'spacers',
  'spring-rate': 'springs',
  lever: 'lever',
  custom: 'own',
} as const
const roles = computed(() => rolesOf[adjuster.value.kind].map((value) => ({ value, text: roleWords[value] })))
const bases = [
  { value: 'closed-0', text: 'closed = 0' },
  { value: 'closed-1', text: 'closed = 1' },
  { value: 'open', text: 'from open' },
]
const tools = [
  { value: 'hand', text: 'by hand' },
  { value: 'hex-2', text: '2 mm hex key' },
  { value: 'hex-2.5', text: '2.5 mm hex key' },
  { value: 'hex-3', text: '3 mm hex key' },
  { value: 'hex-4', text: '4 mm hex key' },
  { value: 'shock-pump', text: 'shock pump' },
  { value: 'workshop', text: 'workshop' },
]
const steps = [
  { value: 1, text: 'whole clicks' },
  { value: 0.5, text: 'half clicks' },
]
const strokes = ['start', 'middle', 'end', 'whole']
const actsOn = ['spring', 'compression', 'rebound', 'geometry']
const speeds = ['low', 'high', 'both']

function set(change: Record<string, unknown>) {
  adjuster.value = { ...adjuster.value, ...change } as Adjuster
}
const number = (key: string) => (v: number | null) => set({ [key]: v ?? NaN })
const readList = (text: string) =>
  text
    .split(/[;/]|,(?=\s)|\s+/)
    .map((x) => Number(x.trim().replace(',', '.')))
    .filter((x) => Number.isFinite(x) && x > 0)
const rates = computed(() =>
  adjuster.value.kind === 'spring-rate'
    ? adjuster.value.ratesNPerMm.map((r) => chosenNumber('springRate', r, units.value, 1)).join(' ')
    : '',
)
const setRates = (text: unknown) =>
  set({ ratesNPerMm: readList(String(text)).map((r) => fromChosen('springRate', r, units.value)) })
const positions = computed(() => (adjuster.value.kind === 'lever' ? adjuster.value.positions.join(', ') : ''))
const setPositions = (text: unknown) =>
  set({
    positions: String(text)
      .split(',')
      .map((x) => x.trim())
      .filter(Boolean),
  })
const setActs = (key: string) => (v: unknown) =>
  adjuster.value.kind === 'custom' && set({ acts: { ...adjuster.value.acts, [key]: v } })
</script>

<template>
  <div class="row">
    <span class="kind">{{ kindWords[adjuster.kind] }}</span>
    <div v-if="roles.length > 1">
      <label class="form-label"
        >Acts on<BFormSelect
          :model-value="adjuster.role"
          :options="roles"
          @update:model-value="(v) => set({ role: v })"
      /></label>
    </div>
    <template v-if="adjuster.kind === 'click'">
      <NumberField
        :model-value="adjuster.clicks"
        label="Clicks, stop to stop"
        hint="count them; the brochure is often wrong"
        @update:model-value="(v) => number('clicks')(v)"
      />
      <label class="form-label"
        >Counted<BFormSelect
          :model-value="adjuster.countBase"
          :options="bases"
          @update:model-value="(v) => set({ countBase: v })"
      /></label>
      <label class="form-label"
        >Steps<BFormSelect
          :model-value="adjuster.step"
          :options="steps"
          @update:model-value="(v) => set({ step: v })"
      /></label>
    </template>
    <template v-else-if="adjuster.kind === 'turn'">
      <NumberField
        :model-value="adjuster.turns"
        label="Turns, stop to stop"
        @update:model-value="(v) => number('turns')(v)"
      />
      <NumberField
        :model-value="adjuster.stepTurns"
        label="Smallest step"
        unit="turns"
        @update:model-value="(v) => number('stepTurns')(v)"
      />
      <label class="form-label"
        >Counted<BFormSelect
          :model-value="adjuster.countBase"
          :options="bases"
          @update:model-value="(v) => set({ countBase: v })"
      /></label>
    </template>
    <template v-else-if="adjuster.kind === 'pressure'">
      <NumberField
        :model-value="adjuster.minPsi"
        label="Least"
        quantity="pressure"
        @update:model-value="(v) => number('minPsi')(v)"
      />
      <NumberField
        :model-value="adjuster.maxPsi"
        label="Most, as printed"
        quantity="pressure"
        hint="never above what the unit says"
        @update:model-value="(v) => number('maxPsi')(v)"
      />
    </template>
    <NumberField
      v-else-if="adjuster.kind === 'spacer'"
      :model-value="adjuster.maxCount"
      label="Most allowed"
      @update:model-value="(v) => number('maxCount')(v)"
    />
    <label v-else-if="adjuster.kind === 'spring-rate'" class="form-label"
      >{{ `Springs owned, ${units.springRate}`
      }}<BFormInput
        :model-value="rates"
        @change="(e: Event) => setRates((e.target as HTMLInputElement).value)"
    /></label>
    <label v-else-if="adjuster.kind === 'lever'" class="form-label"
      >Positions, most open first<BFormInput
        :model-value="positions"
        @change="(e: Event) => setPositions((e.target as HTMLInputElement).value)"
    /></label>
    <template v-else>
      <label class="form-label"
        >Name<BFormInput
          :model-value="adjuster.name"
          @update:model-value="(v) => set({ name: String(v ?? '') })"
      /></label>
      <NumberField :model-value="adjuster.min" label="From" @update:model-value="(v) => number('min')(v)" />
      <NumberField :model-value="adjuster.max" label="To" @update:model-value="(v) => number('max')(v)" />
      <NumberField :model-value="adjuster.step" label="Step" @update:model-value="(v) => number('step')(v)" />
      <label class="form-label"
        >Unit<BFormInput
          :model-value="adjuster.unitLabel"
          @update:model-value="(v) => set({ unitLabel: String(v ?? '') })"
      /></label>
      <label class="form-label"
        >Part of the stroke<BFormSelect
          :model-value="adjuster.acts.stroke"
          :options="strokes"
          @update:model-value="(v) => setActs('stroke')(v)"
      /></label>
      <label class="form-label"
        >On<BFormSelect
          :model-value="adjuster.acts.on"
          :options="actsOn"
          @update:model-value="(v) => setActs('on')(v)"
      /></label>
      <label class="form-label"
        >Shaft speed<BFormSelect
          :model-value="adjuster.acts.speed"
          :options="speeds"
          @update:model-value="(v) => setActs('speed')(v)"
      /></label>
    </template>
    <label class="form-label"
      >Tool<BFormSelect
        :model-value="adjuster.tool"
        :options="tools"
        @update:model-value="(v) => set({ tool: v })"
    /></label>
    <label class="form-label"
      >Printed on it<BFormInput
        :model-value="adjuster.alias ?? ''"
        placeholder="same word"
        @update:model-value="(v) => set({ alias: v ? String(v) : null })"
    /></label>
    <button type="button" class="btn btn-plain off" aria-label="Remove this adjuster" @click="emit('remove')">
      <IconX aria-hidden="true" />
    </button>
  </div>
</template>

<style scoped>
.row {
  position: relative;
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(160px, 1fr));
  gap: 0.4rem 0.7rem;
  padding: 0.6rem 3.4rem 0.7rem 0.8rem;
  border: 1px solid var(--line);
  border-left: 5px solid var(--ink-soft);
  border-radius: 10px;
  background: var(--paper);
}
.kind {
  grid-column: 1 / -1;
  font: 640 1rem var(--head-font);
}
/* Labels around selects stand as high as those of the number fields. */
.row :deep(.form-label) {
  display: grid;
  gap: 0.2rem;
  align-content: start;
  margin: 0 0 0.2rem;
}
.off {
  position: absolute;
  top: 0.5rem;
  right: 0.5rem;
}
</style>
