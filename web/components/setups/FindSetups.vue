<script setup lang="ts">
import { computed } from 'vue'
import type { Surface } from '#contract/conditions'
import type { Purpose } from '#contract/kept'
import { anything, asksForNothing, type Wanted } from '#core/lineage/find'
import { useUnits } from '../../composables/useUnits.ts'
import { keptForWords } from '../../support/setupWords.ts'
import { optionsOf, surfaceWords } from '../../support/words.ts'

/** What is looked for among the setups of a bike. */
const wanted = defineModel<Wanted>({ required: true })
defineProps<{ found: number }>()
const { say } = useUnits()

type Ground = 'any' | 'dry' | 'damp' | 'wet' | 'snow'
const grounds: Record<Ground, { text: string; holds: Surface[] }> = {
  any: { text: 'any ground', holds: [] },
  dry: { text: 'dry', holds: ['dry-hard', 'dry-loose'] },
  damp: { text: surfaceWords.damp, holds: ['damp'] },
  wet: { text: 'wet, mud', holds: ['wet', 'mud'] },
  snow: { text: surfaceWords.snow, holds: ['snow'] },
}
const set = (change: Partial<Wanted>) => (wanted.value = { ...wanted.value, ...change })
const ground = computed<Ground>({
  get: () =>
    (Object.keys(grounds) as Ground[]).find(
      (g) => grounds[g].holds.join() === wanted.value.surfaces.join(),
    ) ?? 'any',
  set: (g) => set({ surfaces: grounds[g].holds }),
})
const groundOptions = (Object.keys(grounds) as Ground[]).map((value) => ({
  value,
  text: grounds[value].text,
}))

/** Bounds of the air a rider tells apart, °C. */
const airs = [
  [null, 5],
  [5, 15],
  [15, 25],
  [25, null],
] as const
const airOptions = computed(() => [
  { value: '', text: 'any air' },
  ...airs.map(([from, to], i) => ({
    value: String(i),
    text:
      from === null
        ? `below ${say('temperature', to)}`
        : to === null
          ? `above ${say('temperature', from)}`
          : `${say('temperature', from)} to ${say('temperature', to)}`,
  })),
])
const air = computed<string>({
  get: () => {
    const i = airs.findIndex(
      ([from, to]) => from === wanted.value.warmerThanC && to === wanted.value.colderThanC,
    )
    return i < 0 ? '' : String(i)
  },
  set: (at) => {
    const [warmerThanC, colderThanC] = at === '' ? [null, null] : airs[Number(at)]
    set({ warmerThanC, colderThanC })
  },
})
const purposes = [{ value: '', text: 'any purpose' }, ...optionsOf(keptForWords)]
const purpose = computed<string>({
  get: () => wanted.value.purpose ?? '',
  set: (p) => set({ purpose: p === '' ? null : (p as Purpose) }),
})
const asked = computed(() => !asksForNothing(wanted.value))
</script>

<template>
  <form class="find" role="search" aria-label="Find a setup" @submit.prevent>
    <input
      class="form-control"
      type="search"
      aria-label="Name, place, month, or what was said"
      placeholder="name, place, October, grips …"
      :value="wanted.text"
      autocomplete="off"
      @input="set({ text: ($event.target as HTMLInputElement).value })"
    />
    <BFormSelect v-model="ground" aria-label="Ground" :options="groundOptions" />
    <BFormSelect v-model="air" aria-label="Air" :options="airOptions" />
    <BFormSelect v-model="purpose" aria-label="Purpose" :options="purposes" />
    <button
      type="button"
      class="btn btn-plain settled"
      :aria-pressed="wanted.settledOnly"
      @click="set({ settledOnly: !wanted.settledOnly })"
    >
      settled only
    </button>
    <p class="small soft" role="status">
      <template v-if="asked">
        {{ found === 0 ? 'None was ridden like that.' : `${found} found` }}
        <button type="button" class="btn btn-sm btn-plain" @click="wanted = anything">Show all</button>
      </template>
    </p>
  </form>
</template>

<style scoped>
.find {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: center;
  margin-bottom: 0.8rem;
}
input {
  flex: 2 1 190px;
  width: auto;
}
.form-select {
  flex: 1 1 118px;
  width: auto;
}
@media (max-width: 720px) {
  input {
    flex-basis: 100%;
  }
  .form-select {
    flex: 1 1 30%;
    min-width: 0;
    padding-right: 1.6rem;
    background-position: right 0.4rem center;
  }
}
.settled[aria-pressed='true'] {
  background: var(--pine);
  color: var(--pine-ink);
}
p {
  flex-basis: 100%;
  min-height: var(--touch);
  margin: 0;
  display: flex;
  gap: 0.6rem;
  align-items: center;
}
p:empty {
  display: none;
}
</style>
