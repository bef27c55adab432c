<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { useRouter } from 'vue-router'
import { v7 as uuid } from 'uuid'
import type { Conditions } from '#contract/conditions'
import type { Setup } from '#contract/setup'
import type { SuspensionUnit } from '#contract/unit'
import { carriedPositions, carryOver, ontoOtherUnits, type CarriedPosition } from '#core/carry/carryOver'
import type { Pace, Steepness } from '#core/carry/situation'
import type { Adjuster } from '#contract/adjuster'
import { adjusterName, effectWord } from '#core/adjusters/words'
import { saidRidingMassKg } from '#core/spring/load'
import { useUnits } from '../../composables/useUnits.ts'
import { useGarage } from '../../stores/garage.ts'
import { useNotices } from '../../stores/notices.ts'
import { groundOptions, listOf, optionsOf, paceWords, steepnessWords } from '../../support/words.ts'
import EndMark from '../shell/EndMark.vue'
import NumberField from '../shell/NumberField.vue'
import TypedPicker from '../shell/TypedPicker.vue'
import DialogFrame from '../shell/DialogFrame.vue'

/** Where a setup comes from: what it was found on, by whom, and in what. */
export interface CarrySource {
  bikeId: string
  riderId: string
  units: readonly SuspensionUnit[]
  /** Null: nobody has noted what it was ridden in. */
  conditions: Conditions | null
  /** "Quarry Loop, Sat 7 Nov". */
  words: string
  settled: boolean
}
const props = defineProps<{ source: CarrySource; setup: Setup }>()
const open = defineModel<boolean>('open', { required: true })
const garage = useGarage()
const notices = useNotices()
const router = useRouter()
const { positionWords, positionNumber, sayDifference, units: choice } = useUnits()

const massOf = (riderId: string): number | null => {
  const r = garage.rider(riderId)
  return r ? saidRidingMassKg(r) : null
}
const blank = () => ({
  bikeId: props.source.bikeId,
  fromKg: massOf(props.source.riderId),
  toKg: massOf(props.source.riderId),
  airTempC: props.source.conditions?.airTempC ?? null,
  altitudeM: props.source.conditions?.altitudeM ?? null,
  surface: props.source.conditions?.surface ?? null,
  steepness: 'usual' as Steepness,
  pace: 'usual' as Pace,
})
const form = ref(blank())
const busy = ref(false)
watch(
  open,
  async (is) => {
    if (!is) return
    const before = blank()
    form.value = { ...before }
    await notices.attempt(() => garage.load())
    // What was typed meanwhile stays.
    const typed = Object.entries(form.value).filter(([key, v]) => v !== before[key as keyof typeof before])
    form.value = { ...blank(), ...Object.fromEntries(typed) }
  },
  { immediate: true },
)
const bikes = computed(() =>
  garage.bikes
    .filter((b) => garage.currentSetup(b.id))
    .map((b) => ({ value: b.id, text: `${b.name}, ${garage.rider(b.riderId)?.name ?? '?'}` })),
)
const target = computed(() => garage.bike(form.value.bikeId))
watch(
  () => form.value.bikeId,
  () => {
    if (target.value) form.value.toKg = massOf(target.value.riderId)
  },
)
const elsewhere = computed(() => form.value.bikeId !== props.source.bikeId)

const result = computed<{ rows: CarriedPosition[]; fault: string }>(() => {
  const f = form.value
  const found = props.source.conditions
  if (f.fromKg === null || f.toKg === null)
    return {
      rows: [],
      fault: 'Give both riding weights: body, kit and water. They stay on this device’s screen.',
    }
  const usual = { airTempC: 15, altitudeM: 300 }
  const from = {
    ridingMassKg: f.fromKg,
    airTempC: found?.airTempC ?? f.airTempC ?? usual.airTempC,
    altitudeM: found?.altitudeM ?? f.altitudeM ?? usual.altitudeM,
    surface: found?.surface ?? null,
    steepness: 'usual' as const,
    pace: 'usual' as const,
  }
  const to = {
    ridingMassKg: f.toKg,
    airTempC: f.airTempC ?? from.airTempC,
    altitudeM: f.altitudeM ?? from.altitudeM,
    surface: f.surface,
    steepness: f.steepness,
    pace: f.pace,
  }
  try {
    const carried = carryOver(props.setup, props.source.units, from, to, choice.value)
    const bike = target.value
    const now = bike && garage.currentSetup(bike.id)
    if (!elsewhere.value || !bike || !now) return { rows: carried, fault: '' }
    const fitted = garage.units.filter((u) => u.id === bike.frontUnitId || u.id === bike.rearUnitId)
    return { rows: ontoOtherUnits(carried, props.source.units, fitted, now.positions), fault: '' }
  } catch (e) {
    return { rows: [], fault: e instanceof Error ? e.message : String(e) }
  }
})
/** What was said of there and nobody noted where it was found: it moves nothing. */
const unreckoned = computed(() => {
  const [found, f] = [props.source.conditions, form.value]
  const of = (key: keyof Conditions, word: string) =>
    f[key] !== null && (found?.[key] ?? null) === null ? word : null
  return [of('airTempC', 'the air'), of('altitudeM', 'the height'), of('surface', 'the ground')].filter(
    (w) => w !== null,
  )
})
const moved = computed(() => result.value.rows.filter((r) => r.shifts.length > 0))
/** A size in the unit the part is shown in. */
function sizeWords(a: Adjuster, size: number): string {
  if (a.kind === 'pressure') return sayDifference('pressure', size)
  if (a.kind === 'spring-rate') return sayDifference('springRate', size)
  return size.toFixed(1)
}
/** Whole pieces are there or not: no half spacer, no spring between two. */
const isWhole = (a: Adjuster) => ['spacer', 'spring-rate', 'lever'].includes(a.kind)
const spreadWords = (r: CarriedPosition) =>
  r.spread < 0.05 || isWhole(r.adjuster) ? '' : `± ${sizeWords(r.adjuster, r.spread)}`
/** "2.2 clicks slower: the spring is stiffer …"; a sign would mean the opposite on a part counted from open. */
function shiftWords(r: CarriedPosition, s: CarriedPosition['shifts'][number]): string {
  const unit = r.adjuster.kind === 'click' ? ' clicks' : r.adjuster.kind === 'turn' ? ' turns' : ''
  const effect = effectWord(r.adjuster, r.from, r.from + s.by)
  return `${sizeWords(r.adjuster, Math.abs(s.by))}${unit} ${effect}: ${s.why}`
}

async function save() {
  const bike = target.value
  const now = bike && garage.currentSetup(bike.id)
  if (!bike || !now) return
  const { words, settled } = props.source
  const setup: Setup = {
    ...now,
    id: uuid(),
    bikeId: bike.id,
    parentId: props.setup.id,
    dayId: null,
    madeAt: new Date().toISOString(),
    name: `Carried from ${words}`.slice(0, 80),
    positions: carriedPositions(result.value.rows),
    reason: {
      text: `Carried over from ${settled ? 'what was settled on ' : ''}${words}; a start, not yet ridden`,
      source: 'carried',
      linked: true,
      proposalId: null,
      undoes: null,
      fromSetupId: null,
    },
    foundIn: null,
    wanted: true,
  }
  busy.value = true
  const ok = await notices.attempt(() => garage.saveSetup(setup))
  busy.value = false
  if (!ok) return
  open.value = false
  notices.show(
    'Saved as a wanted start. Nothing is turned yet: make the turns in the garage, then check sag.',
    'done',
  )
  await router.push('/garage')
}
</script>

<template>
  <DialogFrame v-model:open="open" size="lg" title="Carry this setup over">
    <form class="field-grid" @submit.prevent="save">
      <TypedPicker v-model="form.bikeId" class="wide" label="To which bike and rider" :options="bikes" />
      <NumberField v-model="form.fromKg" label="Riding weight here" quantity="mass" />
      <NumberField v-model="form.toKg" label="Riding weight there" quantity="mass" />
      <NumberField v-model="form.airTempC" label="Air there" quantity="temperature" />
      <NumberField v-model="form.altitudeM" label="Altitude there" quantity="altitude" />
      <div>
        <label class="form-label" for="carry-ground">Surface there</label>
        <BFormSelect id="carry-ground" v-model="form.surface" :options="groundOptions" />
      </div>
      <div>
        <label class="form-label" for="carry-steep">Slope there</label>
        <BFormSelect id="carry-steep" v-model="form.steepness" :options="optionsOf(steepnessWords)" />
      </div>
      <div>
        <label class="form-label" for="carry-pace">Pace there</label>
        <BFormSelect id="carry-pace" v-model="form.pace" :options="optionsOf(paceWords)" />
      </div>
      <p v-if="result.fault" class="fault wide" role="alert">{{ result.fault }}</p>
      <div v-else class="wide rows">
        <p v-if="unreckoned.length" class="soft">
          {{ `Not counted, since nobody noted it where this setup was found: ${listOf(unreckoned)}.` }}
        </p>
        <p v-if="!moved.length" class="soft">
          {{ unreckoned.length ? 'Nothing else moves.' : 'Nothing moves: it is the same situation.' }}
        </p>
        <article v-for="r in moved" :key="r.adjuster.id">
          <h3>
            <EndMark :end="r.end" small />
            {{ `${r.end === 'front' ? 'Front' : 'Rear'} ${adjusterName(r.adjuster).toLowerCase()}` }}
            <b class="num">{{
              `${positionNumber(r.adjuster, r.from)} → ${positionWords(r.adjuster, r.to)} ${spreadWords(r)}`
            }}</b>
          </h3>
          <ul>
            <li v-for="s in r.shifts" :key="s.why" class="num">{{ shiftWords(r, s) }}</li>
          </ul>
          <p v-if="r.limit" class="caution">{{ r.limit }}</p>
        </article>
      </div>
      <p class="caution wide">
        A start, not a settled setup: check sag with the rider on the bike, never go above the printed
        maximum, and try it at low speed in a safe place first. The makers’ manuals come first.
      </p>
      <div class="wide acts">
        <BButton type="submit" variant="primary" :disabled="busy || !moved.length"
          >Save it as a start</BButton
        >
        <BButton variant="plain" @click="open = false">Cancel</BButton>
      </div>
    </form>
  </DialogFrame>
</template>

<style scoped>
.rows article {
  border-top: 1px solid var(--line);
  padding: 0.45rem 0;
}
h3 {
  font-size: 1rem;
  margin: 0;
  display: flex;
  flex-wrap: wrap;
  gap: 0.4rem;
  align-items: baseline;
}
h3 b {
  margin-left: auto;
}
ul {
  margin: 0.2rem 0 0;
  padding-left: 1.1rem;
  color: var(--ink-soft);
}
.acts {
  display: flex;
  gap: 0.4rem;
}
</style>
