<script setup lang="ts">
import { computed } from 'vue'
import { v7 as uuid } from 'uuid'
import type { Bike } from '#contract/bike'
import { ServiceEntry, type ServiceKind } from '#contract/care'
import { useForm } from '../../composables/useForm.ts'
import { useGarage } from '../../stores/garage.ts'
import { serviceWords } from '../../support/benchWords.ts'
import { localToday } from '../../support/dates.ts'
import { dayFaultAt } from '../../support/dayFault.ts'
import { optionsOf } from '../../support/words.ts'
import NumberField from '../shell/NumberField.vue'
import RecordForm from './RecordForm.vue'

const props = defineProps<{ bike: Bike; editing: ServiceEntry | null; kind?: ServiceKind }>()
const open = defineModel<boolean>('open', { required: true })
const garage = useGarage()
const { form, busy, submit, faultOf, otherFault } = useForm<ServiceEntry>({
  schema: ServiceEntry,
  key: () => `service:${props.editing?.id ?? `${props.bike.id}:${props.kind ?? ''}`}`,
  fresh: () =>
    props.editing ?? {
      id: uuid(),
      version: 0,
      bikeId: props.bike.id,
      unitId: null,
      kind: props.kind ?? 'pressure-check',
      date: localToday(),
      airTempC: null,
      altitudeM: null,
      place: '',
      note: '',
    },
  open,
  onStale: garage.load,
  save: async (entry, opened) => {
    await garage.saveService(entry, opened)
    const unit = garage.unit(entry.unitId)
    // A re-valved unit no longer means its maker's chart.
    if (entry.kind === 're-valved' && unit && (!unit.revalved || (unit.revalvedOn ?? '') < entry.date))
      await garage.saveUnit({ ...unit, revalved: true, revalvedOn: entry.date })
  },
  check: (entry) => dayFaultAt('date', entry.date),
})
const units = computed(() => [
  { value: null, text: 'the whole bike' },
  ...garage.unitsOf(props.bike).map((u) => ({ value: u.id, text: u.name })),
])
const shown = ['date', 'airTempC', 'altitudeM']
</script>

<template>
  <RecordForm
    v-model:open="open"
    :title="`${bike.name}: service log`"
    save-label="Save"
    :busy="busy"
    :fault="otherFault(shown)"
    @submit="submit"
  >
    <div>
      <label class="form-label" for="service-kind">What was done</label>
      <BFormSelect id="service-kind" v-model="form.kind" :options="optionsOf(serviceWords)" />
    </div>
    <div>
      <label class="form-label" for="service-unit">On</label>
      <BFormSelect id="service-unit" v-model="form.unitId" :options="units" />
    </div>
    <div>
      <label class="form-label" for="service-date">Day</label>
      <BFormInput id="service-date" v-model="form.date" type="date" />
      <p v-if="faultOf('date')" class="fault" role="alert">
        {{ form.date ? faultOf('date') : 'Give the day.' }}
      </p>
    </div>
    <template v-if="form.kind === 'pressure-check'">
      <NumberField v-model="form.airTempC" label="Air" quantity="temperature" :fault="faultOf('airTempC')" />
      <NumberField
        v-model="form.altitudeM"
        label="Altitude"
        quantity="altitude"
        :fault="faultOf('altitudeM')"
      />
      <div>
        <label class="form-label" for="service-place">Place</label>
        <BFormInput id="service-place" v-model="form.place" autocomplete="off" />
      </div>
    </template>
    <div class="wide">
      <label class="form-label" for="service-note">Note</label>
      <BFormTextarea id="service-note" v-model="form.note" rows="2" />
    </div>
  </RecordForm>
</template>
