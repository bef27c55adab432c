<script setup lang="ts">
import { computed } from 'vue'
import { v7 as uuid } from 'uuid'
import type { Adjuster } from '#contract/adjuster'
import { Baseline } from '#contract/baseline'
import type { Bike } from '#contract/bike'
import type { End } from '#contract/common'
import { ShiftRole } from '#contract/profile'
import { countBaseWords, fromCount, toCount } from '#core/adjusters/count'
import { adjusterRange, canStandAt } from '#core/adjusters/range'
import { adjusterName, positionWords, roleWords } from '#core/adjusters/words'
import { forRider } from '#core/carry/ofAnotherRider'
import { InputError } from '#core/errors'
import { saidRidingMassKg } from '#core/spring/load'
import { useForm } from '../../composables/useForm.ts'
import { useUnits } from '../../composables/useUnits.ts'
import { useGarage } from '../../stores/garage.ts'
import { sourceWords } from '../../support/benchWords.ts'
import { localToday } from '../../support/dates.ts'
import { dayFaultAt } from '../../support/dayFault.ts'
import { optionsOf } from '../../support/words.ts'
import EndMark from '../shell/EndMark.vue'
import NumberField from '../shell/NumberField.vue'
import RecordForm from './RecordForm.vue'

/** What somebody recommends for this bike; only what they speak of needs to be filled in. */
const props = defineProps<{ bike: Bike; editing: Baseline | null }>()
const open = defineModel<boolean>('open', { required: true })
const garage = useGarage()
const { units: choice } = useUnits()
const { form, fault, busy, submit, faultOf, otherFault } = useForm<Baseline>({
  schema: Baseline,
  key: () => `starting-point:${props.editing?.id ?? props.bike.id}`,
  fresh: () =>
    props.editing ?? {
      id: uuid(),
      version: 0,
      bikeId: props.bike.id,
      name: '',
      source: 'unit-maker',
      asOf: localToday(),
      riderMassKg: null,
      sagFrontPct: null,
      sagRearPct: null,
      positions: [],
      countedFrom: null,
      notHere: [],
      score: null,
      note: '',
    },
  open,
  onStale: garage.load,
  save: garage.saveBaseline,
  check: (b) => dayFaultAt('asOf', b.asOf),
})
const units = computed(() => garage.unitsOf(props.bike))
const quantityOf = (a: Adjuster) =>
  a.kind === 'pressure'
    ? ('pressure' as const)
    : a.kind === 'spring-rate'
      ? ('springRate' as const)
      : undefined
/** The dial as they count it. */
const counted = (a: Adjuster): Adjuster =>
  form.value.countedFrom && (a.kind === 'click' || a.kind === 'turn')
    ? { ...a, countBase: form.value.countedFrom }
    : a
const bases: { value: Baseline['countedFrom']; text: string }[] = [
  { value: null, text: 'as each dial here' },
  { value: 'closed-0', text: 'from closed, stop is 0' },
  { value: 'closed-1', text: 'from closed, stop is 1' },
  { value: 'open', text: 'from open' },
]
function valueOf(a: Adjuster): number | null {
  const at = form.value.positions.find((p) => p.adjusterId === a.id)?.value
  return at === undefined ? null : toCount(counted(a), at)
}
function set(end: End, a: Adjuster, count: number | null) {
  fault.value = null
  const rest = form.value.positions.filter((p) => p.adjusterId !== a.id)
  if (count === null) return (form.value.positions = rest)
  try {
    const value = fromCount(counted(a), count)
    if (!canStandAt(a, value))
      throw new InputError('clicks.out-of-range', { got: count, max: adjusterRange(a).max })
    form.value.positions = [...rest, { end, adjusterId: a.id, value }]
  } catch (e) {
    if (!(e instanceof InputError)) throw e
    const r = adjusterRange(a)
    const [low, high] = [r.min, r.max].map((v) => positionWords(counted(a), v, choice.value))
    fault.value = {
      path: '',
      message: `${adjusterName(a)} goes from ${low} to ${high}; nothing was changed.`,
    }
  }
}
/** Said while it is typed: what is shown later is not what was written. */
const refusal = computed(() => {
  const rider = garage.rider(props.bike.riderId)
  return rider ? forRider(form.value, units.value, saidRidingMassKg(rider), choice.value).words : null
})
const levers = (a: Adjuster) =>
  a.kind === 'lever'
    ? [{ value: null, text: 'not said' }, ...a.positions.map((text, value) => ({ value, text }))]
    : []
const missingRoles = (end: End) => {
  const there = units.value.find((u) => u.end === end)?.adjusters ?? []
  return ShiftRole.options
    .filter((role) => !there.some((a) => a.role === role))
    .map((role) => ({ value: role, text: roleWords[role] }))
}
function addMissing(end: End) {
  const [first] = missingRoles(end)
  if (first) form.value.notHere.push({ end, role: first.value, says: '' })
}
const shown = [
  'score.value',
  'score.style',
  ...Array.from({ length: 12 }, (_, i) => `notHere.${i}.says`),
  'name',
  'asOf',
  'riderMassKg',
  'sagFrontPct',
  'sagRearPct',
]
</script>

<template>
  <RecordForm
    v-model:open="open"
    :title="`${bike.name}: a recommended start`"
    save-label="Save this start"
    size="lg"
    :busy="busy"
    :fault="otherFault(shown)"
    @submit="submit"
  >
    <div>
      <label class="form-label" for="start-name">Name</label>
      <BFormInput id="start-name" v-model="form.name" placeholder="manual, page 12" autocomplete="off" />
      <p v-if="faultOf('name')" class="fault" role="alert">{{ faultOf('name') }}</p>
    </div>
    <div>
      <label class="form-label" for="start-source">Who says so</label>
      <BFormSelect id="start-source" v-model="form.source" :options="optionsOf(sourceWords)" />
    </div>
    <div>
      <label class="form-label" for="start-date">As of</label>
      <BFormInput id="start-date" v-model="form.asOf" type="date" />
      <p v-if="faultOf('asOf')" class="fault" role="alert">
        {{ form.asOf ? faultOf('asOf') : 'Give the day.' }}
      </p>
    </div>
    <NumberField
      v-if="form.source === 'another-rider'"
      v-model="form.riderMassKg"
      label="What that rider weighs, with kit"
      quantity="mass"
      :fault="faultOf('riderMassKg')"
    />
    <div>
      <label class="form-label" for="start-base">They count clicks</label>
      <BFormSelect id="start-base" v-model="form.countedFrom" :options="bases" />
    </div>
    <p v-if="refusal" class="caution wide">{{ refusal }}</p>
    <template v-for="u in units" :key="u.id">
      <h4 class="wide"><EndMark :end="u.end" /> {{ u.end === 'front' ? 'Front' : 'Rear' }}, {{ u.name }}</h4>
      <NumberField
        :model-value="u.end === 'front' ? form.sagFrontPct : form.sagRearPct"
        label="Sag"
        unit="%"
        :fault="faultOf(u.end === 'front' ? 'sagFrontPct' : 'sagRearPct')"
        @update:model-value="(v) => (u.end === 'front' ? (form.sagFrontPct = v) : (form.sagRearPct = v))"
      />
      <template v-for="a in u.adjusters" :key="a.id">
        <label v-if="a.kind === 'lever'" class="form-label"
          >{{ adjusterName(a)
          }}<BFormSelect
            :model-value="valueOf(a)"
            :options="levers(a)"
            @update:model-value="(v) => set(u.end, a, v as number | null)"
        /></label>
        <NumberField
          v-else
          :model-value="valueOf(a)"
          :label="adjusterName(a)"
          :quantity="quantityOf(a)"
          :hint="countBaseWords(counted(a))"
          @update:model-value="(v) => set(u.end, a, v)"
        />
      </template>
      <template v-for="(x, i) in form.notHere" :key="i">
        <div v-if="x.end === u.end" class="wide missing">
          <label class="form-label"
            >Not on this unit<BFormSelect v-model="x.role" :options="missingRoles(u.end)"
          /></label>
          <label class="form-label"
            >They say<BFormInput v-model="x.says" placeholder="3 from closed" autocomplete="off"
          /></label>
          <BButton variant="plain" @click="form.notHere.splice(i, 1)">Take it out</BButton>
          <p v-if="faultOf(`notHere.${i}.says`)" class="fault" role="alert">
            {{ faultOf(`notHere.${i}.says`) }}
          </p>
        </div>
      </template>
      <p class="wide more">
        <BButton variant="plain" @click="addMissing(u.end)">They speak of a dial that is not here</BButton>
      </p>
    </template>
    <template v-if="form.score">
      <NumberField
        :model-value="form.score.value"
        label="Score they give"
        hint="their number, as they show it"
        :fault="faultOf('score.value')"
        @update:model-value="(v) => form.score && (form.score.value = v ?? NaN)"
      />
      <div>
        <label class="form-label" for="start-style">For the style they call</label>
        <BFormInput id="start-style" v-model="form.score.style" autocomplete="off" />
        <p v-if="faultOf('score.style')" class="fault" role="alert">{{ faultOf('score.style') }}</p>
      </div>
      <BButton variant="plain" @click="form.score = null">No score</BButton>
    </template>
    <p v-else class="wide more">
      <BButton variant="plain" @click="form.score = { value: NaN, style: '' }">They give a score</BButton>
    </p>
  </RecordForm>
</template>

<style scoped>
.missing {
  display: flex;
  flex-wrap: wrap;
  gap: 0.5rem;
  align-items: end;
}
.missing label {
  flex: 1 1 150px;
  margin: 0;
}
.missing p {
  flex-basis: 100%;
}
.more {
  margin: 0;
}
</style>
