<script setup lang="ts">
import { computed, ref } from 'vue'
import { v7 as uuid } from 'uuid'
import type { Adjuster } from '#contract/adjuster'
import { Chart, type ChartInput } from '#contract/chart'
import type { SuspensionUnit } from '#contract/unit'
import { fromCount } from '#core/adjusters/count'
import { adjusterName, positionWords } from '#core/adjusters/words'
import { InputError } from '#core/errors'
import { parseChartTable } from '#core/formats/chartTable'
import { useUnits } from '../../composables/useUnits.ts'

/** Makers' charts of a unit: typed or pasted as rows, shown as a table, one per adjuster and source. */
const props = defineProps<{ unit: SuspensionUnit }>()
const charts = defineModel<Chart[]>({ required: true })
const { units, say } = useUnits()
const text = ref('')
const source = ref('')
const input = ref<ChartInput>('riding-mass-kg')
const adjusterId = ref<string | null>(null)
const fault = ref<string | null>(null)

const fits = (a: Adjuster) =>
  a.kind === 'click' || a.kind === 'turn' || a.kind === 'pressure' || a.kind === 'spring-rate'
const adjusters = computed(() =>
  props.unit.adjusters.filter(fits).map((a) => ({ value: a.id, text: adjusterName(a) })),
)
const chosen = computed(() =>
  props.unit.adjusters.find((a) => a.id === (adjusterId.value ?? adjusters.value[0]?.value)),
)
const inputs = [
  { value: 'riding-mass-kg', text: 'by riding weight' },
  { value: 'pressure-psi', text: 'by pressure' },
]
const placeholder = computed(() =>
  input.value === 'riding-mass-kg'
    ? '55-59 kg 62 psi\n60-64 kg 67 psi\n65-69 kg 72 psi'
    : '60 psi 9\n70 psi 8\n80 psi 7',
)

function add() {
  const a = chosen.value
  if (!a) return (fault.value = 'Add the dial or the pressure first.')
  try {
    const output = a.kind === 'pressure' ? 'pressure' : a.kind === 'spring-rate' ? 'spring-rate' : 'clicks'
    const rows = parseChartTable(text.value, input.value, output, {
      at: input.value === 'riding-mass-kg' ? units.value.mass : units.value.pressure,
      value:
        a.kind === 'pressure'
          ? units.value.pressure
          : a.kind === 'spring-rate'
            ? units.value.springRate
            : 'clicks',
    })
    const chart = Chart.safeParse({
      id: uuid(),
      adjusterId: a.id,
      input: input.value,
      source: source.value,
      // A chart counts clicks as the dial does.
      rows: rows.map((r) => ({ at: r.at, value: fromCount(a, r.value) })),
    })
    if (!chart.success) return (fault.value = chart.error.issues[0].message)
    charts.value = [...charts.value, chart.data]
    text.value = ''
    fault.value = null
  } catch (e) {
    if (!(e instanceof InputError)) throw e
    fault.value = e.message
  }
}
const nameOf = (id: string) => {
  const a = props.unit.adjusters.find((x) => x.id === id)
  return a ? adjusterName(a) : '?'
}
const settingOf = (c: Chart, v: number) => {
  const a = props.unit.adjusters.find((x) => x.id === c.adjusterId)
  return a ? positionWords(a, v, units.value) : String(v)
}
const atOf = (c: Chart, v: number) => (c.input === 'riding-mass-kg' ? say('mass', v) : say('pressure', v))
</script>

<template>
  <div class="charts">
    <details v-for="(c, i) in charts" :key="c.id">
      <summary>
        {{
          `${nameOf(c.adjusterId)} ${c.input === 'riding-mass-kg' ? 'by weight' : 'by pressure'}: ${c.source}`
        }}
      </summary>
      <ul class="num">
        <li v-for="r in c.rows" :key="r.at">{{ `${atOf(c, r.at)}: ${settingOf(c, r.value)}` }}</li>
      </ul>
      <button type="button" class="btn btn-sm btn-plain" @click="charts = charts.filter((_, j) => j !== i)">
        Remove this chart
      </button>
    </details>
    <div class="field-grid">
      <label class="form-label"
        >Setting<BFormSelect
          :model-value="chosen?.id ?? null"
          :options="adjusters"
          @update:model-value="(v) => (adjusterId = v as string)"
      /></label>
      <label class="form-label">Read<BFormSelect v-model="input" :options="inputs" /></label>
      <label class="form-label"
        >From<BFormInput v-model="source" placeholder="manual, page 12" autocomplete="off"
      /></label>
      <label class="form-label wide"
        >Rows, typed or pasted<BFormTextarea v-model="text" rows="4" :placeholder="placeholder"
      /></label>
      <p v-if="fault" class="fault wide" role="alert">{{ fault }}</p>
      <div class="wide"><BButton variant="plain" @click="add">Add this chart</BButton></div>
    </div>
  </div>
</template>

<style scoped>
.charts {
  display: grid;
  gap: 0.5rem;
}
.form-label {
  display: grid;
  gap: 0.2rem;
}
ul {
  columns: 10rem;
  padding: 0;
  list-style: none;
}
</style>
