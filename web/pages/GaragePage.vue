<script setup lang="ts">
import { computed, onMounted, ref } from 'vue'
import type { Bike } from '#contract/bike'
import { endpoints } from '#contract/endpoints'
import type { Rider } from '#contract/rider'
import type { Trail } from '#contract/trail'
import { adjusterName, positionWords } from '#core/adjusters/words'
import { countBaseWords } from '#core/adjusters/count'
import { call } from '../api/client.ts'
import BaselineForm from '../components/garage/BaselineForm.vue'
import BikeForm from '../components/garage/BikeForm.vue'
import RiderForm from '../components/garage/RiderForm.vue'
import TrailForm from '../components/garage/TrailForm.vue'
import EndMark from '../components/shell/EndMark.vue'
import { useGarage } from '../stores/garage.ts'
import { useNotices } from '../stores/notices.ts'
import { levelWords, sectionWords, tasteWords } from '../support/words.ts'

const garage = useGarage()
const notices = useNotices()
onMounted(() => notices.attempt(garage.load))

const riderOpen = ref(false)
const bikeOpen = ref(false)
const trailOpen = ref(false)
const baselineOpen = ref(false)
const rider = ref<Rider | null>(null)
const bike = ref<Bike | null>(null)
const trail = ref<Trail | null>(null)
const standing = ref<Bike | null>(null)

const openRider = (r: Rider | null) => ((rider.value = r), (riderOpen.value = true))
const openBike = (b: Bike | null) => ((bike.value = b), (bikeOpen.value = true))
const openTrail = (t: Trail | null) => ((trail.value = t), (trailOpen.value = true))
const openBaseline = (b: Bike) => ((standing.value = garage.bike(b.id) ?? b), (baselineOpen.value = true))

const bikes = computed(() =>
  garage.bikes.map((b) => {
    const setup = garage.currentSetup(b.id)
    const units = garage.unitsOf(b).map((u) => ({
      unit: u,
      lines: u.adjusters.map((a) => {
        const at = setup?.positions.find((p) => p.adjusterId === a.id)?.value
        return {
          id: a.id,
          name: adjusterName(a),
          at: at === undefined ? 'not read yet' : positionWords(a, at),
          base: countBaseWords(a),
        }
      }),
    }))
    return { bike: b, rider: garage.rider(b.riderId)?.name ?? '?', units, ready: setup !== undefined }
  }),
)
async function putAway(what: 'Rider' | 'Bike' | 'Trail', id: string, name: string) {
  const acts = {
    Rider: [endpoints.deleteRider, endpoints.restoreRider],
    Bike: [endpoints.deleteBike, endpoints.restoreBike],
    Trail: [endpoints.deleteTrail, endpoints.restoreTrail],
  } as const
  const [remove, restore] = acts[what]
  const ok = await notices.attempt(async () => {
    await call(remove, { id })
    await garage.load()
  })
  if (!ok) return
  notices.show(`${name} was put away.`, 'done', async () => {
    await call(restore, { id })
    await garage.load()
  })
}
const sectionList = (t: Trail) =>
  t.sections.map((s) => `${s.name} (${sectionWords[s.kind]}, ${s.lengthM} m)`).join(' · ')
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
          <span class="soft">{{ levelWords[r.level] }}, likes it {{ tasteWords[r.taste] }}</span>
          <span
            ><button type="button" class="btn btn-sm" @click="openRider(r)">Edit</button
            ><button type="button" class="btn btn-sm soft" @click="putAway('Rider', r.id, r.name)">
              Put away
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
      <article v-for="b in bikes" :key="b.bike.id" class="card-paper bike">
        <header>
          <div>
            <h3>{{ b.bike.name }}</h3>
            <span class="soft">{{ b.rider }}<template v-if="b.bike.eBike">, electric</template></span>
          </div>
          <div class="acts">
            <button
              type="button"
              class="btn"
              :class="b.ready ? 'btn-plain' : 'btn-sun'"
              @click="openBaseline(b.bike)"
            >
              {{ b.ready ? 'Read it again' : 'Say where it stands' }}
            </button>
            <button type="button" class="btn btn-plain" @click="openBike(b.bike)">Edit</button>
            <button type="button" class="btn soft" @click="putAway('Bike', b.bike.id, b.bike.name)">
              Put away
            </button>
          </div>
        </header>
        <div class="units">
          <div v-for="u in b.units" :key="u.unit.id">
            <h4><EndMark :end="u.unit.end" /> {{ u.unit.name }}</h4>
            <p class="soft small num">
              {{ u.unit.strokeMm }} mm {{ u.unit.end === 'front' ? 'travel' : 'stroke' }},
              {{ u.unit.spring }}, sag target {{ u.unit.sagTargetPct }} %{{
                u.unit.revalved ? ', re-valved' : ''
              }}
            </p>
            <dl>
              <template v-for="l in u.lines" :key="l.id">
                <dt>{{ l.name }}</dt>
                <dd class="num">
                  <b>{{ l.at }}</b> <span class="soft small">{{ l.base }}</span>
                </dd>
              </template>
            </dl>
          </div>
        </div>
      </article>
      <p v-if="garage.loaded && !garage.bikes.length" class="soft">No bike yet.</p>
    </section>
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
            ><button type="button" class="btn btn-sm soft" @click="putAway('Trail', t.id, t.name)">
              Put away
            </button></span
          >
        </li>
      </ul>
    </section>
    <RiderForm v-model:open="riderOpen" :editing="rider" />
    <BikeForm
      v-model:open="bikeOpen"
      :editing="bike"
      @saved="(b) => !garage.currentSetup(b.id) && openBaseline(b)"
    />
    <TrailForm v-model:open="trailOpen" :editing="trail" />
    <BaselineForm v-if="standing" v-model:open="baselineOpen" :bike="standing" />
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
.bike {
  padding: 0.9rem 1.1rem;
  margin-bottom: 0.8rem;
}
.bike header {
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  gap: 0.5rem;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 0.4rem;
}
.units {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(270px, 1fr));
  gap: 0.5rem 2rem;
  margin-top: 0.6rem;
}
h4 {
  font-size: 1rem;
}
.units p {
  margin: 0.1rem 0 0.3rem;
}
dl {
  display: grid;
  grid-template-columns: auto 1fr;
  gap: 0.15rem 1rem;
  margin: 0;
}
dt {
  font-weight: 400;
}
dd {
  margin: 0;
}
</style>
