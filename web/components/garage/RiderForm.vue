<script setup lang="ts">
import { v7 as uuid } from 'uuid'
import { computed } from 'vue'
import { Rider } from '#contract/rider'
import { useForm } from '../../composables/useForm.ts'
import { useGarage } from '../../stores/garage.ts'
import { levelWords, optionsOf, tasteWords } from '../../support/words.ts'
import NumberField from '../shell/NumberField.vue'
import { adjusterName } from '#core/adjusters/words'
import { assumedWords } from '../../support/assumed.ts'
import { isManner, mannerKeys } from '../../support/riderWords.ts'
import AssumedNote from './AssumedNote.vue'
import RecordForm from './RecordForm.vue'

const props = defineProps<{ editing: Rider | null }>()
const open = defineModel<boolean>('open', { required: true })
const garage = useGarage()
const { form, busy, submit, faultOf, otherFault } = useForm<Rider>({
  schema: Rider,
  key: () => `rider:${props.editing?.id ?? 'new'}`,
  fresh: () =>
    props.editing ?? {
      id: uuid(),
      version: 0,
      name: '',
      bodyMassKg: null,
      kitMassKg: null,
      waterL: 0,
      level: 'intermediate',
      taste: 'neutral',
      assumed: [...mannerKeys],
      note: '',
    },
  open,
  onStale: garage.load,
  save: garage.saveRider,
})
const unsaid = { value: null, text: 'not said' }
const levels = [unsaid, ...optionsOf(levelWords)]
const tastes = [unsaid, ...optionsOf(tasteWords)]
/** How somebody rides, as long as it was said; else it is reckoned with as usual. */
const saidOf = <K extends (typeof mannerKeys)[number]>(key: K) =>
  computed<Rider[K] | null>({
    get: () => (form.value.assumed.includes(key) ? null : form.value[key]),
    set: (said) => {
      form.value.assumed = form.value.assumed.filter((k) => k !== key)
      if (said === null) form.value.assumed.push(key)
      else form.value[key] = said
    },
  })
const [level, taste] = [saidOf('level'), saidOf('taste')]
const shown = ['name', 'bodyMassKg', 'kitMassKg', 'waterL']
</script>

<template>
  <RecordForm
    v-model:open="open"
    :title="editing ? 'Rider' : 'New rider'"
    save-label="Save rider"
    :busy="busy"
    :fault="otherFault(shown)"
    @submit="submit"
  >
    <AssumedNote
      :of="assumedWords(form, adjusterName)"
      @right="form.assumed = form.assumed.filter(isManner)"
    />
    <div class="wide">
      <label class="form-label" for="rider-name">Name</label>
      <BFormInput id="rider-name" v-model="form.name" autocomplete="off" />
      <p v-if="faultOf('name')" class="fault" role="alert">{{ faultOf('name') }}</p>
    </div>
    <NumberField
      v-model="form.bodyMassKg"
      label="Body weight"
      quantity="mass"
      hint="private: never on a shared view"
      :fault="faultOf('bodyMassKg')"
    />
    <NumberField
      v-model="form.kitMassKg"
      label="Kit (pack, armour, shoes)"
      quantity="mass"
      hint="pack, armour, shoes, tools: often 3 to 8 kg with water"
      :fault="faultOf('kitMassKg')"
    />
    <NumberField
      :model-value="form.waterL"
      label="Water carried when full"
      unit="L"
      hint="if it is not in the kit weight"
      :fault="faultOf('waterL')"
      @update:model-value="(v) => (form.waterL = v ?? 0)"
    />
    <div>
      <label class="form-label" for="rider-level">Level</label>
      <BFormSelect id="rider-level" v-model="level" :options="levels" />
    </div>
    <div>
      <label class="form-label" for="rider-taste">Preferred feel</label>
      <BFormSelect id="rider-taste" v-model="taste" :options="tastes" />
    </div>
  </RecordForm>
</template>
