<script setup lang="ts">
import { computed } from 'vue'
import { v7 as uuid } from 'uuid'
import type { Adjuster } from '#contract/adjuster'
import { Baseline } from '#contract/baseline'
import type { Bike } from '#contract/bike'
import type { End } from '#contract/common'
import { countBaseWords, fromCount, toCount } from '#core/adjusters/count'
import { adjusterRange, canStandAt } from '#core/adjusters/range'
import { adjusterName, positionWords } from '#core/adjusters/words'
import { forRider } from '#core/carry/ofAnotherRider'
import { InputError } from '#core/errors'
import { ridingMassKg } from '#core/spring/load'
import { useForm } from '../../composables/useForm.ts'
import { useUnits } from '../../composables/useUnits.ts'
import { useGarage } from '../../stores/garage.ts'
import { sourceWords } from '../../support/benchWords.ts'
import { localToday } from '../../support/dates.ts'
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
      note: '',
    },
  open,
  onStale: garage.load,
  save: garage.saveBaseline,
})
const units = computed(() => garage.unitsOf(props.bike))
const quantityOf = (a: Adjuster) =>
  a.kind === 'pressure'
    ? ('pressure' as const)
    : a.kind === 'spring-rate'
      ? ('springRate' as const)
      : undefined
function valueOf(a: Adjuster): number | null {
  const at = form.value.positions.find((p) => p.adjusterId === a.id)?.value
  return at === undefined ? null : toCount(a, at)
}
function set(end: End, a: Adjuster, count: number | null) {
  fault.value = null
  const rest = form.value.positions.filter((p) => p.adjusterId !== a.id)
  if (count === null) return (form.value.positions = rest)
  try {
    const value = fromCount(a, count)
    if (!canStandAt(a, value))
      throw new InputError('clicks.out-of-range', { got: count, max: adjusterRange(a).max })
    form.value.positions = [...rest, { end, adjusterId: a.id, value }]
  } catch (e) {
    if (!(e instanceof InputError)) throw e
    const r = adjusterRange(a)
    const [low, high] = [r.min, r.max].map((v) => positionWords(a, v, choice.value))
    fault.value = {
      path: '',
      message: `${adjusterName(a)} goes from ${low} to ${high}; nothing was changed.`,
    }
  }
}
/** Said while it is typed: what is shown later is not what was written. */
const refusal = computed(() => {
  const rider = garage.rider(props.bike.riderId)
  return rider
    ? forRider(form.value, units.value, rider.bodyMassKg === null ? null : ridingMassKg(rider)).words
    : null
})
const levers = (a: Adjuster) =>
  a.kind === 'lever'
    ? [{ value: null, text: 'not said' }, ...a.positions.map((text, value) => ({ value, text }))]
    : []
const shown = ['name', 'asOf', 'riderMassKg', 'sagFrontPct', 'sagRearPct']
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
      <p v-if="faultOf('asOf')" class="fault" role="alert">Give the day.</p>
    </div>
    <NumberField
      v-if="form.source === 'another-rider'"
      v-model="form.riderMassKg"
      label="What that rider weighs, with kit"
      quantity="mass"
      :fault="faultOf('riderMassKg')"
    />
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
          :hint="countBaseWords(a)"
          @update:model-value="(v) => set(u.end, a, v)"
        />
      </template>
    </template>
  </RecordForm>
</template>
