<script setup lang="ts">
import { computed } from 'vue'
import type { ColumnMapping } from '#contract/recording'
import { isManyPoint, isPressure, isTwoPoint } from '#core/telemetry/calibrate'
import NumberField from '../shell/NumberField.vue'

/** How readings of one channel turn into travel: two points, many points, or a chamber's pressure. */
type Calibration = NonNullable<ColumnMapping['calibration']>
const calibration = defineModel<Calibration>({ required: true })

const two = computed(() => (isTwoPoint(calibration.value) ? calibration.value : null))
const many = computed(() => (isManyPoint(calibration.value) ? calibration.value : null))
const pressure = computed(() => (isPressure(calibration.value) ? calibration.value : null))

const change = (key: string, v: number | null) => {
  if (v !== null) calibration.value = { ...calibration.value, [key]: v } as Calibration
}
const setPoint = (i: number, key: 'reading' | 'mm', v: number | null) => {
  if (!many.value || v === null) return
  calibration.value = { points: many.value.points.map((p, k) => (k === i ? { ...p, [key]: v } : p)) }
}
const toMany = () => {
  const c = two.value
  if (!c) return
  const middle = (c.extendedReading + c.compressedReading) / 2
  calibration.value = {
    points: [
      { reading: c.extendedReading, mm: 0 },
      { reading: middle, mm: c.compressedMm / 2 },
      { reading: c.compressedReading, mm: c.compressedMm },
    ],
  }
}
const addPoint = () => {
  if (!many.value) return
  const [a, b] = many.value.points.slice(-2)
  const next = { reading: 2 * b.reading - a.reading, mm: 2 * b.mm - a.mm }
  calibration.value = { points: [...many.value.points, next] }
}
const removePoint = (i: number) => {
  if (many.value) calibration.value = { points: many.value.points.filter((_, k) => k !== i) }
}
</script>

<template>
  <div v-if="two" class="field-grid">
    <NumberField
      :model-value="two.extendedReading"
      label="Reading, fully extended"
      @update:model-value="(v) => change('extendedReading', v)"
    />
    <NumberField
      :model-value="two.compressedReading"
      label="Reading, compressed"
      @update:model-value="(v) => change('compressedReading', v)"
    />
    <NumberField
      :model-value="two.compressedMm"
      label="Travel at that reading"
      unit="mm"
      @update:model-value="(v) => change('compressedMm', v)"
    />
    <BButton variant="plain" class="end" @click="toMany">Use more than two points</BButton>
  </div>
  <div v-else-if="many">
    <div v-for="(p, i) in many.points" :key="i" class="field-grid point">
      <NumberField
        :model-value="p.reading"
        :label="`Reading ${i + 1}`"
        @update:model-value="(v) => setPoint(i, 'reading', v)"
      />
      <NumberField
        :model-value="p.mm"
        :label="`Travel ${i + 1}`"
        unit="mm"
        @update:model-value="(v) => setPoint(i, 'mm', v)"
      />
      <BButton
        v-if="many.points.length > 2"
        variant="plain"
        class="end"
        :aria-label="`Remove point ${i + 1}`"
        @click="removePoint(i)"
        >Remove</BButton
      >
    </div>
    <BButton v-if="many.points.length < 20" variant="plain" @click="addPoint">Add a point</BButton>
  </div>
  <div v-else-if="pressure" class="field-grid">
    <NumberField
      :model-value="pressure.compressionRatio"
      label="Compression ratio"
      hint="absolute pressure compressed ÷ extended, air let out"
      @update:model-value="(v) => change('compressionRatio', v)"
    />
    <NumberField
      :model-value="pressure.baselinePsi"
      label="Baseline, fully extended"
      unit="psi"
      hint="filled and equalised, wheel off the ground"
      @update:model-value="(v) => change('baselinePsi', v)"
    />
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
