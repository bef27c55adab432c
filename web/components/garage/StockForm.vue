<script setup lang="ts">
import { computed, ref } from 'vue'
import { v7 as uuid } from 'uuid'
import { StockItem } from '#contract/care'
import { useForm } from '../../composables/useForm.ts'
import { useGarage } from '../../stores/garage.ts'
import NumberField from '../shell/NumberField.vue'
import TypedPicker from '../shell/TypedPicker.vue'
import PiecesOut from './PiecesOut.vue'
import RecordForm from './RecordForm.vue'

const props = defineProps<{ editing: StockItem | null; kind: StockItem['kind'] }>()
const open = defineModel<boolean>('open', { required: true })
const garage = useGarage()
const make = (): StockItem => {
  const base = { id: uuid(), version: 0, name: '', count: 1, ownerId: null, out: [], note: '' }
  return props.kind === 'spring'
    ? { ...base, kind: 'spring', rateNPerMm: 80, strokeMm: null, ratePoints: null }
    : { ...base, kind: 'spacer', unitId: null }
}
const { form, busy, submit, faultOf, otherFault } = useForm<StockItem>({
  schema: StockItem,
  key: () => `stock:${props.editing?.id ?? props.kind}`,
  fresh: () => props.editing ?? make(),
  open,
  onStale: garage.load,
  save: garage.saveStockItem,
})
const spring = computed(() => (form.value.kind === 'spring' ? form.value : null))
const spacer = computed(() => (form.value.kind === 'spacer' ? form.value : null))
const units = computed<{ value: string | null; text: string }[]>(() => [
  { value: null, text: 'any' },
  ...garage.units.filter((u) => u.spring === 'air').map((u) => ({ value: u.id, text: u.name })),
])
const owners = computed<{ value: string | null; text: string }[]>(() => [
  { value: null, text: 'nobody’s in particular' },
  ...garage.riders.map((r) => ({ value: r.id, text: r.name })),
])
const tableFault = ref<string | null>(null)
const table = computed(() => spring.value?.ratePoints?.map((p) => `${p.atMm} ${p.nPerMm}`).join('\n') ?? '')
/** Rows "mm, N/mm"; nothing = a linear spring. */
function readTable(text: string) {
  if (!spring.value) return
  const rows = text
    .split('\n')
    .map((l) => l.trim())
    .filter(Boolean)
    .map((l) =>
      l
        .replace(/(\d),(\d)/g, '$1.$2')
        .split(/[\s;]+/)
        .map(Number),
    )
  const bad = rows.findIndex((r) => r.length !== 2 || r.some((x) => !Number.isFinite(x)))
  tableFault.value = bad < 0 ? null : `Row ${bad + 1} needs two numbers: mm of compression, then N/mm.`
  if (bad < 0) spring.value.ratePoints = rows.length ? rows.map(([atMm, nPerMm]) => ({ atMm, nPerMm })) : null
}
const shown = ['name', 'count', 'rateNPerMm', 'strokeMm']
</script>

<template>
  <RecordForm
    v-model:open="open"
    :title="form.kind === 'spring' ? 'Spring on the shelf' : 'Spacers on the shelf'"
    save-label="Save it"
    :busy="busy"
    :fault="tableFault ?? otherFault(shown)"
    @submit="tableFault === null && submit()"
  >
    <div class="wide">
      <label class="form-label" for="stock-name">Name</label>
      <BFormInput id="stock-name" v-model="form.name" autocomplete="off" />
      <p v-if="faultOf('name')" class="fault" role="alert">{{ faultOf('name') }}</p>
    </div>
    <NumberField
      :model-value="form.count"
      label="How many"
      :fault="faultOf('count')"
      @update:model-value="(v) => (form.count = v ?? NaN)"
    />
    <template v-if="spring">
      <NumberField
        :model-value="spring.rateNPerMm"
        label="Rate"
        quantity="springRate"
        :fault="faultOf('rateNPerMm')"
        @update:model-value="(v) => spring && (spring.rateNPerMm = v ?? NaN)"
      />
      <NumberField
        v-model="spring.strokeMm"
        label="For strokes up to"
        quantity="length"
        :fault="faultOf('strokeMm')"
      />
      <div class="wide">
        <label class="form-label" for="stock-table"
          >Progressive: mm and N/mm, a row each; empty for a linear spring</label
        >
        <BFormTextarea
          id="stock-table"
          :model-value="table"
          rows="3"
          @change="(e: Event) => readTable((e.target as HTMLTextAreaElement).value)"
        />
      </div>
    </template>
    <TypedPicker v-if="spacer" v-model="spacer.unitId" class="wide" label="Fits" :options="units" />
    <TypedPicker v-model="form.ownerId" class="wide" label="Whose" :options="owners" />
    <PiecesOut v-model="form.out" />
  </RecordForm>
</template>
