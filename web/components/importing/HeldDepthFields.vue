<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import type { HeldDepth, PressureCalibration } from '#contract/recording'
import { fitHeldDepths, type ChamberFit } from '#core/telemetry/heldDepths'
import NumberField from '../shell/NumberField.vue'

/** Depths read off the ring with the pressure held there; ratio and baseline come of them, with their errors. */
const props = defineProps<{ strokeMm: number; depths: readonly HeldDepth[] }>()
const emit = defineEmits<{ fitted: [PressureCalibration | null]; leave: [] }>()

interface Row {
  mm: number | null
  psi: number | null
}
const most = 8
const rows = ref<Row[]>(
  props.depths.length
    ? props.depths.map((d) => ({ ...d }))
    : [{ mm: 0, psi: null }, ...Array.from({ length: 3 }, () => ({ mm: null, psi: null }))],
)
const read = computed(() => rows.value.filter((r): r is HeldDepth => r.mm !== null && r.psi !== null))
const outcome = computed<{ fit: ChamberFit } | { fault: string } | null>(() => {
  if (read.value.length < 3) return null
  try {
    return { fit: fitHeldDepths(read.value, props.strokeMm) }
  } catch (e) {
    return { fault: e instanceof Error ? e.message : String(e) }
  }
})
const fit = computed(() => (outcome.value && 'fit' in outcome.value ? outcome.value.fit : null))
const fault = computed(() => (outcome.value && 'fault' in outcome.value ? outcome.value.fault : null))
const words = computed(() =>
  fit.value
    ? `Compression ratio ${fit.value.compressionRatio.toFixed(2)} ± ${fit.value.compressionRatioSe.toFixed(2)}, baseline ${fit.value.baselinePsi.toFixed(1)} ± ${fit.value.baselineSePsi.toFixed(1)} psi.`
    : 'Three depths or more, held still for 20 s each, over at least a quarter of the stroke.',
)
watch(fit, (f) => {
  if (!f) {
    emit('fitted', null)
    return
  }
  const { compressionRatio, baselinePsi } = f
  emit('fitted', { compressionRatio, baselinePsi, heldDepths: read.value.map((d) => ({ ...d })) })
})
const add = () => rows.value.push({ mm: null, psi: null })
</script>

<template>
  <div>
    <div v-for="(r, i) in rows" :key="i" class="field-grid point">
      <NumberField
        v-model="r.mm"
        :label="`Depth ${i + 1}, along leg or shaft`"
        unit="mm"
        :hint="i === 0 ? '0 is fully extended' : undefined"
      />
      <NumberField v-model="r.psi" :label="`Pressure held there ${i + 1}`" unit="psi" />
    </div>
    <p class="num small" :class="{ fault }" role="status">{{ fault ?? words }}</p>
    <div class="acts">
      <BButton v-if="rows.length < most" variant="plain" @click="add">Add a depth</BButton>
      <BButton variant="plain" @click="emit('leave')">Type ratio and baseline instead</BButton>
    </div>
  </div>
</template>

<style scoped>
.point {
  margin-bottom: 0.4rem;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 0.6rem;
}
.fault {
  color: var(--rust);
  font-weight: 600;
}
</style>
