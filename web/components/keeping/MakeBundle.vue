<script setup lang="ts">
import { computed, reactive, ref, shallowRef } from 'vue'
import { useRoute } from 'vue-router'
import { v7 as uuid } from 'uuid'
import type { BundleScope, MadeBundle } from '#contract/bundle'
import { endpoints, type DaySummary } from '#contract/endpoints'
import type { Tent } from '#contract/tent'
import { apiBase, call } from '../../api/client.ts'
import { useGarage } from '../../stores/garage.ts'
import { useNotices } from '../../stores/notices.ts'
import { sizeWords } from '../../support/dataWords.ts'
import { dayWords } from '../../support/dates.ts'

/** Data to take along: of what, and what of it is nobody else's business. */
defineProps<{ busy: boolean }>()
defineSlots<{ default: () => unknown }>()
const emit = defineEmits<{ make: [work: () => Promise<unknown>] }>()
const garage = useGarage()
const notices = useNotices()
const route = useRoute()

type ScopeKind = BundleScope['kind']
const days = shallowRef<DaySummary[]>([])
const tents = shallowRef<Tent[]>([])
void notices.attempt(async () => {
  await garage.load()
  days.value = await call(endpoints.listDays, {})
  tents.value = await call(endpoints.listTents, {})
})
/** "day:018f…": another page asks for one thing. */
const [askedKind, askedId] = String(route.query.of ?? '').split(':')
const of = ref<ScopeKind>(
  (['rider', 'bike', 'day', 'tent'] as const).find((k) => k === askedKind) ?? 'everything',
)
const chosen = reactive<Record<string, string>>({ [askedKind || 'rider']: askedId ?? '' })
const along = reactive({ weights: false, voices: false, inside: false })
const made = shallowRef<MadeBundle | null>(null)
const isMaking = ref(false)

const kinds: { value: ScopeKind; text: string }[] = [
  { value: 'everything', text: 'everything' },
  { value: 'rider', text: 'one rider' },
  { value: 'bike', text: 'one bike' },
  { value: 'day', text: 'one day' },
  { value: 'tent', text: 'one event' },
]
const riderName = (id: string) => garage.riders.find((r) => r.id === id)?.name ?? '?'
const things = computed(() => {
  const list: Record<Exclude<ScopeKind, 'everything'>, { value: string; text: string }[]> = {
    rider: garage.riders.map((r) => ({ value: r.id, text: r.name })),
    bike: garage.bikes.map((b) => ({ value: b.id, text: `${b.name} of ${riderName(b.riderId)}` })),
    day: days.value.map((d) => ({
      value: d.id,
      text: `${dayWords(d.date)}, ${d.riderName} at ${d.trailName}`,
    })),
    tent: tents.value.map((t) => ({ value: t.id, text: `${t.name}, ${dayWords(t.date)}` })),
  }
  return of.value === 'everything' ? [] : [{ value: '', text: 'choose …' }, ...list[of.value]]
})
const scope = computed<BundleScope | null>(() => {
  if (of.value === 'everything') return { kind: 'everything' }
  const id = chosen[of.value]
  return id ? { kind: of.value, id } : null
})
const goesAlong: Record<Exclude<ScopeKind, 'everything'>, string> = {
  rider:
    'With bikes, forks and shocks, setups, days, runs, feel, recordings and the trails they were ridden on.',
  bike: 'With its forks and shocks, every setup, and all days on it, whoever rode.',
  day: 'With its runs, feel, recordings and the setups they were ridden on.',
  tent: 'With its log by the hour, what was decided, and the day of every rider in it.',
}

function make() {
  const order = { scope: scope.value!, with: { ...along } }
  const id = uuid()
  made.value = null
  isMaking.value = true
  emit('make', async () => {
    made.value = await call(endpoints.makeBundle, { id }, order).finally(() => (isMaking.value = false))
    // Fetched at once, as a click on it would.
    const link = document.createElement('a')
    link.href = addressOf(id)
    link.download = made.value.fileName
    link.click()
  })
}
const addressOf = (id: string) => `${apiBase}/data/bundles/${id}`
</script>

<template>
  <section id="take-along" class="card-paper" aria-labelledby="bundle-title">
    <h2 id="bundle-title">Take along</h2>
    <p>
      A bundle holds everything as it is, so that another Wild Spring can bring it in without losing a click:
      for a new machine, for a rider who moves on, for a coach. It is a zip of plain text and the sensor files
      as they came; no program is needed to read it.
    </p>
    <div class="row">
      <div>
        <label class="form-label" for="bundle-of">What of it</label>
        <BFormSelect id="bundle-of" v-model="of" :options="kinds" />
      </div>
      <div v-if="of !== 'everything'" class="which">
        <label class="form-label" for="bundle-which">Which</label>
        <BFormSelect id="bundle-which" v-model="chosen[of]" :options="things" />
      </div>
    </div>
    <p v-if="of !== 'everything'" class="soft small">{{ goesAlong[of] }}</p>
    <fieldset>
      <legend>Goes along only where you tick it</legend>
      <label class="check"
        ><input v-model="along.weights" type="checkbox" class="form-check-input" /> Weights of riders</label
      >
      <label class="check"
        ><input v-model="along.voices" type="checkbox" class="form-check-input" /> Spoken notes</label
      >
      <label class="check"
        ><input v-model="along.inside" type="checkbox" class="form-check-input" /> What was noted about the
        inside of forks and shocks</label
      >
      <p class="soft small">
        To move house, tick all three: nothing is made up for what is left behind. A riding weight that is not
        there is “not known” on the other side.
      </p>
    </fieldset>
    <slot v-if="isMaking" />
    <div v-else class="row">
      <BButton variant="primary" :disabled="busy || !scope" @click="make">Write the bundle</BButton>
      <a v-if="made" class="btn btn-plain" :href="addressOf(made.id)" :download="made.fileName">{{
        `${made.fileName}, ${sizeWords(made.bytes)}`
      }}</a>
    </div>
  </section>
</template>

<style scoped>
section {
  padding: 1rem 1.2rem;
}
section > p {
  margin: 0.5rem 0 0;
}
.row {
  display: flex;
  flex-wrap: wrap;
  gap: 0.6rem 1rem;
  margin-top: 0.7rem;
}
.which {
  flex: 1 1 16rem;
  max-width: 30rem;
}
fieldset {
  margin-top: 0.8rem;
}
legend {
  font-size: 1rem;
  margin: 0;
}
.check {
  display: flex;
  gap: 0.6rem;
  align-items: center;
  min-height: var(--touch);
}
.check input {
  margin: 0;
  flex: none;
}
fieldset p {
  margin: 0;
}
</style>
