<script setup lang="ts">
import { inject } from 'vue'
import { useDifferenceWords } from '../../composables/useDifferenceWords.ts'
import { formConflictKey } from '../../composables/useForm.ts'
import DialogFrame from '../shell/DialogFrame.vue'
/** The frame that every form of a record shares: a dialog, its fields, one fault, one save. */
defineProps<{
  title: string
  saveLabel: string
  busy: boolean
  /** A fault whose field has no place of its own. */
  fault: string | null
  size?: 'lg' | 'xl'
}>()
const open = defineModel<boolean>('open', { required: true })
const emit = defineEmits<{ submit: [] }>()
const conflict = inject(formConflictKey, null)
const differenceWords = useDifferenceWords()
</script>

<template>
  <DialogFrame v-model:open="open" :title="title" :size="size">
    <form class="field-grid" @submit.prevent="emit('submit')">
      <slot />
      <p v-if="fault" class="fault wide" role="alert">{{ fault }}</p>
      <div
        v-if="conflict?.differences.value.length"
        class="wide caution both"
        role="group"
        aria-label="Both versions"
      >
        <ul>
          <li v-for="d in conflict.differences.value" :key="d.path.join('.')">
            {{ differenceWords(d) }}
          </li>
        </ul>
        <BButton variant="plain" @click="conflict.choose('mine')">Use mine</BButton>
        <BButton variant="plain" @click="conflict.choose('theirs')">Use theirs</BButton>
      </div>
      <div v-else class="wide">
        <BButton type="submit" variant="primary" :disabled="busy">{{ saveLabel }}</BButton>
      </div>
    </form>
    <slot name="beside" />
  </DialogFrame>
</template>

<style scoped>
.both {
  flex-wrap: wrap;
}
.both ul {
  flex-basis: 100%;
  margin: 0;
}
</style>
