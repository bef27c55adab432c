<script setup lang="ts">
import { v7 as uuid } from 'uuid'
import { Profile, type ProfileShift } from '#contract/profile'
import { useForm } from '../../composables/useForm.ts'
import { useWho } from '../../composables/useWho.ts'
import { useGarage } from '../../stores/garage.ts'
import RecordForm from '../garage/RecordForm.vue'
import NameAndPurpose from './NameAndPurpose.vue'

/** The difference of two setups, kept by a name for any base. */
const props = defineProps<{ shifts: ProfileShift[]; from: string; words: readonly string[] }>()
const open = defineModel<boolean>('open', { required: true })
const garage = useGarage()
const { who } = useWho()
const { form, busy, submit, faultOf, otherFault } = useForm<Profile>({
  schema: Profile,
  key: () => `profile:${props.from}`.slice(0, 200),
  fresh: () => ({
    id: uuid(),
    version: 0,
    name: '',
    purposes: [],
    shifts: props.shifts,
    from: props.from.slice(0, 200),
    note: '',
    by: who.value,
    madeAt: new Date().toISOString(),
  }),
  open,
  save: garage.saveProfile,
})
</script>

<template>
  <RecordForm
    v-model:open="open"
    title="Keep the difference"
    save-label="Keep it"
    :busy="busy"
    :fault="otherFault(['name'])"
    @submit="submit"
  >
    <ul class="wide num">
      <li v-for="w in words" :key="w">{{ w }}</li>
    </ul>
    <NameAndPurpose
      v-model:name="form.name"
      v-model:purposes="form.purposes"
      :fault="faultOf('name')"
      placeholder="Wet"
    />
  </RecordForm>
</template>

<style scoped>
ul {
  margin: 0;
  padding-left: 1.2rem;
}
</style>
