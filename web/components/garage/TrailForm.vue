<script setup lang="ts">
import { v7 as uuid } from 'uuid'
import { Trail } from '#contract/trail'
import IconX from '~icons/lucide/x'
import { useForm } from '../../composables/useForm.ts'
import { useGarage } from '../../stores/garage.ts'
import { optionsOf, sectionWords } from '../../support/words.ts'

const props = defineProps<{ editing: Trail | null }>()
const open = defineModel<boolean>('open', { required: true })
const emit = defineEmits<{ saved: [trail: Trail] }>()
const garage = useGarage()
const newSection = () => ({ id: uuid(), name: '', kind: 'roots' as const, lengthM: 100, severity: 1 })
const { form, busy, submit, fault } = useForm<Trail>({
  schema: Trail,
  key: () => `trail:${props.editing?.id ?? 'new'}`,
  fresh: () =>
    props.editing ?? { id: uuid(), version: 0, name: '', place: '', note: '', sections: [newSection()] },
  open,
  onStale: garage.load,
  save: async (t) => emit('saved', await garage.saveTrail(t)),
})
const kinds = optionsOf(sectionWords)
const add = () => form.value.sections.push(newSection())
const remove = (i: number) => form.value.sections.splice(i, 1)
</script>

<template>
  <BModal
    v-model="open"
    lazy
    unmount-lazy
    no-animation
    :title="editing ? 'Trail' : 'New trail'"
    size="lg"
    no-footer
  >
    <form class="field-grid" @submit.prevent="submit">
      <div>
        <label class="form-label" for="trail-name">Trail or part of it</label>
        <BFormInput id="trail-name" v-model="form.name" autocomplete="off" />
      </div>
      <div>
        <label class="form-label" for="trail-place">Place</label>
        <BFormInput id="trail-place" v-model="form.place" autocomplete="off" />
      </div>
      <div class="wide">
        <span class="form-label">Sections, from the top</span>
        <p class="soft small">One to four minutes in all, with what is being tuned in it.</p>
        <div v-for="(s, i) in form.sections" :key="s.id" class="section">
          <BFormInput
            v-model="s.name"
            placeholder="name, e.g. Root web"
            :aria-label="`Section ${i + 1}, name`"
          />
          <BFormSelect v-model="s.kind" :options="kinds" :aria-label="`Section ${i + 1}, kind`" />
          <div class="metres">
            <BFormInput
              v-model.number="s.lengthM"
              type="number"
              min="1"
              class="num"
              :aria-label="`Section ${i + 1}, length in m`"
            /><span class="soft">m</span>
          </div>
          <button
            type="button"
            class="btn btn-plain"
            :aria-label="`Remove section ${i + 1}`"
            @click="remove(i)"
          >
            <IconX aria-hidden="true" />
          </button>
        </div>
        <BButton variant="plain" size="sm" @click="add">Add a section</BButton>
      </div>
      <p v-if="fault" class="fault wide" role="alert">{{ fault.message }}</p>
      <div class="wide"><BButton type="submit" variant="primary" :disabled="busy">Save trail</BButton></div>
    </form>
  </BModal>
</template>

<style scoped>
.section {
  display: grid;
  grid-template-columns: 1.4fr 1fr 110px auto;
  gap: 0.4rem;
  margin-bottom: 0.4rem;
}
.metres {
  display: flex;
  align-items: center;
  gap: 0.3rem;
}
.fault {
  color: var(--rust);
  font-weight: 600;
  margin: 0;
}
@media (max-width: 560px) {
  .section {
    grid-template-columns: 1fr 1fr;
    border-bottom: 1px dashed var(--line);
    padding-bottom: 0.4rem;
  }
}
</style>
