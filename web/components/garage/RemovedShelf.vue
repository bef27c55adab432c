<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import type { ShelfItem } from '#contract/endpoints'
import { cache, reads } from '../../api/cache.ts'
import { useNotices } from '../../stores/notices.ts'
import { useOutbox } from '../../stores/outbox.ts'
import { clockWords, dayWords, localDate, shortDayWords } from '../../support/dates.ts'

/** Everything that was removed, to be found and brought back at any time. */
const notices = useNotices()
const outbox = useOutbox()
const { data } = useQuery({ ...reads.shelf(), staleTime: 0, shallow: true }, cache)
const items = computed(() => data.value ?? [])
const shown = ref(12)
const kindWords: Record<ShelfItem['kind'], string> = {
  rider: 'rider, with the bikes',
  bike: 'bike',
  unit: 'fork or shock',
  trail: 'trail',
  gauge: 'gauge',
  stock: 'springs or spacers',
  service: 'service log',
  baseline: 'makers’ setting',
  kept: 'kept setup',
  profile: 'profile',
  bench: 'bench session',
  tent: 'tent; its riders’ days stay',
  tentRider: 'rider of a tent',
  tentHour: 'line of a tent’s log',
  tentNote: 'decision in a tent',
  day: 'day',
  run: 'run',
  recording: 'sensor file',
  setup: 'wanted setup',
}
/** What goes by its time is named on the clock of whoever looks. */
const nameOf = (x: ShelfItem) =>
  x.at === null ? x.name : `${dayWords(localDate(x.at))}, ${clockWords(x.at)}`
const words = (x: ShelfItem) =>
  [kindWords[x.kind], x.about, `removed ${shortDayWords(localDate(x.removedAt))}`].filter(Boolean).join(', ')
async function bringBack(x: ShelfItem) {
  if (await notices.attempt(() => outbox.restore(x.kind, x.id))) notices.show(`${nameOf(x)} is back.`)
}
</script>

<template>
  <section aria-labelledby="removed">
    <div class="page-head">
      <h2 id="removed">{{ items.length ? `Removed: ${items.length}` : 'Nothing was removed' }}</h2>
    </div>
    <ul class="shelf">
      <li v-for="x in items.slice(0, shown)" :key="x.kind + x.id">
        <span
          ><b>{{ nameOf(x) }}</b> <span class="soft">{{ words(x) }}</span></span
        >
        <BButton variant="plain" :aria-label="`Bring ${nameOf(x)} back`" @click="bringBack(x)"
          >Bring back</BButton
        >
      </li>
    </ul>
    <BButton v-if="items.length > shown" variant="plain" @click="shown += 12">{{
      `Show more of ${items.length - shown}`
    }}</BButton>
  </section>
</template>

<style scoped>
.shelf {
  list-style: none;
  padding: 0;
}
li {
  display: flex;
  justify-content: space-between;
  align-items: center;
  gap: 0.8rem;
  min-height: 48px;
  border-bottom: 1px solid var(--line);
}
</style>
