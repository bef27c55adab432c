<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { computed, ref, watch } from 'vue'
import type { Letterhead } from '#contract/letterhead'
import { saidRidingMassKg } from '#core/spring/load'
import IconFile from '~icons/lucide/file-json'
import IconPrinter from '~icons/lucide/printer'
import { cache, reads } from '../../api/cache.ts'
import { apiBase } from '../../api/client.ts'
import { useKept } from '../../composables/useKept.ts'
import { useUnits } from '../../composables/useUnits.ts'
import { useGarage } from '../../stores/garage.ts'
import { useNotices } from '../../stores/notices.ts'
import { useOutbox } from '../../stores/outbox.ts'
import { zoneHere } from '../../support/dates.ts'
import { markPicture } from '../../support/markPicture.ts'
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
const notices = useNotices()
const outbox = useOutbox()
const { data: letterhead } = useQuery(reads.letterhead(), cache)
const line = ref('')
// What is typed is not overwritten by a reading that comes late.
watch(
  letterhead,
  (now, before) => (line.value === (before?.line ?? '') && now ? (line.value = now.line) : null),
  {
    immediate: true,
  },
)
let saving: Promise<unknown> | null = null
/** A card that is asked for with the line just typed waits until the line is kept. */
async function print(e: MouseEvent) {
  if (!saving) return
  e.preventDefault()
  const { href } = e.currentTarget as HTMLAnchorElement
  await saving
  window.open(href, '_blank', 'noopener')
}
/** One after another, and over what is kept: what was typed before that is read waits for it. */
async function saveTop(change: Partial<Pick<Letterhead, 'line' | 'mark'>>) {
  const before = saving
  const mine = notices.attempt(async () => {
    await before
    const top = reads.letterhead()
    const kept = await cache.ensureQueryData(top)
    const done = await outbox.save('letterhead', { ...kept, ...change })
    // The next one is laid over this one, told or not.
    if (done.state === 'saved') cache.setQueryData(top.queryKey, done.saved)
  })
  saving = mine
  await mine
  if (saving === mine) saving = null
}
async function takeMark(e: Event) {
  const field = e.target as HTMLInputElement
  const file = field.files?.[0]
  field.value = ''
  if (!file) return
  try {
    await saveTop({ mark: await markPicture(file) })
  } catch (fault) {
    notices.show(fault instanceof Error ? fault.message : String(fault), 'error')
  }
}
const weight = ref(false)
const garage = useGarage()
/** Body alone is no riding weight: without the kit there is none to print. */
const hasWeight = computed(() => {
  const rider = garage.rider(garage.bike(props.bikeId)?.riderId ?? null)
  return rider ? saidRidingMassKg(rider) !== null : false
})
const query = computed(() => {
  const { mass: _mass, ...asked } = units.value
  return new URLSearchParams({
    setup: props.setupId,
    paper: paper.value,
    zone: zoneHere(),
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
          v-model.trim="line"
          class="form-control"
          maxlength="80"
          placeholder="your name, or the shop’s and where it is"
          @change="saveTop({ line })"
        />
        <div class="mark">
          <img v-if="letterhead?.mark" :src="letterhead.mark" alt="The mark at the top" />
          <label class="btn btn-plain"
            >{{ letterhead?.mark ? 'Another mark' : 'A mark beside it' }}
            <input
              class="visually-hidden"
              type="file"
              accept="image/png,image/jpeg,image/webp"
              @change="takeMark"
          /></label>
          <BButton v-if="letterhead?.mark" variant="plain" @click="saveTop({ mark: null })">No mark</BButton>
        </div>
      </div>
      <label class="with">
        <input v-model="weight" type="checkbox" class="form-check-input" :disabled="!hasWeight" />
        <span
          >with the riding weight
          <small class="soft">{{
            hasWeight
              ? '(cards lie about; leave it off unless it is wanted)'
              : '(not known: the garage holds no weight of the body, or none of the kit; 0 is an answer)'
          }}</small></span
        >
      </label>
      <div class="acts">
        <a
          class="btn btn-primary"
          :href="`${apiBase}/bikes/${bikeId}/card.pdf?${query}`"
          target="_blank"
          rel="noopener"
          @click="print"
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
.mark {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: center;
  margin-top: 0.5rem;
}
.mark img {
  max-height: 44px;
  max-width: 132px;
  background: #fff;
  border: 1px solid var(--line);
}
.mark label {
  display: inline-flex;
  align-items: center;
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
