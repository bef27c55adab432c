<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { v7 as uuid } from 'uuid'
import type { DaySummary } from '#contract/endpoints'
import type { TentBundle, TentRider } from '#contract/tent'
import { cache, reads } from '../../api/cache.ts'
import { useGarage } from '../../stores/garage.ts'
import { useNotices } from '../../stores/notices.ts'
import { useOutbox } from '../../stores/outbox.ts'
import DialogFrame from '../shell/DialogFrame.vue'
import NumberField from '../shell/NumberField.vue'
import TypedPicker from '../shell/TypedPicker.vue'
import { oneAtATime } from '../../support/oneAtATime.ts'

/** Who is looked after here: days that were made before join, bikes without one get one. */
const props = defineProps<{ bundle: TentBundle }>()
const open = defineModel<boolean>('open', { required: true })
const garage = useGarage()
const outbox = useOutbox()
const notices = useNotices()
const { data } = useQuery({ ...reads.days(), shallow: true }, cache)
const days = computed<DaySummary[]>(() => data.value ?? [])
const inTent = computed(() => new Set(props.bundle.riders.map((r) => r.id)))
const summaryOf = (id: string) => days.value.find((d) => d.id === id)
const riders = computed(() => props.bundle.riders.map((r) => ({ r, day: summaryOf(r.id) })))
/** Days of this date on this trail; the trail is known by its name in a summary. */
const joinable = computed(() =>
  days.value.filter(
    (d) =>
      d.date === props.bundle.tent.date && d.trailName === props.bundle.trail.name && !inTent.value.has(d.id),
  ),
)
const freeNumber = (taken: readonly number[]) => {
  for (let n = 1; ; n++) if (!taken.includes(n)) return n
}
const save = (r: TentRider) => notices.attempt(() => outbox.save('tentRider', r))
async function join(list: readonly DaySummary[]) {
  const taken = props.bundle.riders.map((r) => r.number)
  for (const d of list) {
    const number = freeNumber(taken)
    taken.push(number)
    if (!(await enter(d.id, number))) return
  }
}
function setNumber(r: TentRider, number: number) {
  if (number === r.number) return
  if (props.bundle.riders.some((o) => o.id !== r.id && o.number === number))
    return void notices.show(`Number ${number} is another rider’s; choose a free one.`, 'error')
  void save({ ...r, number })
}
const enter = (dayId: string, number: number) =>
  save({
    id: dayId,
    version: 0,
    tentId: props.bundle.tent.id,
    number,
    whereabouts: 'here',
    since: new Date().toISOString(),
    temper: 'reasons',
    named: false,
  })
/** Bikes that stand somewhere known and have no day here yet. */
const bikes = computed(() =>
  garage.bikes
    .filter((b) => garage.currentSetup(b.id))
    .filter((b) => !riders.value.some(({ day }) => day?.bikeId === b.id))
    .filter((b) => !joinable.value.some((d) => d.bikeId === b.id))
    .map((b) => ({ value: b.id, text: `${garage.rider(b.riderId)?.name ?? '?'}, ${b.name}` })),
)
const newBikeId = ref('')
const addBike = oneAtATime(async () => {
  const bike = garage.bike(newBikeId.value)
  const setup = bike && garage.currentSetup(bike.id)
  if (!bike || !setup) return
  const read = [...props.bundle.hours].reverse()
  const day = {
    id: uuid(),
    version: 0,
    date: props.bundle.tent.date,
    riderId: bike.riderId,
    bikeId: bike.id,
    trailId: props.bundle.tent.trailId,
    startSetupId: setup.id,
    conditions: {
      airTempC: read.find((h) => h.airTempC !== null)?.airTempC ?? null,
      altitudeM: read.find((h) => h.altitudeM !== null)?.altitudeM ?? null,
      surface: read.find((h) => h.surface !== null)?.surface ?? null,
    },
    changeLimit: 8,
    settledSetupId: null,
    purpose: 'testing' as const,
    blind: false,
    judgedAlone: false,
    note: '',
  }
  const ok = await notices.attempt(async () => {
    await outbox.save('day', day)
    await enter(day.id, freeNumber(props.bundle.riders.map((r) => r.number)))
  })
  if (ok) newBikeId.value = ''
})
async function takeOut(r: TentRider, name: string) {
  if (await notices.attempt(() => outbox.remove('tentRider', r.id)))
    notices.show(`${name} is out of the tent; the day stays.`, 'done', () =>
      outbox.restore('tentRider', r.id),
    )
}
const tempers = [
  { value: 'reasons', text: 'with reasons' },
  { value: 'number', text: 'just a number' },
]
</script>

<template>
  <DialogFrame v-model:open="open" size="lg" title="Riders in this tent">
    <ul v-if="riders.length" aria-label="Riders">
      <li v-for="{ r, day } in riders" :key="r.id">
        <b class="name"
          >{{ day?.riderName ?? '…' }} <small class="soft">{{ day?.bikeName }}</small></b
        >
        <NumberField
          :model-value="r.number"
          label="Number"
          class="number"
          @update:model-value="(v) => v !== null && setNumber(r, v)"
        />
        <label class="form-label"
          >Is told<BFormSelect
            :model-value="r.temper"
            :options="tempers"
            @update:model-value="(v) => save({ ...r, temper: v as TentRider['temper'] })"
        /></label>
        <label class="agreed"
          ><input
            type="checkbox"
            class="form-check-input"
            :checked="r.named"
            @change="save({ ...r, named: !r.named })"
          />
          name in trends: agreed</label
        >
        <button type="button" class="btn btn-sm soft" @click="takeOut(r, day?.riderName ?? 'The rider')">
          Take out
        </button>
      </li>
    </ul>
    <p v-else>Nobody is in this tent yet.</p>
    <div v-if="joinable.length" class="join">
      <p>
        {{ `Days of this date on ${bundle.trail.name}: ${joinable.map((d) => d.riderName).join(', ')}` }}
      </p>
      <BButton variant="primary" @click="join(joinable)">{{
        joinable.length === 1 ? 'Take it in' : `Take in all ${joinable.length}`
      }}</BButton>
      <template v-if="joinable.length > 1">
        <BButton v-for="d in joinable" :key="d.id" variant="plain" @click="join([d])">{{
          `${d.riderName}, ${d.bikeName}`
        }}</BButton>
      </template>
    </div>
    <div v-if="bikes.length" class="add">
      <TypedPicker
        v-model="newBikeId"
        label="A rider who has no day yet"
        :options="[{ value: '', text: 'choose rider and bike' }, ...bikes]"
      />
      <BButton variant="plain" :disabled="!newBikeId" @click="addBike">Begin a day here</BButton>
    </div>
    <p class="small soft">A name stands beside what several have turned only where its rider agreed.</p>
  </DialogFrame>
</template>

<style scoped>
ul {
  list-style: none;
  margin: 0 0 0.8rem;
  padding: 0;
}
li {
  display: flex;
  flex-wrap: wrap;
  align-items: end;
  gap: 0.4rem 0.8rem;
  border-bottom: 1px solid var(--line);
  padding: 0.35rem 0;
}
.name {
  flex: 1 1 170px;
  align-self: center;
}
.name small {
  display: block;
  font-weight: 400;
}
.number {
  width: 6rem;
}
li label {
  margin: 0;
}
.agreed {
  display: flex;
  gap: 0.5rem;
  align-items: center;
  min-height: var(--touch);
}
.join,
.add {
  display: flex;
  flex-wrap: wrap;
  align-items: end;
  gap: 8px;
  margin-bottom: 0.8rem;
}
.join p {
  flex-basis: 100%;
  margin: 0;
}
.add > :first-child {
  flex: 1 1 240px;
}
</style>
