<script setup lang="ts">
import { computed } from 'vue'
import type { ChannelRole, ColumnMapping, ImportMapping } from '#contract/recording'
import type { FileLook } from '../../workers/file.worker.ts'
import NumberField from '../shell/NumberField.vue'
import CalibrationFields from './CalibrationFields.vue'

const props = defineProps<{ look: FileLook; strokes: Record<'front' | 'rear', number | null> }>()
const mapping = defineModel<ImportMapping>({ required: true })

const roles: { value: ChannelRole; text: string }[] = [
  { value: 'ignore', text: 'not used' },
  { value: 'time', text: 'time' },
  { value: 'front-travel', text: 'front travel' },
  { value: 'rear-travel', text: 'rear travel (shock)' },
  { value: 'rear-wheel-travel', text: 'rear wheel travel' },
  { value: 'front-pressure', text: 'front chamber pressure' },
  { value: 'rear-pressure', text: 'rear chamber pressure' },
  { value: 'bar-acceleration', text: 'acceleration at the bar' },
  { value: 'front-axle-acceleration', text: 'acceleration, front axle' },
  { value: 'rear-axle-acceleration', text: 'acceleration, rear axle' },
  { value: 'speed', text: 'bike speed' },
  { value: 'distance', text: 'distance' },
  { value: 'latitude', text: 'latitude' },
  { value: 'longitude', text: 'longitude' },
]
const travel = [
  { value: 'none', text: 'choose its unit' },
  { value: 'mm', text: 'mm' },
  { value: 'cm', text: 'cm' },
  { value: 'in', text: 'in' },
  { value: 'm', text: 'm' },
  { value: 'pct', text: '% of travel' },
  { value: 'fraction', text: '0 to 1 of travel' },
  { value: 'raw', text: 'raw readings' },
]
const pressure = ['psi', 'bar', 'kPa'].map((u) => ({ value: u, text: u }))
const acceleration = [
  { value: 'g', text: 'g' },
  { value: 'm/s2', text: 'm/s²' },
]
const degrees = [{ value: 'deg', text: '°' }]
const units: Record<ChannelRole, { value: string; text: string }[]> = {
  ignore: [],
  time: [
    { value: 'none', text: 'find out' },
    { value: 'min', text: 'min' },
    { value: 's', text: 's' },
    { value: 'ms', text: 'ms' },
    { value: 'us', text: 'µs' },
    { value: 'ns', text: 'ns' },
  ],
  'front-travel': travel,
  'rear-travel': travel,
  'rear-wheel-travel': travel,
  'front-pressure': pressure,
  'rear-pressure': pressure,
  'bar-acceleration': acceleration,
  'front-axle-acceleration': acceleration,
  'rear-axle-acceleration': acceleration,
  speed: [
    { value: 'm/s', text: 'm/s' },
    { value: 'km/h', text: 'km/h' },
  ],
  distance: [
    { value: 'm', text: 'm' },
    { value: 'km', text: 'km' },
  ],
  latitude: degrees,
  longitude: degrees,
}
const rows = computed(() =>
  mapping.value.columns.map((c, i) => ({
    column: c,
    index: i,
    name: props.look.layout.columns[c.column]?.name ?? `Column ${c.column + 1}`,
    first: props.look.rows.map((r) => r[c.column]).map(cell),
  })),
)
const hasTime = computed(() => mapping.value.columns.some((c) => c.role === 'time'))
function cell(v: number): string {
  return Number.isFinite(v) ? String(Math.round(v * 1000) / 1000) : '·'
}
function set(i: number, change: Partial<ColumnMapping>) {
  const columns = mapping.value.columns.map((c, k) => (k === i ? { ...c, ...change } : c))
  mapping.value = { ...mapping.value, columns }
}
type Calibration = ColumnMapping['calibration']
const strokeOf = (role: ChannelRole) => props.strokes[role.startsWith('front') ? 'front' : 'rear']
const isPressureRole = (role: unknown) => String(role).endsWith('pressure')
const setRole = (i: number, role: unknown) =>
  set(i, {
    role: role as ChannelRole,
    unit: (units[role as ChannelRole][0]?.value ?? 'none') as ColumnMapping['unit'],
    calibration: null,
  })
const setUnit = (i: number, unit: unknown) => {
  const kept = isPressureRole(mapping.value.columns[i].role) ? mapping.value.columns[i].calibration : null
  set(i, { unit: unit as ColumnMapping['unit'], calibration: kept })
}
/** Raw readings and pressures mean nothing without one: its fields stay open, empty until somebody fills them. */
const isCalibrated = (c: ColumnMapping) =>
  isPressureRole(c.role) || (c.role.endsWith('travel') && (c.unit === 'raw' || c.calibration !== null))
const setCalibration = (i: number, calibration: Calibration) => set(i, { calibration })
const setRate = (v: number | null) => (mapping.value = { ...mapping.value, sampleRateHz: v })
</script>

<template>
  <div class="scroll" tabindex="0" role="group" aria-label="Table, scrolls sideways">
    <table>
      <thead>
        <tr>
          <th scope="col">Column</th>
          <th scope="col">First rows</th>
          <th scope="col">Meaning</th>
          <th scope="col">Unit</th>
        </tr>
      </thead>
      <tbody>
        <template v-for="r in rows" :key="r.index">
          <tr :class="{ out: r.column.role === 'ignore' }">
            <th scope="row">{{ r.name }}</th>
            <td class="num soft small">{{ r.first.join('  ') }}</td>
            <td>
              <BFormSelect
                :model-value="r.column.role"
                :options="roles"
                size="sm"
                :aria-label="`What ${r.name} is`"
                @update:model-value="(v) => setRole(r.index, v)"
              />
            </td>
            <td>
              <BFormSelect
                v-if="units[r.column.role].length"
                :model-value="r.column.unit"
                :options="units[r.column.role]"
                size="sm"
                :aria-label="`Unit of ${r.name}`"
                @update:model-value="(v) => setUnit(r.index, v)"
              />
            </td>
          </tr>
          <tr v-if="isCalibrated(r.column)">
            <td colspan="4">
              <CalibrationFields
                :key="`${r.column.role} ${r.column.unit === 'raw'}`"
                :model-value="r.column.calibration"
                :pressure="isPressureRole(r.column.role)"
                :stroke-mm="strokeOf(r.column.role)"
                class="calibration"
                @update:model-value="(c) => setCalibration(r.index, c)"
              />
            </td>
          </tr>
        </template>
      </tbody>
    </table>
    <NumberField
      v-if="!hasTime"
      :model-value="mapping.sampleRateHz"
      label="Sample rate"
      unit="Hz"
      hint="there is no time column"
      class="rate"
      @update:model-value="setRate"
    />
  </div>
</template>

<style scoped>
.scroll {
  overflow-x: auto;
}
table {
  width: 100%;
  border-collapse: collapse;
}
th,
td {
  text-align: left;
  padding: 0.25rem 0.6rem 0.25rem 0;
  border-bottom: 1px solid var(--line);
  white-space: nowrap;
}
tbody th {
  font-weight: 600;
}
.out th {
  font-weight: 400;
  color: var(--ink-soft);
}
td :deep(select) {
  min-width: 120px;
}
.calibration {
  padding: 0.4rem 0;
  white-space: normal;
}
.rate {
  max-width: 220px;
  margin-top: 0.5rem;
}
</style>
