<script setup lang="ts">
import { onMounted, ref } from 'vue'
import type { Bike } from '#contract/bike'
import type { Rider } from '#contract/rider'
import type { Trail } from '#contract/trail'
import RemovedShelf from '../components/garage/RemovedShelf.vue'
import BaselineForm from '../components/garage/BaselineForm.vue'
import BikeCard from '../components/garage/BikeCard.vue'
import BikeForm from '../components/garage/BikeForm.vue'
import RiderForm from '../components/garage/RiderForm.vue'
import TrailForm from '../components/garage/TrailForm.vue'
import WorkshopShelf from '../components/garage/WorkshopShelf.vue'
import { useGarage } from '../stores/garage.ts'
import { useOutbox } from '../stores/outbox.ts'
import { useNotices } from '../stores/notices.ts'
import { levelWords, sectionWords, tasteWords } from '../support/words.ts'
import { usePageTitle } from '../composables/usePageTitle.ts'

const garage = useGarage()
const notices = useNotices()
const outbox = useOutbox()
onMounted(() => notices.attempt(garage.load))

const riderOpen = ref(false)
const bikeOpen = ref(false)
const trailOpen = ref(false)
const baselineOpen = ref(false)
const rider = ref<Rider | null>(null)
const bike = ref<Bike | null>(null)
const trail = ref<Trail | null>(null)
const recording = ref<Bike | null>(null)

const openRider = (r: Rider | null) => ((rider.value = r), (riderOpen.value = true))
const openBike = (b: Bike | null) => ((bike.value = b), (bikeOpen.value = true))
const openTrail = (t: Trail | null) => ((trail.value = t), (trailOpen.value = true))
const openBaseline = (b: Bike) => ((recording.value = garage.bike(b.id) ?? b), (baselineOpen.value = true))

async function remove(what: 'rider' | 'bike' | 'trail', id: string, name: string) {
  if (!(await notices.attempt(() => outbox.remove(what, id)))) return
  const more = what === 'rider' ? ' and every bike of this rider' : ''
  notices.show(`${name}${more} was removed; it lies on the shelf below.`, 'done', () =>
    outbox.restore(what, id),
  )
}
const sectionList = (t: Trail) =>
  t.sections.map((s) => `${s.name} (${sectionWords[s.kind]}, ${s.lengthM} m)`).join(' · ')
usePageTitle(() => 'Garage')
</script>

<template>
  <div class="page">
    <div class="page-head">
      <h1>Who rides what, and what can be turned on it</h1>
    </div>
    <section aria-labelledby="riders">
      <div class="page-head">
        <h2 id="riders">Riders</h2>
        <BButton variant="plain" @click="openRider(null)">New rider</BButton>
      </div>
      <ul class="riders">
        <li v-for="r in garage.riders" :key="r.id" class="card-paper">
          <b>{{ r.name }}</b>
          <span class="soft">{{ levelWords[r.level] }}, prefers a {{ tasteWords[r.taste] }} feel</span>
          <span
            ><button type="button" class="btn btn-sm" @click="openRider(r)">Edit</button
            ><button type="button" class="btn btn-sm soft" @click="remove('rider', r.id, r.name)">
              Remove
            </button></span
          >
        </li>
        <li v-if="garage.loaded && !garage.riders.length" class="soft">
          Nobody yet. Make a rider first; the weight stays private.
        </li>
      </ul>
    </section>
    <section aria-labelledby="bikes">
      <div class="page-head">
        <h2 id="bikes">Bikes</h2>
        <BButton variant="plain" :disabled="!garage.riders.length" @click="openBike(null)">New bike</BButton>
      </div>
      <BikeCard
        v-for="b in garage.bikes"
        :key="b.id"
        :bike="b"
        @edit="openBike(b)"
        @read="openBaseline(b)"
        @away="remove('bike', b.id, b.name)"
      />
      <p v-if="garage.loaded && !garage.bikes.length" class="soft">No bike yet.</p>
    </section>
    <WorkshopShelf />
    <section aria-labelledby="trails">
      <div class="page-head">
        <h2 id="trails">Test trails</h2>
        <BButton variant="plain" @click="openTrail(null)">New trail</BButton>
      </div>
      <ul class="trails">
        <li v-for="t in garage.trails" :key="t.id" class="card-paper">
          <div>
            <b>{{ t.name }}</b> <span class="soft">{{ t.place }}</span>
            <p class="small">{{ sectionList(t) }}</p>
          </div>
          <span class="acts"
            ><button type="button" class="btn btn-sm" @click="openTrail(t)">Edit</button
            ><button type="button" class="btn btn-sm soft" @click="remove('trail', t.id, t.name)">
              Remove
            </button></span
          >
        </li>
      </ul>
    </section>
    <RemovedShelf />
    <RiderForm v-model:open="riderOpen" :editing="rider" />
    <BikeForm v-model:open="bikeOpen" :editing="bike" />
    <TrailForm v-model:open="trailOpen" :editing="trail" />
    <BaselineForm v-if="recording" v-model:open="baselineOpen" :bike="recording" />
  </div>
</template>

<style scoped>
section {
  margin-bottom: 1.8rem;
}
section .page-head {
  margin-bottom: 0.5rem;
}
ul {
  list-style: none;
  padding: 0;
  margin: 0;
}
.riders {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(260px, 1fr));
  gap: 0.6rem;
}
.riders li,
.trails li {
  padding: 0.6rem 0.9rem;
  display: grid;
}
.trails li {
  grid-template-columns: 1fr auto;
  gap: 0.6rem;
  margin-bottom: 0.5rem;
}
.trails p {
  margin: 0;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 0.4rem;
}
</style>
