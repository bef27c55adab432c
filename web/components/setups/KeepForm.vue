<script setup lang="ts">
import { computed } from 'vue'
import { KeptSetup } from '#contract/kept'
import { airOf } from '#core/lineage/elsewhere'
import type { KnownPlace } from '#core/lineage/facts'
import { useForm } from '../../composables/useForm.ts'
import { useWho } from '../../composables/useWho.ts'
import { useNotices } from '../../stores/notices.ts'
import { useOutbox } from '../../stores/outbox.ts'
import { titleOf } from '../../support/setupWords.ts'
import { groundOptions, paceWords } from '../../support/words.ts'
import RecordForm from '../garage/RecordForm.vue'
import NameAndPurpose from './NameAndPurpose.vue'
import NumberField from '../shell/NumberField.vue'

/** A setup kept by a name, any time: what it is for, and what it was found in. */
const props = defineProps<{ bikeId: string; place: KnownPlace }>()
const open = defineModel<boolean>('open', { required: true })
const outbox = useOutbox()
const { who } = useWho()

/** What the days it was ridden on say; nothing else is filled in. */
function fresh(): KeptSetup {
  if (props.place.kept) return props.place.kept
  const ride = props.place.rides.at(0)
  return {
    id: props.place.setup.id,
    version: 0,
    bikeId: props.bikeId,
    name: ride ? titleOf(props.place) : '',
    purposes: [],
    found: {
      place: ride?.place ?? props.place.setup.foundIn?.place ?? '',
      ...airOf(props.place),
      surface: ride?.conditions.surface ?? null,
      pace: null,
      kitMassKg: null,
    },
    tyreFrontPsi: ride?.tyreFrontPsi ?? null,
    tyreRearPsi: ride?.tyreRearPsi ?? null,
    geometry: '',
    words: '',
    by: who.value,
    keptAt: new Date().toISOString(),
  }
}
const { form, busy, submit, faultOf, otherFault } = useForm({
  schema: KeptSetup,
  key: () => `kept:${props.place.id}`,
  fresh,
  open,
  save: (k, opened) => outbox.save('kept', k, opened),
})
const notices = useNotices()
async function unkeep() {
  const k = props.place.kept!
  if (!(await notices.attempt(() => outbox.remove('kept', k.id)))) return
  open.value = false
  notices.show(`${k.name} is not kept any more.`, 'done', () => outbox.restore('kept', k.id))
}
const none = { value: null, text: 'not noted' }
const paces = [
  none,
  { value: 'slower', text: paceWords.slower },
  { value: 'usual', text: 'usual' },
  { value: 'faster', text: paceWords.faster },
]
const numbers = [
  'name',
  'found.airTempC',
  'found.altitudeM',
  'found.kitMassKg',
  'tyreFrontPsi',
  'tyreRearPsi',
]
const fault = computed(() => otherFault(numbers))
</script>

<template>
  <RecordForm
    v-model:open="open"
    size="lg"
    :title="place.kept ? 'What it is kept as' : 'Keep this setup'"
    save-label="Keep it"
    :busy="busy"
    :fault="fault"
    @submit="submit"
  >
    <NameAndPurpose
      v-model:name="form.name"
      v-model:purposes="form.purposes"
      :fault="faultOf('name')"
      placeholder="Wet roots"
    />
    <div>
      <label class="form-label" for="kept-place">Place</label>
      <input id="kept-place" v-model="form.found.place" class="form-control" maxlength="80" />
    </div>
    <NumberField
      v-model="form.found.airTempC"
      label="Air"
      quantity="temperature"
      :fault="faultOf('found.airTempC')"
    />
    <NumberField
      v-model="form.found.altitudeM"
      label="Altitude"
      quantity="altitude"
      :fault="faultOf('found.altitudeM')"
    />
    <div>
      <label class="form-label" for="kept-ground">Ground</label>
      <BFormSelect id="kept-ground" v-model="form.found.surface" :options="groundOptions" />
    </div>
    <div>
      <label class="form-label" for="kept-pace">Pace</label>
      <BFormSelect id="kept-pace" v-model="form.found.pace" :options="paces" />
    </div>
    <NumberField
      v-model="form.found.kitMassKg"
      label="Kit and water"
      quantity="mass"
      :fault="faultOf('found.kitMassKg')"
    />
    <NumberField
      v-model="form.tyreFrontPsi"
      label="Front tyre"
      quantity="pressure"
      :fault="faultOf('tyreFrontPsi')"
    />
    <NumberField
      v-model="form.tyreRearPsi"
      label="Rear tyre"
      quantity="pressure"
      :fault="faultOf('tyreRearPsi')"
    />
    <div class="wide">
      <label class="form-label" for="kept-geometry">Geometry</label>
      <input
        id="kept-geometry"
        v-model="form.geometry"
        class="form-control"
        maxlength="160"
        placeholder="flip chip low, bar 20 mm up"
      />
    </div>
    <div class="wide">
      <label class="form-label" for="kept-words">What the rider says of it</label>
      <textarea
        id="kept-words"
        v-model="form.words"
        class="form-control"
        rows="2"
        maxlength="2000"
      ></textarea>
    </div>
    <div>
      <label class="form-label" for="kept-by">Kept by</label>
      <input id="kept-by" v-model="form.by" class="form-control" maxlength="80" />
    </div>
    <template v-if="place.kept" #beside>
      <p class="not">
        <BButton variant="plain" @click="unkeep">Keep it no longer</BButton>
        <span class="small soft">The setup itself, its runs and words stay.</span>
      </p>
    </template>
  </RecordForm>
</template>

<style scoped>
.not {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 0.3rem 0.8rem;
  margin: 1rem 0 0;
}
</style>
