<script setup lang="ts">
import { computed, type Component } from 'vue'
import type { Adjuster } from '#contract/adjuster'
import { roleWords } from '#core/adjusters/words'
import IconX from '~icons/lucide/x'
import ClickFields from './adjuster/ClickFields.vue'
import CustomFields from './adjuster/CustomFields.vue'
import LeverFields from './adjuster/LeverFields.vue'
import PressureFields from './adjuster/PressureFields.vue'
import SpacerFields from './adjuster/SpacerFields.vue'
import SpringFields from './adjuster/SpringFields.vue'
import TurnFields from './adjuster/TurnFields.vue'

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
const tools = [
  { value: 'hand', text: 'by hand' },
  { value: 'hex-2', text: '2 mm hex key' },
  { value: 'hex-2.5', text: '2.5 mm hex key' },
  { value: 'hex-3', text: '3 mm hex key' },
  { value: 'hex-4', text: '4 mm hex key' },
  { value: 'shock-pump', text: 'shock pump' },
  { value: 'workshop', text: 'workshop' },
]
/** What is asked of a kind besides what every adjuster has. */
const fieldsOf: Record<Adjuster['kind'], Component> = {
  click: ClickFields,
  turn: TurnFields,
  pressure: PressureFields,
  spacer: SpacerFields,
  'spring-rate': SpringFields,
  lever: LeverFields,
  custom: CustomFields,
}

function set(change: Record<string, unknown>) {
  adjuster.value = { ...adjuster.value, ...change } as Adjuster
}
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
    <component :is="fieldsOf[adjuster.kind]" v-model="adjuster" />
    <label class="form-label"
      >Tool<BFormSelect
        :model-value="adjuster.tool"
        :options="tools"
        @update:model-value="(v) => set({ tool: v })"
    /></label>
    <label class="form-label"
      >Name printed on the dial, if different<BFormInput
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
