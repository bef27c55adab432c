<script setup lang="ts">
import { v7 as uuid } from 'uuid'
import { Gauge } from '#contract/care'
import { useForm } from '../../composables/useForm.ts'
import { useGarage } from '../../stores/garage.ts'
import NumberField from '../shell/NumberField.vue'
import RecordForm from './RecordForm.vue'

const props = defineProps<{ editing: Gauge | null }>()
const open = defineModel<boolean>('open', { required: true })
const garage = useGarage()
const { form, busy, submit, faultOf, otherFault } = useForm<Gauge>({
  schema: Gauge,
  key: () => `gauge:${props.editing?.id ?? 'new'}`,
  fresh: () => props.editing ?? { id: uuid(), version: 0, name: '', readsHighPsi: 0, hoseCc: 4, note: '' },
  open,
  onStale: garage.load,
  save: garage.saveGauge,
})
const shown = ['name', 'readsHighPsi', 'hoseCc']
</script>

<template>
  <RecordForm
    v-model:open="open"
    :title="editing ? 'Gauge' : 'New gauge'"
    save-label="Save gauge"
    :busy="busy"
    :fault="otherFault(shown)"
    @submit="submit"
  >
    <div class="wide">
      <label class="form-label" for="gauge-name">Name</label>
      <BFormInput id="gauge-name" v-model="form.name" placeholder="black pump" autocomplete="off" />
      <p v-if="faultOf('name')" class="fault" role="alert">{{ faultOf('name') }}</p>
    </div>
    <NumberField
      :model-value="form.readsHighPsi"
      label="Shows too much by"
      quantity="pressure"
      hint="against a gauge you trust; below 0 = shows too little"
      :fault="faultOf('readsHighPsi')"
      @update:model-value="(v) => (form.readsHighPsi = v ?? 0)"
    />
    <NumberField
      :model-value="form.hoseCc"
      label="Air in the hose"
      unit="cm³"
      hint="about 4 for a usual shock pump"
      :fault="faultOf('hoseCc')"
      @update:model-value="(v) => (form.hoseCc = v ?? NaN)"
    />
  </RecordForm>
</template>
