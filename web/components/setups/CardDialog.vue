<script setup lang="ts">
import { computed, ref } from 'vue'
import IconFile from '~icons/lucide/file-json'
import IconPrinter from '~icons/lucide/printer'
import { apiBase } from '../../api/client.ts'
import { useKept } from '../../composables/useKept.ts'
import { useUnits } from '../../composables/useUnits.ts'
import ChoiceKeys from '../shell/ChoiceKeys.vue'
import DialogFrame from '../shell/DialogFrame.vue'

/** A setup as a card: which paper, whose line, with or without the weight; or as a file. */
const props = defineProps<{ bikeId: string; setupId: string; words: string }>()
const open = defineModel<boolean>('open', { required: true })
const { units } = useUnits()
type Paper = 'A4' | 'LETTER' | 'A6'
const paper = useKept<Paper>('wild-spring:paper', 'A4')
const chosenPaper = computed<Paper>({
  get: () => paper.value as Paper,
  set: (p) => (paper.value = p),
})
const papers = [
  { value: 'A4', text: 'A4' },
  { value: 'LETTER', text: 'Letter' },
  { value: 'A6', text: 'A6, for the pocket' },
] as const
const shop = useKept('wild-spring:shop-line', '')
const weight = ref(false)
const query = computed(() => {
  const { mass: _mass, ...asked } = units.value
  return new URLSearchParams({
    setup: props.setupId,
    paper: paper.value,
    ...(shop.value.trim() ? { shop: shop.value.trim().slice(0, 80) } : {}),
    ...(weight.value ? { weight: 'yes' } : {}),
    ...asked,
  }).toString()
})
const fileQuery = computed(() =>
  new URLSearchParams({ setup: props.setupId, ...(weight.value ? { weight: 'yes' } : {}) }).toString(),
)
</script>

<template>
  <DialogFrame v-model:open="open" :title="`A card of ${words}`">
    <div class="parts">
      <div>
        <p class="form-label">Paper</p>
        <ChoiceKeys v-model="chosenPaper" label="Paper" :options="papers" />
      </div>
      <div>
        <label class="form-label" for="shop-line">A line at the top</label>
        <input
          id="shop-line"
          v-model="shop"
          class="form-control"
          maxlength="80"
          placeholder="your name, or the shop’s and where it is"
        />
      </div>
      <label class="with">
        <input v-model="weight" type="checkbox" class="form-check-input" />
        <span
          >with the riding weight
          <small class="soft">(cards lie about; leave it off unless it is wanted)</small></span
        >
      </label>
      <div class="acts">
        <a
          class="btn btn-primary"
          :href="`${apiBase}/bikes/${bikeId}/card.pdf?${query}`"
          target="_blank"
          rel="noopener"
        >
          <IconPrinter aria-hidden="true" /> Card, to print
        </a>
        <a
          class="btn btn-plain"
          :href="`${apiBase}/bikes/${bikeId}/card.json?${fileQuery}`"
          :download="`${words}.json`"
        >
          <IconFile aria-hidden="true" /> As a file
        </a>
      </div>
      <p class="small soft">
        The code on the card holds the whole setup. Another Wild Spring reads it from a picture, without a
        network.
      </p>
    </div>
  </DialogFrame>
</template>

<style scoped>
.parts {
  display: grid;
  gap: 0.9rem;
}
.with {
  display: flex;
  gap: 0.6rem;
  align-items: center;
  min-height: var(--touch);
}
.with input {
  width: 1.4rem;
  height: 1.4rem;
  flex: none;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
p {
  margin: 0;
}
</style>
