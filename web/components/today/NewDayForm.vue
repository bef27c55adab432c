<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { useRouter } from 'vue-router'
import { v7 as uuid } from 'uuid'
import { TrailDay, type Surface } from '#contract/day'
import type { Trail } from '#contract/trail'
import { useOutbox } from '../../stores/outbox.ts'
import { useReminders } from '../../composables/useReminders.ts'
import { useUnits } from '../../composables/useUnits.ts'
import { useGarage } from '../../stores/garage.ts'
import { useNotices } from '../../stores/notices.ts'
import { reminderWords } from '../../support/benchWords.ts'
import { localToday } from '../../support/dates.ts'
import { keepDraft, readDraft } from '../../support/drafts.ts'
import { optionsOf, purposeWords, surfaceWords } from '../../support/words.ts'
import NumberField from '../shell/NumberField.vue'
import TrailForm from '../garage/TrailForm.vue'
import DialogFrame from '../shell/DialogFrame.vue'

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
  surface: 'dry-hard' as Surface,
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
watch(open, (is) => {
  if (!is) return
  form.value = { ...blank(), ...readDraft<ReturnType<typeof blank>>('new-day') }
  form.value.bikeId ||= bikes.value[0]?.value ?? ''
  form.value.trailId ||= trails.value[0]?.value ?? ''
})
watch(form, (f) => open.value && keepDraft('new-day', f), { deep: true })

async function submit() {
  const bike = garage.bike(form.value.bikeId)
  const setup = bike && garage.currentSetup(bike.id)
  if (!bike || !setup) return (fault.value = 'Choose a bike.')
  if (!form.value.trailId)
    return (fault.value = 'Choose the trail, or make one: every comparison is section by section.')
  const { date, trailId, airTempC, altitudeM, surface, purpose, blind } = form.value
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
}
const madeTrail = (t: Trail) => (form.value.trailId = t.id)
</script>

<template>
  <DialogFrame v-model:open="open" title="New trail day">
    <form class="field-grid" @submit.prevent="submit">
      <div>
        <label class="form-label" for="day-date">Day</label>
        <input id="day-date" v-model="form.date" type="date" class="form-control num" required />
      </div>
      <div>
        <label class="form-label" for="day-bike">Bike and rider</label>
        <BFormSelect id="day-bike" v-model="form.bikeId" :options="bikes" />
      </div>
      <div class="wide trail">
        <div>
          <label class="form-label" for="day-trail">Trail</label>
          <BFormSelect id="day-trail" v-model="form.trailId" :options="trails" />
        </div>
        <BButton variant="plain" @click="trailOpen = true">New trail</BButton>
      </div>
      <NumberField v-model="form.airTempC" label="Air" quantity="temperature" />
      <NumberField v-model="form.altitudeM" label="Altitude" quantity="altitude" />
      <div>
        <label class="form-label" for="day-surface">Surface</label>
        <BFormSelect id="day-surface" v-model="form.surface" :options="optionsOf(surfaceWords)" />
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
  gap: 0.6rem;
  align-items: end;
}
.trail > div {
  flex: 1;
}
.fault {
  color: var(--rust);
  font-weight: 600;
  margin: 0;
}
</style>
