<script setup lang="ts">
import { v7 as uuid } from 'uuid'
import { Rider } from '#contract/rider'
import { useForm } from '../../composables/useForm.ts'
import { useGarage } from '../../stores/garage.ts'
import { levelWords, optionsOf, tasteWords } from '../../support/words.ts'
import NumberField from '../shell/NumberField.vue'

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
      note: '',
    },
  open,
  onStale: garage.load,
  save: (r) => garage.saveRider(r),
})
</script>

<template>
  <BModal v-model="open" lazy unmount-lazy no-animation :title="editing ? 'Rider' : 'New rider'" no-footer>
    <form class="field-grid" @submit.prevent="submit">
      <div class="wide">
        <label class="form-label" for="rider-name">Name</label>
        <BFormInput
          id="rider-name"
          v-model="form.name"
          autocomplete="off"
          :state="faultOf('name') ? false : null"
        />
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
        label="Kit, all of it"
        quantity="mass"
        hint="full water, pack, armour, tools: often 3 to 8 kg"
        :fault="faultOf('kitMassKg')"
      />
      <div>
        <label class="form-label" for="rider-level">Level</label>
        <BFormSelect id="rider-level" v-model="form.level" :options="optionsOf(levelWords)" />
      </div>
      <div>
        <label class="form-label" for="rider-taste">Likes it</label>
        <BFormSelect id="rider-taste" v-model="form.taste" :options="optionsOf(tasteWords)" />
      </div>
      <p v-if="otherFault(['name', 'bodyMassKg', 'kitMassKg'])" class="fault wide" role="alert">
        {{ otherFault(['name', 'bodyMassKg', 'kitMassKg']) }}
      </p>
      <div class="wide"><BButton type="submit" variant="primary" :disabled="busy">Save rider</BButton></div>
    </form>
  </BModal>
</template>

<style scoped>
.fault {
  color: var(--rust);
  font-weight: 600;
  margin: 0.2rem 0 0;
}
</style>
