<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import type { DayBundle } from '#contract/endpoints'
import IconDown from '~icons/lucide/chevron-down'
import { cache, reads } from '../../api/cache.ts'
import { useShortcuts } from '../../composables/useShortcuts.ts'
import { useUnits } from '../../composables/useUnits.ts'
import { shortDayWords } from '../../support/dates.ts'
import { conditionWords, runsWords } from '../../support/dayWords.ts'
import DialogFrame from '../shell/DialogFrame.vue'

/** What the bar says of a day: the rider first, never cut off, and the way to the others who ride that day. */
const props = defineProps<{ bundle: DayBundle }>()
const { units } = useUnits()
const { data } = useQuery({ ...reads.days(), shallow: true }, cache)
const riders = computed(() =>
  (data.value ?? [])
    .filter((d) => d.date === props.bundle.day.date)
    .sort((a, b) => a.riderName.localeCompare(b.riderName)),
)
const open = ref(false)
useShortcuts([{ key: 'w', does: 'who else rides this day', act: () => (open.value = true) }])
const conditions = computed(() => conditionWords(props.bundle, units.value))
</script>

<template>
  <button
    type="button"
    class="who"
    :title="`${bundle.rider.name}, ${bundle.bike.name}`"
    :aria-label="`${bundle.rider.name}, ${bundle.bike.name}; who else rides this day`"
    @click="open = true"
  >
    <b>{{ bundle.rider.name }}</b>
    <span>{{ bundle.bike.name }}</span>
    <IconDown aria-hidden="true" />
  </button>
  <span class="rest" :title="conditions">{{ conditions }}</span>
  <DialogFrame v-model:open="open" :title="`Riding on ${shortDayWords(bundle.day.date)}`">
    <ul class="riders">
      <li v-for="d in riders" :key="d.id">
        <RouterLink
          :to="{ name: 'day', params: { id: d.id } }"
          :aria-current="d.id === bundle.day.id ? 'page' : undefined"
          @click="open = false"
        >
          <b>{{ d.riderName }}</b>
          <span>{{ `${d.bikeName} · ${d.trailName}` }}</span>
          <span class="soft small num">{{ `${runsWords(d)}${d.settled ? ', settled' : ''}` }}</span>
        </RouterLink>
      </li>
    </ul>
    <p v-if="riders.length < 2" class="soft small">Nobody else has a day of this date.</p>
  </DialogFrame>
</template>

<style scoped>
.who {
  display: inline-flex;
  align-items: center;
  gap: 0.1rem 0.5rem;
  min-height: var(--touch);
  max-width: 100%;
  padding: 0 0.5rem;
  border: 1px solid rgb(255 255 255 / 35%);
  border-radius: 9px;
  background: none;
  color: inherit;
  text-align: left;
  line-height: 1.1;
  flex: none;
}
.who span {
  overflow-wrap: anywhere;
}
.rest {
  min-width: 0;
  font-size: 0.85rem;
  line-height: 1.25;
  display: -webkit-box;
  -webkit-box-orient: vertical;
  -webkit-line-clamp: 2;
  line-clamp: 2;
  overflow: hidden;
}
/* Two letters of a place say nothing. */
@container bar-about (max-width: 300px) {
  .rest {
    display: none;
  }
}
.riders {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  gap: 0.5rem;
}
.riders a {
  display: grid;
  padding: 0.5rem 0.8rem;
  border: 1px solid var(--line);
  border-radius: 10px;
  color: inherit;
  text-decoration: none;
}
.riders a[aria-current] {
  border-left: 5px solid var(--sun);
}
@media (max-width: 900px) {
  .who {
    flex: 0 1 auto;
    flex-wrap: wrap;
  }
  .who svg {
    display: none;
  }
}
@media (max-width: 720px) {
  .who {
    flex: 1;
    font-size: 0.84rem;
    padding: 0 0.4rem;
    row-gap: 0;
  }
  .who b,
  .who span {
    flex-basis: 100%;
  }
  .rest {
    display: none;
  }
}
</style>
