<script setup lang="ts">
import { computed, ref } from 'vue'
import { v7 as uuid } from 'uuid'
import { Bike } from '#contract/bike'
import type { End } from '#contract/common'
import type { SuspensionUnit } from '#contract/unit'
import { useForm } from '../../composables/useForm.ts'
import { useGarage } from '../../stores/garage.ts'
import NumberField from '../shell/NumberField.vue'
import UnitForm from './UnitForm.vue'

const props = defineProps<{ editing: Bike | null }>()
const open = defineModel<boolean>('open', { required: true })
const emit = defineEmits<{ saved: [bike: Bike] }>()
const garage = useGarage()
const { form, busy, submit, faultOf, otherFault } = useForm<Bike>({
  schema: Bike,
  key: () => `bike:${props.editing?.id ?? 'new'}`,
  fresh: () =>
    props.editing ?? {
      id: uuid(),
      version: 0,
      riderId: garage.riders[0]?.id ?? '',
      name: '',
      eBike: false,
      kind: 'trail',
      massKg: null,
      leverageCurve: null,
      tyres: {
        front: { name: '', widthMm: null, pressurePsi: null },
        rear: { name: '', widthMm: null, pressurePsi: null },
      },
      frontShareSeatedPct: null,
      frontShareReadyPct: null,
      frontUnitId: null,
      rearUnitId: null,
      rearWheelTravelMm: null,
      leverageStart: null,
      leverageEnd: null,
      currentSetupId: null,
      note: '',
    },
  open,
  onStale: garage.load,
  save: async (b) => emit('saved', await garage.saveBike(b)),
})
const riders = computed(() => garage.riders.map((r) => ({ value: r.id, text: r.name })))
const unitsAt = (end: End, none: string) => [
  { value: null, text: none },
  ...garage.units.filter((u) => u.end === end).map((u) => ({ value: u.id, text: u.name })),
]
const making = ref<End>('front')
const unitOpen = ref(false)
const editingUnit = ref<SuspensionUnit | null>(null)
function makeUnit(end: End) {
  making.value = end
  editingUnit.value = null
  unitOpen.value = true
}
function editUnit(end: End) {
  making.value = end
  editingUnit.value = garage.unit(end === 'front' ? form.value.frontUnitId : form.value.rearUnitId) ?? null
  unitOpen.value = true
}
function unitSaved(u: SuspensionUnit) {
  if (u.end === 'front') form.value.frontUnitId = u.id
  else form.value.rearUnitId = u.id
}
const shown = ['name', 'rearWheelTravelMm', 'leverageStart', 'leverageEnd']
</script>

<template>
  <BModal
    v-model="open"
    lazy
    unmount-lazy
    no-animation
    :title="editing ? 'Bike' : 'New bike'"
    size="lg"
    no-footer
  >
    <form class="field-grid" @submit.prevent="submit">
      <div>
        <label class="form-label" for="bike-name">Name</label>
        <BFormInput id="bike-name" v-model="form.name" placeholder="150 mm trail bike" autocomplete="off" />
        <p v-if="faultOf('name')" class="fault" role="alert">{{ faultOf('name') }}</p>
      </div>
      <div>
        <label class="form-label" for="bike-rider">Rider</label>
        <BFormSelect id="bike-rider" v-model="form.riderId" :options="riders" />
      </div>
      <label class="check"
        ><input v-model="form.eBike" type="checkbox" class="form-check-input" /> Electric</label
      >
      <div class="wide unit">
        <div>
          <label class="form-label" for="bike-front">Fork</label>
          <BFormSelect
            id="bike-front"
            v-model="form.frontUnitId"
            :options="unitsAt('front', 'rigid, or not yet made')"
          />
        </div>
        <BButton variant="plain" @click="makeUnit('front')">New fork</BButton>
        <BButton v-if="form.frontUnitId" variant="plain" @click="editUnit('front')">Edit</BButton>
      </div>
      <div class="wide unit">
        <div>
          <label class="form-label" for="bike-rear">Shock</label>
          <BFormSelect
            id="bike-rear"
            v-model="form.rearUnitId"
            :options="unitsAt('rear', 'none: hardtail')"
          />
        </div>
        <BButton variant="plain" @click="makeUnit('rear')">New shock</BButton>
        <BButton v-if="form.rearUnitId" variant="plain" @click="editUnit('rear')">Edit</BButton>
      </div>
      <template v-if="form.rearUnitId">
        <NumberField
          v-model="form.rearWheelTravelMm"
          label="Rear wheel travel"
          quantity="length"
          :fault="faultOf('rearWheelTravelMm')"
        />
        <NumberField
          v-model="form.leverageStart"
          label="Leverage, extended"
          hint="wheel mm per shaft mm; leave empty if not known"
          :fault="faultOf('leverageStart')"
        />
        <NumberField
          v-model="form.leverageEnd"
          label="Leverage, compressed"
          :fault="faultOf('leverageEnd')"
        />
      </template>
      <p v-if="otherFault(shown)" class="fault wide" role="alert">{{ otherFault(shown) }}</p>
      <div class="wide"><BButton type="submit" variant="primary" :disabled="busy">Save bike</BButton></div>
    </form>
    <UnitForm v-model:open="unitOpen" :end="making" :editing="editingUnit" @saved="unitSaved" />
  </BModal>
</template>

<style scoped>
.unit {
  display: flex;
  gap: 0.5rem;
  align-items: end;
}
.unit > div {
  flex: 1;
}
.check {
  display: flex;
  gap: 0.5rem;
  align-items: center;
}
.fault {
  color: var(--rust);
  font-weight: 600;
  margin: 0.2rem 0 0;
}
</style>
