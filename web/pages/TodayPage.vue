<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { computed, onMounted, ref, watch } from 'vue'
import type { DaySummary } from '#contract/endpoints'
import type { Bike } from '#contract/bike'
import type { ServiceKind } from '#contract/care'
import { cache, reads } from '../api/cache.ts'
import ServiceForm from '../components/garage/ServiceForm.vue'
import NewDayForm from '../components/today/NewDayForm.vue'
import { useDay } from '../stores/day.ts'
import { useGarage } from '../stores/garage.ts'
import { useOutbox } from '../stores/outbox.ts'
import { useNotices } from '../stores/notices.ts'
import { useReminders } from '../composables/useReminders.ts'
import { useUnits } from '../composables/useUnits.ts'
import { reminderWords } from '../support/benchWords.ts'
import { dayWords } from '../support/dates.ts'
import { usePageTitle } from '../composables/usePageTitle.ts'

const garage = useGarage()
const dayStore = useDay()
const { units } = useUnits()
const notices = useNotices()
const outbox = useOutbox()
const { data } = useQuery({ ...reads.days(), shallow: true }, cache)
const days = computed<DaySummary[]>(() => data.value ?? [])
const loaded = computed(() => data.value !== undefined && garage.loaded)
const newOpen = ref(false)

onMounted(() =>
  notices.attempt(() => Promise.all([cache.fetchQuery({ ...reads.days(), staleTime: 0 }), garage.load()])),
)
// The open day of the list, whichever it is by now.
watch(
  () => days.value.find((d) => !d.settled)?.id,
  (id) => id && void notices.attempt(() => dayStore.load(id)),
  { immediate: true },
)

const open = computed(() => days.value.find((d) => !d.settled))
const nextWords = computed(() =>
  dayStore.bundle?.day.id === open.value?.id ? (dayStore.proposal?.headline ?? '') : '',
)
const { remindersOf } = useReminders()
const due = computed(() =>
  garage.bikes.flatMap((b) => {
    // The open day tells where and in what weather the next ride is.
    const day =
      open.value?.bikeId === b.id && dayStore.bundle?.day.id === open.value.id ? dayStore.bundle : null
    const { airTempC = null, altitudeM = null } = day?.day.conditions ?? {}
    const why = remindersOf(b, { airTempC, altitudeM, place: day?.trail.place ?? '' })
    return why.length
      ? [
          {
            bike: b,
            kind: why.every((r) => r.kind === 'service-due')
              ? ('small-service' as const)
              : ('pressure-check' as const),
            words: `${b.name} of ${garage.rider(b.riderId)?.name ?? '?'}: ${why.map((r) => reminderWords(r, units.value)).join('; ')}`,
          },
        ]
      : []
  }),
)
const checking = ref<{ bike: Bike; kind: ServiceKind } | null>(null)
const checkOpen = ref(false)
function check(d: { bike: Bike; kind: ServiceKind }) {
  checking.value = d
  checkOpen.value = true
}
const rest = computed(() => days.value.filter((d) => d !== open.value))
const ready = computed(() => garage.bikes.some((b) => garage.currentSetup(b.id)))
const runsWords = (d: DaySummary) =>
  d.runs === 0 ? 'no run yet' : `${d.countedRuns} counted of ${d.runs} ${d.runs === 1 ? 'run' : 'runs'}`
const ratingWords = (d: DaySummary) =>
  d.bestRating === null
    ? 'not rated yet'
    : d.lastRating === d.bestRating
      ? `rated ${d.bestRating}, the best rating so far`
      : `last ${d.lastRating}, best ${d.bestRating}`
async function remove(d: DaySummary) {
  if (await notices.attempt(() => outbox.remove('day', d.id)))
    notices.show('The day was removed.', 'done', () => outbox.restore('day', d.id))
}
usePageTitle(() => 'Today')
</script>

<template>
  <div class="page">
    <div class="page-head">
      <h1>Where was I, and what next</h1>
      <BButton v-if="ready" variant="primary" @click="newOpen = true">New trail day</BButton>
    </div>
    <section v-if="loaded && !ready" class="card-paper start">
      <h2>First: what is on the bike</h2>
      <p>
        Make a rider, then the bike with its fork and shock. Set it up on the bench, or say where every dial
        stands now. After that a trail day can begin.
      </p>
      <RouterLink class="btn btn-primary" to="/garage">To the garage</RouterLink>
    </section>
    <section v-else-if="open" class="card-paper open" aria-labelledby="open-title">
      <p class="soft small">Still open</p>
      <h2 id="open-title">{{ open.trailName }}, {{ dayWords(open.date) }}</h2>
      <p>{{ open.riderName }} on {{ open.bikeName }} · {{ runsWords(open) }} · {{ ratingWords(open) }}</p>
      <!-- Its place is kept while it is worked out: nothing may move under a finger. -->
      <p class="next">
        Next: <b>{{ nextWords || '…' }}</b>
      </p>
      <RouterLink class="btn btn-sun" :to="{ name: 'day', params: { id: open.id } }"
        >Go on with it</RouterLink
      >
    </section>
    <section v-if="due.length" aria-labelledby="due-title">
      <h2 id="due-title" class="list-title">Check before riding</h2>
      <ul class="due">
        <li v-for="d in due" :key="d.bike.id">
          <span>{{ d.words }}</span>
          <BButton variant="plain" @click="check(d)">Log the check</BButton>
        </li>
      </ul>
    </section>
    <section v-if="rest.length" aria-labelledby="days-title">
      <h2 id="days-title" class="list-title">Earlier days</h2>
      <ul class="days">
        <li v-for="d in rest" :key="d.id" class="card-paper">
          <RouterLink :to="{ name: 'day', params: { id: d.id } }" class="into">
            <b>{{ d.trailName }}</b>
            <span class="soft num">{{ dayWords(d.date) }}</span>
            <span>{{ d.riderName }} on {{ d.bikeName }}</span>
            <span class="num">{{ runsWords(d) }}, {{ ratingWords(d) }}</span>
          </RouterLink>
          <span class="state" :class="{ settled: d.settled }">{{ d.settled ? 'settled' : 'open' }}</span>
          <button
            type="button"
            class="btn btn-sm away"
            :aria-label="`Remove ${d.trailName}, ${dayWords(d.date)}`"
            @click="remove(d)"
          >
            Remove
          </button>
        </li>
      </ul>
    </section>
    <NewDayForm v-model:open="newOpen" />
    <ServiceForm
      v-if="checking"
      v-model:open="checkOpen"
      :bike="checking.bike"
      :editing="null"
      :kind="checking.kind"
    />
  </div>
</template>

<style scoped>
.open,
.start {
  padding: 1.1rem 1.3rem 1.3rem;
  border-left: 6px solid var(--sun);
}
.open p,
.start p {
  margin: 0.2rem 0 0.8rem;
}
.open .small {
  margin: 0;
}
.next {
  font-size: 1.15rem;
}
.list-title {
  margin: 1.6rem 0 0.6rem;
}
.due {
  list-style: none;
  padding: 0;
}
.due li {
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  align-items: center;
  gap: 0.4rem 1rem;
  border-bottom: 1px solid var(--line);
  padding: 0.2rem 0;
}
.days {
  list-style: none;
  padding: 0;
  display: grid;
  gap: 0.6rem;
}
.days li {
  display: flex;
  align-items: center;
  gap: 0.8rem;
  padding: 0.2rem 0.6rem 0.2rem 0;
}
.into {
  flex: 1;
  display: grid;
  grid-template-columns: 1.4fr 1fr 1.3fr 1.8fr;
  gap: 0.1rem 1rem;
  padding: 0.7rem 1rem;
  color: inherit;
  text-decoration: none;
}
.into:hover b {
  text-decoration: underline;
}
.state {
  border-radius: 8px;
  padding: 0.1rem 0.6rem;
  background: var(--sun-soft);
  color: var(--sun-ink);
  font-size: 0.88rem;
}
.state.settled {
  background: var(--front-soft);
  color: var(--ink);
}
.away {
  color: var(--ink-soft);
}
@media (max-width: 720px) {
  .into {
    grid-template-columns: 1fr;
  }
}
</style>
