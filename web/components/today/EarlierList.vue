<script setup lang="ts">
import { useMediaQuery } from '@vueuse/core'
import { computed, ref, watch } from 'vue'
import type { DaySummary } from '#contract/endpoints'
import { byMonth, fitting, type DayFilter } from '../../support/earlierDays.ts'
import ChoiceKeys from '../shell/ChoiceKeys.vue'
import DayRow from './DayRow.vue'

/** Days that are over, by month: found by typing, a page at a time. */
const props = defineProps<{ days: readonly DaySummary[] }>()
const emit = defineEmits<{ remove: [day: DaySummary] }>()

/** As many as stand on a screen or so. */
const narrow = useMediaQuery('(max-width: 720px)')
const pageDays = computed(() => (narrow.value ? 8 : 12))
const filter = ref<DayFilter>({ text: '', state: 'all' })
const pages = ref(1)
watch(filter, () => (pages.value = 1), { deep: true })
const found = computed(() => fitting(props.days, filter.value))
const shown = computed(() => byMonth(found.value.slice(0, pages.value * pageDays.value)))
const left = computed(() => found.value.length - pages.value * pageDays.value)
const states = [
  { value: 'all', text: 'all' },
  { value: 'settled', text: 'settled' },
  { value: 'open', text: 'not settled' },
] as const
</script>

<template>
  <div class="filter">
    <input
      v-model="filter.text"
      type="search"
      class="form-control"
      aria-label="Find a day by rider, bike, trail or month"
      placeholder="rider, bike, trail, month"
      autocomplete="off"
    />
    <ChoiceKeys v-model="filter.state" label="Which days" :options="states" />
    <span class="soft num" role="status">{{ `${found.length} ${found.length === 1 ? 'day' : 'days'}` }}</span>
  </div>
  <section v-for="m in shown" :key="m.month" :aria-label="m.month">
    <h3>{{ m.month }}</h3>
    <ul>
      <DayRow v-for="d in m.days" :key="d.id" :day="d" @remove="emit('remove', d)" />
    </ul>
  </section>
  <BButton v-if="left > 0" variant="plain" class="older" @click="pages++">{{
    `Show ${Math.min(pageDays, left)} older of ${left}`
  }}</BButton>
</template>

<style scoped>
.filter {
  display: flex;
  flex-wrap: wrap;
  gap: 0.5rem 1rem;
  align-items: center;
}
.filter input {
  flex: 1 1 220px;
  max-width: 360px;
}
h3 {
  margin: 0.9rem 0 0;
}
ul {
  list-style: none;
  padding: 0;
  margin: 0;
}
.older {
  margin-top: 0.8rem;
}
</style>
