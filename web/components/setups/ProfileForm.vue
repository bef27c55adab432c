<script setup lang="ts">
import { v7 as uuid } from 'uuid'
import type { Purpose } from '#contract/kept'
import { Profile, type ProfileShift } from '#contract/profile'
import { useForm } from '../../composables/useForm.ts'
import { useWho } from '../../composables/useWho.ts'
import { useGarage } from '../../stores/garage.ts'
import { keptForWords } from '../../support/setupWords.ts'
import RecordForm from '../garage/RecordForm.vue'

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
const purposes = Object.keys(keptForWords) as Purpose[]
function toggle(p: Purpose) {
  const held = form.value.purposes
  form.value.purposes = held.includes(p) ? held.filter((x) => x !== p) : [...held, p]
}
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
    <div class="wide">
      <label class="form-label" for="profile-name">Name</label>
      <input
        id="profile-name"
        v-model="form.name"
        data-first
        class="form-control"
        :class="{ 'is-invalid': faultOf('name') }"
        :aria-invalid="faultOf('name') ? true : undefined"
        maxlength="80"
        placeholder="Wet"
      />
      <p v-if="faultOf('name')" class="fault" role="alert">{{ faultOf('name') }}</p>
    </div>
    <div class="wide">
      <p id="profile-for" class="form-label">What it is for</p>
      <div class="choice" role="group" aria-labelledby="profile-for">
        <button
          v-for="p in purposes"
          :key="p"
          type="button"
          :aria-pressed="form.purposes.includes(p)"
          @click="toggle(p)"
        >
          {{ keptForWords[p] }}
        </button>
      </div>
    </div>
  </RecordForm>
</template>

<style scoped>
ul {
  margin: 0;
  padding-left: 1.2rem;
}
</style>
