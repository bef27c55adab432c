<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { useMediaQuery, useNow } from '@vueuse/core'
import { computed, defineAsyncComponent, onMounted, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import type { DaySummary } from '#contract/endpoints'
import type { Bike } from '#contract/bike'
import type { ServiceKind } from '#contract/care'
import { cache, readAfresh, reads } from '../api/cache.ts'
import { fetchSample } from '../api/sampleDay.ts'
import BringIn from '../components/today/BringIn.vue'
import DayRow from '../components/today/DayRow.vue'
import EarlierList from '../components/today/EarlierList.vue'
import FirstSteps from '../components/today/FirstSteps.vue'
import { useHeadlines } from '../composables/useHeadlines.ts'
import { usePageTitle } from '../composables/usePageTitle.ts'
import { useReminders } from '../composables/useReminders.ts'
import { useShortcuts } from '../composables/useShortcuts.ts'
import { useUnits } from '../composables/useUnits.ts'
import { useGarage } from '../stores/garage.ts'
import { useOutbox } from '../stores/outbox.ts'
import { useNotices } from '../stores/notices.ts'
import { reminderWords } from '../support/benchWords.ts'
import { localToday, shortDayWords } from '../support/dates.ts'
import { oneAtATime } from '../support/oneAtATime.ts'

// Dialogs are fetched when they are asked for: the page itself must be there at once.
const NewDayForm = defineAsyncComponent(() => import('../components/today/NewDayForm.vue'))
const TentForm = defineAsyncComponent(() => import('../components/tent/TentForm.vue'))
const ServiceForm = defineAsyncComponent(() => import('../components/garage/ServiceForm.vue'))

const garage = useGarage()
const { units } = useUnits()
const notices = useNotices()
const outbox = useOutbox()
const route = useRoute()
const router = useRouter()
usePageTitle(() => 'Today')
const { data } = useQuery({ ...reads.days(), shallow: true }, cache)
const days = computed<DaySummary[]>(() => data.value ?? [])
const loaded = computed(() => data.value !== undefined && garage.loaded)

onMounted(() => notices.attempt(() => Promise.all([readAfresh(reads.days()), garage.load()])))
// A way in from elsewhere: the bench and the palette open the form over this page.
const newOpen = ref(false)
const newAsked = ref(false)
const newDay = () => ((newAsked.value = true), (newOpen.value = true))
const newBikeId = ref('')
watch(
  () => route.query.new,
  async (what) => {
    if (what !== 'day') return
    newBikeId.value = String(route.query.bike ?? '')
    // Asked for once: coming back to this page must not open it again.
    await router.replace({ query: {} })
    newDay()
  },
  { immediate: true },
)
useShortcuts([{ key: 'n', does: 'new trail day', act: () => ready.value && newDay() }])

/** A laptop in the tent is left on over night. */
const clock = useNow({ interval: 30_000 })
const today = computed(() => localToday(clock.value))
/** Of what is open from before today, what a page is for; the rest is found among the earlier days. */
const narrow = useMediaQuery('(max-width: 720px)')
const openShown = computed(() => (narrow.value ? 3 : 5))
const open = computed(() => days.value.filter((d) => !d.settled))
const ofToday = computed(() =>
  open.value.filter((d) => d.date === today.value).sort((a, b) => a.riderName.localeCompare(b.riderName)),
)
const fromBefore = computed(() => open.value.filter((d) => d.date !== today.value).slice(0, openShown.value))
const rows = computed(() => [...ofToday.value, ...fromBefore.value])
const headlines = useHeadlines(computed(() => rows.value.map((d) => d.id)))
const rest = computed(() => days.value.filter((d) => !rows.value.includes(d)))

const { data: allTents } = useQuery({ ...reads.tents(), shallow: true }, cache)
/** Of today first, then the latest before. */
const tents = computed(() =>
  (allTents.value ?? []).filter((t) => t.date === today.value || t === allTents.value?.[0]),
)
const tentOpen = ref(false)
const { remindersOf } = useReminders()
/** A day of today tells where and in what weather the next ride is; the weather of an earlier one is over. */
const due = computed(() =>
  garage.bikes.flatMap((b) => {
    const day = ofToday.value.find((d) => d.bikeId === b.id)
    const held = day && headlines.value.get(day.id)?.day
    const { airTempC = null, altitudeM = null } = held?.day.conditions ?? {}
    const why = remindersOf(b, { airTempC, altitudeM, place: held?.trail.place ?? '' })
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
/** So few are read at a glance; more are a count that opens. */
const dueAtOnce = 2
const checking = ref<{ bike: Bike; kind: ServiceKind } | null>(null)
const checkOpen = ref(false)
function check(d: { bike: Bike; kind: ServiceKind }) {
  checking.value = d
  checkOpen.value = true
}
const ready = computed(() => garage.bikes.some((b) => garage.currentSetup(b.id)))
async function remove(d: DaySummary) {
  if (await notices.attempt(() => outbox.remove('day', d.id)))
    notices.show('The day was removed.', 'done', () => outbox.restore('day', d.id))
}
const bringOpen = ref(false)
const trying = ref(false)
const tryDemo = oneAtATime(async () => {
  trying.value = true
  await notices.attempt(async () => {
    const letters = await fetchSample(today.value)
    for (const { kind, record } of letters) {
      // What is felt belongs to its run and goes by its name.
      const id = record.id ?? record.runId!
      await outbox.sendFile({ kind, key: `${kind}:${id}`, params: { id }, body: record, file: null })
    }
    const day = letters.find((l) => l.kind === 'day')!
    await router.push({ name: 'day', params: { id: day.record.id! } })
  })
  trying.value = false
})
</script>

<template>
  <div class="page">
    <div class="page-head">
      <h1>Where was I, and what next</h1>
      <span v-if="ready" class="key-row">
        <RouterLink
          v-for="t in tents"
          :key="t.id"
          class="btn btn-plain"
          :to="{ name: 'tent', params: { id: t.id } }"
          >{{ `Tent: ${t.name}${t.date === today ? '' : `, ${shortDayWords(t.date)}`}` }}</RouterLink
        >
        <BButton variant="plain" @click="tentOpen = true">New tent</BButton>
        <BButton variant="primary" @click="newDay">New trail day</BButton>
      </span>
    </div>
    <p v-if="trying" role="status">The invented rider is on the way …</p>
    <FirstSteps v-if="loaded && !ready" @demo="tryDemo" @bring="bringOpen = true" />
    <section v-if="ofToday.length" aria-labelledby="open-title">
      <h2 id="open-title" class="list-title">Today</h2>
      <ul class="days">
        <DayRow
          v-for="d in ofToday"
          :key="d.id"
          :day="d"
          :next="headlines.get(d.id)?.next ?? null"
          @remove="remove(d)"
        />
      </ul>
    </section>
    <section v-if="fromBefore.length" aria-labelledby="before-title">
      <h2 id="before-title" class="list-title">Still open</h2>
      <ul class="days">
        <DayRow
          v-for="d in fromBefore"
          :key="d.id"
          :day="d"
          :next="headlines.get(d.id)?.next ?? null"
          @remove="remove(d)"
        />
      </ul>
    </section>
    <section v-if="due.length" aria-labelledby="due-title">
      <h2 id="due-title" class="list-title">Check before riding</h2>
      <details :open="due.length <= dueAtOnce">
        <summary>{{ `${due.length} ${due.length === 1 ? 'bike' : 'bikes'} to check` }}</summary>
        <ul class="due">
          <li v-for="d in due" :key="d.bike.id">
            <span>{{ d.words }}</span>
            <BButton variant="plain" :aria-label="`Log the check of ${d.bike.name}`" @click="check(d)"
              >Log the check</BButton
            >
          </li>
        </ul>
      </details>
    </section>
    <section v-if="rest.length" aria-labelledby="days-title">
      <h2 id="days-title" class="list-title">Earlier days</h2>
      <EarlierList :days="rest" @remove="remove" />
    </section>
    <TentForm
      v-if="tentOpen"
      v-model:open="tentOpen"
      :editing="null"
      @saved="(t) => router.push({ name: 'tent', params: { id: t.id } })"
    />
    <BringIn v-model:open="bringOpen" />
    <NewDayForm v-if="newAsked" v-model:open="newOpen" :bike-id="newBikeId" />
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
.list-title {
  margin: 1.5rem 0 0.3rem;
}
.days,
.due {
  list-style: none;
  padding: 0;
  margin: 0;
}
.days {
  border-left: 6px solid var(--sun);
  background: var(--card);
  border-radius: var(--radius);
  padding: 0 0.8rem;
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
</style>
