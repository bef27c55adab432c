<script setup lang="ts">
import { computed, ref } from 'vue'
import type { SuspensionUnit } from '#contract/unit'
import { unitSlipMm } from '#core/spring/reading'
import { strokePct } from '#core/spring/sag'
import NumberField from '../shell/NumberField.vue'

const props = defineProps<{ unit: SuspensionUnit; busy: boolean }>()
const emit = defineEmits<{ read: [sagPct: number] }>()

const mm = ref<number | null>(null)
const open = ref(false)
const fault = ref<string | null>(null)
/** The number that looked like a slip, and was told so once. */
const told = ref<number | null>(null)
const pct = computed(() =>
  mm.value !== null && mm.value >= 0 && mm.value <= props.unit.strokeMm
    ? strokePct(mm.value, props.unit.strokeMm)
    : null,
)
/** A ring is read to a millimetre. */
const give = computed(() => strokePct(1, props.unit.strokeMm).toFixed(1))
const posture = computed(() =>
  props.unit.end === 'front' ? 'standing ready on the pedals' : 'seated, feet on the pedals',
)

function save() {
  fault.value = null
  if (mm.value === null || Number.isNaN(mm.value)) return (fault.value = 'Enter how far the ring was pushed.')
  if (pct.value === null)
    return (fault.value = `Between 0 and ${props.unit.strokeMm} mm: that is all the stroke there is.`)
  const meant = unitSlipMm(mm.value, 'mm', props.unit.strokeMm, props.unit.sagTargetPct)
  if (meant !== null && told.value !== mm.value) {
    told.value = mm.value
    return (fault.value = `${mm.value} mm would be ${Math.round(pct.value)} %. If you meant ${mm.value} %, enter ${meant.toFixed(1)} mm; if it is right, save again.`)
  }
  if (!open.value)
    return (fault.value =
      'A reading with a lever or compression closed, or without kit, tells nothing of the spring: open both, then tick the line below.')
  emit('read', pct.value)
}
</script>

<template>
  <form class="sag" @submit.prevent="save">
    <p class="how">{{ `In kit, ${posture}; ring to the wiper, get on gently, get off, read.` }}</p>
    <div class="row">
      <NumberField v-model="mm" label="Wiper to ring" unit="mm" :fault="fault" />
      <p v-if="pct !== null" class="num pct" role="status">
        {{ `${Math.round(pct)} % of ${unit.strokeMm} mm, ±${give}; target ${unit.sagTargetPct} %` }}
      </p>
    </div>
    <label class="tick">
      <input v-model="open" type="checkbox" /> Lever and compression open, all kit on, no brake held
    </label>
    <button type="submit" class="btn btn-primary" :disabled="busy">Save the reading</button>
  </form>
</template>

<style scoped>
.sag {
  display: grid;
  gap: 0.5rem;
  justify-items: start;
  margin: 0.6rem 0;
}
.how {
  margin: 0;
}
.row {
  display: flex;
  flex-wrap: wrap;
  gap: 0.3rem 1rem;
  align-items: center;
}
.pct {
  margin: 0;
  font-weight: 600;
}
.tick {
  display: flex;
  gap: 0.6rem;
  align-items: center;
  min-height: 44px;
}
.tick input {
  width: 22px;
  height: 22px;
  flex: none;
}
</style>
