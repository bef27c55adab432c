<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { useRouter } from 'vue-router'
import { v7 as uuid } from 'uuid'
import type { Surface } from '#contract/conditions'
import { TrailDay } from '#contract/day'
import { Trail } from '#contract/trail'
import { airOfDay } from '#core/bench/airOn'
import { useQuery } from '@tanstack/vue-query'
import { cache, reads } from '../../api/cache.ts'
import TypedPicker from '../shell/TypedPicker.vue'
import { useOutbox } from '../../stores/outbox.ts'
import { useReminders } from '../../composables/useReminders.ts'
import { useUnits } from '../../composables/useUnits.ts'
import { useGarage } from '../../stores/garage.ts'
import { useNotices } from '../../stores/notices.ts'
import { reminderWords } from '../../support/benchWords.ts'
import { localToday } from '../../support/dates.ts'
import { dayFault } from '../../support/dayFault.ts'
import { keepDraft, readDraft } from '../../support/drafts.ts'
import { oneAtATime } from '../../support/oneAtATime.ts'
import { groundOptions, optionsOf, purposeWords } from '../../support/words.ts'
import NumberField from '../shell/NumberField.vue'
import TrailForm from '../garage/TrailForm.vue'
import DialogFrame from '../shell/DialogFrame.vue'

const props = defineProps<{
  /** The bike that somebody comes from; empty for none. */
  bikeId?: string
}>()
const open = defineModel<boolean>('open', { required: true })
const garage = useGarage()
const notices = useNotices()
const outbox = useOutbox()
const router = useRouter()

const blank = () => ({
  date: localToday(),
  bikeId: '',
  trailId: '',
  airTempC: null as number | null,
  altitudeM: null as number | null,
  surface: null as Surface | null,
  purpose: 'testing' as TrailDay['purpose'],
  blind: false,
})
const form = ref(blank())
const trailOpen = ref(false)
const fault = ref('')
const bikes = computed(() =>
  garage.bikes
    .filter((b) => garage.currentSetup(b.id))
    .map((b) => ({ value: b.id, text: `${b.name}, ${garage.rider(b.riderId)?.name ?? '?'}` })),
)
const trails = computed(() =>
  garage.trails.map((t) => ({ value: t.id, text: t.place ? `${t.name}, ${t.place}` : t.name })),
)
const { remindersOf } = useReminders()
const { units } = useUnits()
/** Said before the first run, when there is still time to take the pump out. */
const due = computed(() => {
  const bike = garage.bike(form.value.bikeId)
  const { date, airTempC, altitudeM, trailId } = form.value
  if (!bike) return []
  return remindersOf(bike, { date, airTempC, altitudeM, place: garage.trail(trailId)?.place ?? '' }).map(
    (r) => reminderWords(r, units.value),
  )
})
const { data } = useQuery({ ...reads.days(), shallow: true }, cache)
/** Two days of one bike on one date are most likely a slip: only the last of a bike is gone on with. */
const begun = computed(() =>
  (data.value ?? []).find((d) => d.bikeId === form.value.bikeId && d.date === form.value.date),
)
const place = ref('')
/** What a bench of today, or the last ride of this bike, says of where and in what air. */
async function fill(bikeId: string) {
  const last = (data.value ?? []).find((d) => d.bikeId === bikeId)
  const trailId = last && garage.trails.find((t) => t.name === last.trailName)?.id
  if (trailId) form.value.trailId = trailId
  const bench = (await cache.fetchQuery(reads.benches(bikeId)).catch(() => [])).at(0)
  // What was read an hour ago on the bench is read; another day's air is nobody's reading of this one.
  const air = bench && airOfDay(bench, form.value.date)
  form.value.airTempC ??= air?.airTempC ?? null
  form.value.altitudeM ??= air?.altitudeM ?? null
  place.value = air?.place ?? ''
}
watch(
  open,
  (is) => {
    if (!is) return
    const kept = readDraft<ReturnType<typeof blank>>('new-day')
    // What was begun on an earlier day was about that day: its date and its air are nobody's word for this one.
    const draft = kept && kept.date >= localToday() ? kept : null
    form.value = { ...blank(), ...draft }
    if (props.bikeId) form.value.bikeId = props.bikeId
    const recent = (data.value ?? []).find((d) => bikes.value.some((b) => b.value === d.bikeId))
    form.value.bikeId ||= recent?.bikeId ?? bikes.value[0]?.value ?? ''
    form.value.trailId ||= trails.value[0]?.value ?? ''
    if (!draft) void fill(form.value.bikeId)
  },
  { immediate: true },
)
watch(form, (f) => open.value && keepDraft('new-day', f), { deep: true })

/** A trail in one word, for who wants to ride now: one section, all of it. */
const quickName = ref('')
const quickTrail = oneAtATime(async () => {
  const name = quickName.value.trim()
  if (!name) return (fault.value = 'Say what the trail is called.')
  const trail = Trail.safeParse({
    id: uuid(),
    version: 0,
    name,
    place: place.value,
    sections: [{ id: uuid(), name: 'Whole trail', kind: 'mixed', lengthM: null, severity: 1 }],
    note: '',
  })
  if (!trail.success) return (fault.value = trail.error.issues[0].message)
  if (!(await notices.attempt(() => garage.saveTrail(trail.data)))) return
  form.value.trailId = trail.data.id
  quickName.value = ''
  fault.value = ''
})

const submit = oneAtATime(async () => {
  const bike = garage.bike(form.value.bikeId)
  const setup = bike && garage.currentSetup(bike.id)
  if (!bike || !setup) return (fault.value = 'Choose a bike.')
  if (!form.value.trailId && quickName.value.trim()) await quickTrail()
  if (!form.value.trailId)
    return (fault.value = 'Choose the trail, or make one: every comparison is section by section.')
  const { date, trailId, airTempC, altitudeM, surface, purpose, blind } = form.value
  const slip = dayFault(date, { ahead: 60 })
  if (slip) return (fault.value = slip)
  const result = TrailDay.safeParse({
    id: uuid(),
    version: 0,
    date,
    riderId: bike.riderId,
    bikeId: bike.id,
    trailId,
    startSetupId: setup.id,
    conditions: { airTempC, altitudeM, surface },
    changeLimit: 8,
    settledSetupId: null,
    purpose,
    blind,
    note: '',
  })
  if (!result.success) return (fault.value = result.error.issues[0].message)
  fault.value = ''
  const ok = await notices.attempt(() => outbox.save('day', result.data))
  if (!ok) return
  keepDraft('new-day', null)
  open.value = false
  await router.push({ name: 'day', params: { id: result.data.id } })
})
const madeTrail = (t: Trail) => (form.value.trailId = t.id)
</script>

<template>
  <DialogFrame v-model:open="open" title="New trail day">
    <form class="field-grid" @submit.prevent="submit">
      <div>
        <label class="form-label" for="day-date">Day</label>
        <input id="day-date" v-model="form.date" type="date" class="form-control num" required />
      </div>
      <TypedPicker v-model="form.bikeId" label="Bike and rider" :options="bikes" />
      <p v-if="begun" class="caution wide due">
        {{ `This bike has a day on that date already, on ${begun.trailName}. Another one ends it.` }}
        <RouterLink :to="{ name: 'day', params: { id: begun.id } }" @click="open = false"
          >Go on with that day</RouterLink
        >
      </p>
      <div v-if="trails.length" class="wide trail">
        <TypedPicker v-model="form.trailId" label="Trail" :options="trails" />
        <BButton variant="plain" @click="trailOpen = true">New trail</BButton>
      </div>
      <div v-else class="wide trail">
        <div>
          <label class="form-label" for="quick-trail">Trail, as one section</label>
          <BFormInput
            id="quick-trail"
            v-model="quickName"
            autocomplete="off"
            placeholder="what it is called"
          />
        </div>
        <BButton variant="plain" @click="quickTrail">Use this</BButton>
        <BButton variant="plain" @click="trailOpen = true">New trail in sections</BButton>
      </div>
      <NumberField v-model="form.airTempC" label="Air" quantity="temperature" />
      <NumberField v-model="form.altitudeM" label="Altitude" quantity="altitude" />
      <div>
        <label class="form-label" for="day-surface">Surface</label>
        <BFormSelect id="day-surface" v-model="form.surface" :options="groundOptions" />
      </div>
      <div>
        <label class="form-label" for="new-day-purpose">What it is for</label>
        <BFormSelect id="new-day-purpose" v-model="form.purpose" :options="optionsOf(purposeWords)" />
      </div>
      <label class="check">
        <input v-model="form.blind" type="checkbox" class="form-check-input" />
        The rider judges blind
      </label>
      <p v-if="due.length" class="caution wide due">
        {{ `Look after the bike before the first run: ${due.join('; ')}.` }}
      </p>
      <p v-if="fault" class="fault wide" role="alert">{{ fault }}</p>
      <div class="wide"><BButton type="submit" variant="primary">Start the day</BButton></div>
    </form>
    <TrailForm v-model:open="trailOpen" :editing="null" @saved="madeTrail" />
  </DialogFrame>
</template>

<style scoped>
.check {
  display: flex;
  gap: 0.5rem;
  align-items: center;
  min-height: var(--touch);
}
.due {
  margin: 0;
}
.trail {
  display: flex;
  flex-wrap: wrap;
  gap: 0.6rem;
  align-items: end;
}
.trail > div {
  flex: 1 1 220px;
}
.fault {
  color: var(--rust);
  font-weight: 600;
  margin: 0;
}
</style>
