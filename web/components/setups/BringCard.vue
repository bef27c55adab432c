<script setup lang="ts">
import { wrap, type Remote } from 'comlink'
import { computed, onUnmounted, ref, watch } from 'vue'
import { useRouter } from 'vue-router'
import { v7 as uuid } from 'uuid'
import type { SetupCard } from '#contract/card'
import { adjusterName, positionWords } from '#core/adjusters/words'
import type { Adjuster } from '#contract/adjuster'
import { useUnits } from '../../composables/useUnits.ts'
import { useGarage } from '../../stores/garage.ts'
import { useNotices } from '../../stores/notices.ts'
import { useOutbox } from '../../stores/outbox.ts'
import { asItsBike, asWish, unitsAlike, type BroughtIn } from '../../support/bringCard.ts'
import { dateWords, localDate } from '../../support/dates.ts'
import type { CardWorker } from '../../workers/card.worker.ts'
import DropArea from '../importing/DropArea.vue'
import DialogFrame from '../shell/DialogFrame.vue'
import EndMark from '../shell/EndMark.vue'
import TypedPicker from '../shell/TypedPicker.vue'

/** A card brought in: read from a picture of its code or its file, looked at, then put where it belongs. */
const open = defineModel<boolean>('open', { required: true })
const garage = useGarage()
const notices = useNotices()
const outbox = useOutbox()
const router = useRouter()
const { units: choice } = useUnits()

let worker: Worker | null = null
let remote: Remote<CardWorker> | null = null
function reader(): Remote<CardWorker> {
  worker ??= new Worker(new URL('../../workers/card.worker.ts', import.meta.url), { type: 'module' })
  remote ??= wrap<CardWorker>(worker)
  return remote
}
onUnmounted(() => worker?.terminate())

const file = ref<File | null>(null)
const card = ref<SetupCard | null>(null)
const fault = ref('')
const busy = ref(false)
watch(
  open,
  (is) => {
    if (!is) return
    file.value = null
    card.value = null
    fault.value = ''
    if (!garage.loaded) void notices.attempt(garage.load)
  },
  { immediate: true },
)
async function take(f: File) {
  file.value = f
  card.value = null
  fault.value = ''
  busy.value = true
  const read = await reader().read(f)
  busy.value = false
  // Another one was chosen meanwhile.
  if (file.value !== f) return
  if (read.ok) card.value = read.card
  else fault.value = read.message
}

const ends = computed(() =>
  (card.value?.units ?? []).map((u) => ({
    end: u.end,
    name: u.name,
    lines: u.dials.map(({ value, how, ...shape }) => {
      const a = { ...shape, id: '' } as Adjuster
      const stands = value === null ? 'not read' : positionWords(a, value, choice.value)
      return `${adjusterName(a)} ${stands}${how === 'assumed' ? ', assumed' : ''}`
    }),
  })),
)
/** Bikes here with at least one unit of the model on the card. */
const fitting = computed(() =>
  card.value
    ? garage.bikes
        .map((bike) => ({ bike, alike: unitsAlike(card.value!, garage.unitsOf(bike), uuid) }))
        .filter((x) => x.alike.length > 0)
    : [],
)
const newBike = 'new'
const where = ref(newBike)
watch(fitting, (f) => (where.value = f.at(0)?.bike.id ?? newBike))
const places = computed(() => [
  ...fitting.value.map(({ bike, alike }) => ({
    value: bike.id,
    text: `a wish for ${bike.name}, ${garage.rider(bike.riderId)?.name ?? '?'}${alike.length < (card.value?.units.length ?? 0) ? ` (only the ${alike[0].end} is alike)` : ''}`,
  })),
  { value: newBike, text: 'this very bike, made here' },
])
const riderId = ref<string | null>(null)
const riders = computed(() => [
  { value: null, text: `${card.value?.rider || 'Rider of the card'}, new here` },
  ...garage.riders.map((r) => ({ value: r.id, text: r.name })),
])

async function keep(b: BroughtIn) {
  if (b.rider) await garage.saveRider(b.rider)
  for (const u of b.units) await garage.saveUnit(u)
  if (b.bike) await garage.saveBike(b.bike)
  await garage.saveSetup(b.setup)
  await outbox.save('kept', b.kept)
}
async function bring() {
  const c = card.value
  if (!c) return
  const now = new Date().toISOString()
  const fit = fitting.value.find((f) => f.bike.id === where.value)
  const brought = fit ? asWish(c, fit.bike, fit.alike, uuid, now) : asItsBike(c, riderId.value, uuid, now)
  busy.value = true
  const ok = await notices.attempt(() => keep(brought))
  busy.value = false
  if (!ok) return
  open.value = false
  notices.show(
    fit
      ? `${c.name} is wanted on ${fit.bike.name}. Nothing is turned yet.`
      : `${c.bike} is here and stands as its card says. Check its dials and sag before you ride.`,
  )
  await router.push({
    name: 'setups',
    params: { bikeId: brought.setup.bikeId },
    query: { at: brought.setup.id },
  })
}
</script>

<template>
  <DialogFrame v-model:open="open" size="lg" title="Bring in a setup card">
    <DropArea
      :file="file"
      invitation="Drop a picture of the code, or tap to take or choose one"
      hint="a photograph or scan of the card’s code, or the .json file that came with it"
      accept="image/*,.json,application/json,text/plain"
      @take="take"
    />
    <p v-if="busy && !card" class="soft" role="status">Reading …</p>
    <p v-if="fault" class="fault" role="alert">{{ fault }}</p>
    <form v-if="card" class="field-grid" @submit.prevent="bring">
      <div class="wide">
        <h3>{{ card.name }}</h3>
        <p class="soft small">
          {{
            [card.bike, card.rider, dateWords(localDate(card.madeAt)), card.by && `set up by ${card.by}`]
              .filter(Boolean)
              .join(' · ')
          }}
        </p>
      </div>
      <div class="wide ends">
        <div v-for="e in ends" :key="e.end" class="end">
          <h4><EndMark :end="e.end" small /> {{ e.end === 'front' ? 'Front' : 'Rear' }}, {{ e.name }}</h4>
          <ul class="num">
            <li v-for="l in e.lines" :key="l">{{ l }}</li>
          </ul>
        </div>
      </div>
      <TypedPicker v-model="where" class="wide" label="What it is for" :options="places" />
      <TypedPicker
        v-if="where === newBike"
        v-model="riderId"
        class="wide"
        label="Whose bike"
        :options="riders"
      />
      <p class="caution wide">
        {{
          where === newBike
            ? 'What the card says was true when it was written. Read the dials and the sag again before you trust it.'
            : 'A wish: nothing is on the bike before somebody turns it. Clicks are only the same on units of one model, never re-valved.'
        }}
      </p>
      <div class="wide acts">
        <BButton type="submit" variant="primary" :disabled="busy">Bring it in</BButton>
        <BButton variant="plain" @click="open = false">Cancel</BButton>
      </div>
    </form>
  </DialogFrame>
</template>

<style scoped>
form {
  margin-top: 0.9rem;
}
h4 {
  display: flex;
  align-items: center;
  gap: 0.4rem;
}
ul {
  margin: 0.2rem 0 0;
  padding-left: 1.2rem;
}
.ends {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(230px, 1fr));
  gap: 0.6rem 1.2rem;
}
.acts {
  display: flex;
  gap: 8px;
}
p {
  margin: 0.2rem 0 0;
}
</style>
