<script setup lang="ts">
import { computed, useId } from 'vue'
import type { DateOrder } from '#core/formats/clock'
import type { FileLook, Looking } from '../../workers/file.worker.ts'
import NumberField from '../shell/NumberField.vue'

/** How a file is written: what was seen, and what a person says instead. */
const props = defineProps<{ look: FileLook | null; said: Looking; dateOrder?: DateOrder }>()
const emit = defineEmits<{ say: [Looking]; order: [DateOrder] }>()
const id = useId()

const layout = computed(() => props.look?.layout ?? null)
const separators = [
  { value: ',', text: 'comma' },
  { value: ';', text: 'semicolon' },
  { value: '\t', text: 'tab' },
  { value: '|', text: 'bar' },
  { value: ' ', text: 'spaces' },
]
const decimals = [
  { value: '.', text: 'point, 12.3' },
  { value: ',', text: 'comma, 12,3' },
]
const quotes = [
  { value: '"', text: 'double, "…"' },
  { value: "'", text: "single, '…'" },
  { value: 'none', text: 'none' },
]
const encodings = [
  { value: '', text: 'as seen' },
  ...['utf-8', 'windows-1252', 'windows-1250', 'windows-1251', 'shift_jis', 'gb18030', 'big5', 'euc-kr'].map(
    (e) => ({ value: e, text: e.toUpperCase() }),
  ),
]
const orders = [
  { value: 'dmy', text: 'day, month, year' },
  { value: 'mdy', text: 'month, day, year' },
]
const say = (change: Looking) => emit('say', { ...props.said, ...change })
const fields = computed(() => [
  {
    key: 'delimiter' as const,
    label: 'Separated by',
    options: separators,
    value: props.said.delimiter ?? layout.value?.delimiter ?? null,
  },
  {
    key: 'decimal' as const,
    label: 'Decimal mark',
    options: decimals,
    value: props.said.decimal ?? layout.value?.decimal ?? null,
  },
  {
    key: 'quote' as const,
    label: 'Quotes',
    options: quotes,
    value: props.said.quote ?? layout.value?.quote ?? null,
  },
  { key: 'namesIn' as const, label: 'Names in', options: encodings, value: props.said.namesIn ?? '' },
])
const summary = computed(() => {
  const l = layout.value
  if (!l) return 'How it is written could not be made out: say it here'
  const name = (list: typeof separators, value: string) => list.find((o) => o.value === value)?.text ?? value
  return `${props.look!.encoding}, ${name(separators, l.delimiter)}, decimal ${name(decimals, l.decimal)}, numbers from line ${l.firstRowLine} on`
})
</script>

<template>
  <details :open="!layout">
    <summary class="small">{{ summary }}</summary>
    <div class="field-grid dialect">
      <div v-for="f in fields" :key="f.key">
        <label class="form-label" :for="`${id}-${f.key}`">{{ f.label }}</label>
        <BFormSelect
          :id="`${id}-${f.key}`"
          :model-value="f.value"
          :options="f.options"
          size="sm"
          @update:model-value="(v) => say({ [f.key]: v || undefined })"
        />
      </div>
      <NumberField
        :model-value="said.firstRowLine ?? layout?.firstRowLine ?? null"
        label="Numbers begin in line"
        @update:model-value="(v) => say({ firstRowLine: v && v >= 1 ? Math.round(v) : undefined })"
      />
    </div>
  </details>
  <div v-if="layout?.dateOrder" class="order">
    <label class="form-label" :for="`${id}-order`">Dates are written</label>
    <BFormSelect
      :id="`${id}-order`"
      :model-value="dateOrder ?? (layout.dateOrder === 'unclear' ? null : layout.dateOrder)"
      :options="orders"
      size="sm"
      @update:model-value="(v) => emit('order', v as DateOrder)"
    />
  </div>
</template>

<style scoped>
summary {
  min-height: var(--touch);
  padding: 0.6rem 0;
  cursor: pointer;
}
.dialect {
  padding: 0.4rem 0 0.2rem;
}
.order {
  max-width: 16rem;
}
</style>
