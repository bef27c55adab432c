<script setup lang="ts">
import { v7 as uuid } from 'uuid'
import { Trail } from '#contract/trail'
import { useForm } from '../../composables/useForm.ts'
import { useGarage } from '../../stores/garage.ts'
import TrailBuilder from './TrailBuilder.vue'
import DialogFrame from '../shell/DialogFrame.vue'

const props = defineProps<{ editing: Trail | null }>()
const open = defineModel<boolean>('open', { required: true })
const emit = defineEmits<{ saved: [trail: Trail] }>()
const garage = useGarage()
const { form, busy, submit, fault } = useForm<Trail>({
  schema: Trail,
  key: () => `trail:${props.editing?.id ?? 'new'}`,
  fresh: () =>
    props.editing ?? { id: uuid(), version: 0, name: '', place: '', note: '', sections: [], gates: [] },
  open,
  onStale: garage.load,
  save: async (t, opened) => emit('saved', await garage.saveTrail(t, opened)),
})
</script>

<template>
  <DialogFrame v-model:open="open" :title="editing ? 'Trail' : 'New trail'" size="xl">
    <form class="field-grid" @submit.prevent="submit">
      <div>
        <label class="form-label" for="trail-name">Trail or part of it</label>
        <BFormInput id="trail-name" v-model="form.name" autocomplete="off" />
      </div>
      <div>
        <label class="form-label" for="trail-place">Place</label>
        <BFormInput id="trail-place" v-model="form.place" autocomplete="off" />
      </div>
      <TrailBuilder v-model="form.sections" class="wide" />
      <p v-if="fault" class="fault wide" role="alert">{{ fault.message }}</p>
      <div class="wide"><BButton type="submit" variant="primary" :disabled="busy">Save trail</BButton></div>
    </form>
  </DialogFrame>
</template>

<style scoped>
.fault {
  color: var(--rust);
  font-weight: 600;
  margin: 0;
}
</style>
