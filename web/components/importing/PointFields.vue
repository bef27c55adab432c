<script setup lang="ts">
import { ref } from 'vue'
import type { ManyPoint, TwoPoint } from '#contract/recording'
import { isTwoPoint } from '#core/telemetry/calibrate'
import NumberField from '../shell/NumberField.vue'

/** Raw readings at known travel: full extension, full compression, and what lies between. */
const props = defineProps<{ calibration: TwoPoint | ManyPoint | null; strokeMm: number | null }>()
const emit = defineEmits<{ set: [TwoPoint | ManyPoint | null] }>()

interface Row {
  reading: number | null
  mm: number | null
}
function rowsOf(c: TwoPoint | ManyPoint | null): Row[] {
  if (!c)
    return [
      { reading: null, mm: 0 },
      { reading: null, mm: props.strokeMm },
    ]
  return isTwoPoint(c)
    ? [
        { reading: c.extendedReading, mm: 0 },
        { reading: c.compressedReading, mm: c.compressedMm },
      ]
    : c.points.map((p) => ({ ...p }))
}
const most = 20
const rows = ref<Row[]>(rowsOf(props.calibration))
const labelOf = (i: number) =>
  rows.value.length > 2
    ? `Reading ${i + 1}`
    : i === 0
      ? 'Reading, fully extended'
      : 'Reading, fully compressed'
function tell() {
  const points = rows.value.flatMap(({ reading, mm }) =>
    reading === null || mm === null ? [] : [{ reading, mm }],
  )
  if (points.length < rows.value.length) return emit('set', null)
  points.sort((a, b) => a.mm - b.mm)
  const [first, last] = [points[0], points[points.length - 1]]
  emit(
    'set',
    points.length === 2 && first.mm === 0
      ? { extendedReading: first.reading, compressedReading: last.reading, compressedMm: last.mm }
      : { points },
  )
}
function add() {
  rows.value.splice(-1, 0, { reading: null, mm: null })
  tell()
}
function remove(i: number) {
  rows.value.splice(i, 1)
  tell()
}
</script>

<template>
  <div>
    <div v-for="(r, i) in rows" :key="i" class="field-grid point">
      <NumberField v-model="r.reading" :label="labelOf(i)" @update:model-value="tell" />
      <NumberField
        v-model="r.mm"
        :label="`Travel there${rows.length > 2 ? ` ${i + 1}` : ''}`"
        unit="mm"
        hint="along leg or shaft"
        @update:model-value="tell"
      />
      <BButton
        v-if="rows.length > 2"
        variant="plain"
        class="end"
        :aria-label="`Remove point ${i + 1}`"
        @click="remove(i)"
        >Remove</BButton
      >
    </div>
    <BButton v-if="rows.length < most" variant="plain" @click="add">Add a point between</BButton>
  </div>
</template>

<style scoped>
.end {
  align-self: end;
}
.point {
  margin-bottom: 0.4rem;
}
</style>
