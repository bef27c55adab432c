<script setup lang="ts">
import { computed, ref } from 'vue'
import { v7 as uuid } from 'uuid'
import { Bike } from '#contract/bike'
import type { End } from '#contract/common'
import type { SuspensionUnit } from '#contract/unit'
import { useForm } from '../../composables/useForm.ts'
import { useGarage } from '../../stores/garage.ts'
import NumberField from '../shell/NumberField.vue'
import TypedPicker from '../shell/TypedPicker.vue'
import { useNotices } from '../../stores/notices.ts'
import { geometryLever } from '../../support/unitTemplates.ts'
import { bikeKindWords, optionsOf } from '../../support/words.ts'
import { adjusterName } from '#core/adjusters/words'
import { assumedWords } from '../../support/assumed.ts'
import AssumedNote from './AssumedNote.vue'
import RecordForm from './RecordForm.vue'
import UnitForm from './UnitForm.vue'

const props = defineProps<{
  editing: Bike | null
  /** Whose bike a new one is. */
  riderId?: string
}>()
const open = defineModel<boolean>('open', { required: true })
const emit = defineEmits<{ saved: [bike: Bike] }>()
const garage = useGarage()
const notices = useNotices()
const { form, busy, submit, faultOf, otherFault } = useForm<Bike>({
  schema: Bike,
  key: () => `bike:${props.editing?.id ?? 'new'}`,
  fresh: () =>
    props.editing ?? {
      id: uuid(),
      version: 0,
      riderId: props.riderId ?? garage.riders[0]?.id ?? '',
      name: '',
      eBike: false,
      kind: 'trail',
      massKg: null,
      leverageCurve: null,
      tyres: {
        front: { name: '', widthMm: null, pressurePsi: null },
        rear: { name: '', widthMm: null, pressurePsi: null },
      },
      frontShareSeatedPct: null,
      frontShareReadyPct: null,
      frontUnitId: null,
      rearUnitId: null,
      rearWheelTravelMm: null,
      leverageStart: null,
      leverageEnd: null,
      currentSetupId: null,
      assumed: [],
      note: '',
    },
  open,
  onStale: garage.load,
  save: async (b, opened) => emit('saved', await garage.saveBike(b, opened)),
})
const riders = computed(() => garage.riders.map((r) => ({ value: r.id, text: r.name })))
const unitsAt = (end: End, none: string): { value: string | null; text: string }[] => [
  { value: null, text: none },
  ...garage.units.filter((u) => u.end === end).map((u) => ({ value: u.id, text: u.name })),
]
const making = ref<End>('front')
const unitOpen = ref(false)
const editingUnit = ref<SuspensionUnit | null>(null)
function makeUnit(end: End) {
  making.value = end
  editingUnit.value = null
  unitOpen.value = true
}
function editUnit(end: End) {
  making.value = end
  editingUnit.value = garage.unit(end === 'front' ? form.value.frontUnitId : form.value.rearUnitId) ?? null
  unitOpen.value = true
}
function unitSaved(u: SuspensionUnit) {
  if (u.end === 'front') form.value.frontUnitId = u.id
  else form.value.rearUnitId = u.id
}
const shown = [
  'name',
  'massKg',
  'rearWheelTravelMm',
  'leverageStart',
  'leverageEnd',
  'frontShareSeatedPct',
  'frontShareReadyPct',
  ...(['front', 'rear'] as const).flatMap((e) => [`tyres.${e}.pressurePsi`, `tyres.${e}.widthMm`]),
]
const wheels = [
  { end: 'front', title: 'Front' },
  { end: 'rear', title: 'Rear' },
] as const
/** Rows "shaft mm, ratio"; what cannot be read is refused by the schema with its own sentence. */
const curveText = computed(
  () => form.value.leverageCurve?.map((p) => `${p.shaftMm} ${p.ratio}`).join('\n') ?? '',
)
function readCurve(text: string) {
  const rows = text
    .split('\n')
    .map((l) => l.trim())
    .filter(Boolean)
    .map((l) =>
      l
        .replace(/(\d),(\d)/g, '$1.$2')
        .split(/[\s;]+/)
        .map(Number),
    )
  form.value.leverageCurve = rows.length
    ? rows.map(([shaftMm = NaN, ratio = NaN]) => ({ shaftMm, ratio }))
    : null
}
async function addLever(end: End, name: string, min: number, max: number, step: number) {
  const unit = garage.unit(end === 'front' ? form.value.frontUnitId : form.value.rearUnitId)
  if (!unit) return
  if (unit.adjusters.some((a) => a.kind === 'custom' && a.name === name))
    return notices.show(`${name} is already there.`)
  const ok = await notices.attempt(() =>
    garage.saveUnit({ ...unit, adjusters: [...unit.adjusters, geometryLever(name, min, max, step)] }),
  )
  if (ok) notices.show(`${name} was added; then “Record current settings”.`)
}
</script>

<template>
  <RecordForm
    v-model:open="open"
    :title="editing ? 'Bike' : 'New bike'"
    save-label="Save bike"
    size="lg"
    :busy="busy"
    :fault="otherFault(shown)"
    @submit="submit"
  >
    <AssumedNote :of="assumedWords(form, adjusterName)" @right="form.assumed = []" />
    <div>
      <label class="form-label" for="bike-name">Name</label>
      <BFormInput id="bike-name" v-model="form.name" placeholder="150 mm trail bike" autocomplete="off" />
      <p v-if="faultOf('name')" class="fault" role="alert">{{ faultOf('name') }}</p>
    </div>
    <TypedPicker v-model="form.riderId" label="Rider" :options="riders" />
    <div>
      <label class="form-label" for="bike-kind">Use</label>
      <BFormSelect id="bike-kind" v-model="form.kind" :options="optionsOf(bikeKindWords)" />
    </div>
    <NumberField v-model="form.massKg" label="Bike, weight" quantity="mass" :fault="faultOf('massKg')" />
    <label class="check"
      ><input v-model="form.eBike" type="checkbox" class="form-check-input" /> E-bike</label
    >
    <div class="wide unit">
      <TypedPicker
        v-model="form.frontUnitId"
        label="Fork"
        :options="unitsAt('front', 'rigid, or not yet made')"
      />
      <BButton variant="plain" @click="makeUnit('front')">New fork</BButton>
      <BButton v-if="form.frontUnitId" variant="plain" @click="editUnit('front')">Edit</BButton>
    </div>
    <div class="wide unit">
      <TypedPicker v-model="form.rearUnitId" label="Shock" :options="unitsAt('rear', 'none: hardtail')" />
      <BButton variant="plain" @click="makeUnit('rear')">New shock</BButton>
      <BButton v-if="form.rearUnitId" variant="plain" @click="editUnit('rear')">Edit</BButton>
    </div>
    <template v-if="form.rearUnitId">
      <NumberField
        v-model="form.rearWheelTravelMm"
        label="Rear wheel travel"
        quantity="length"
        :fault="faultOf('rearWheelTravelMm')"
      />
      <NumberField
        v-model="form.leverageStart"
        label="Leverage, extended"
        hint="wheel mm per shaft mm; leave empty if not known"
        :fault="faultOf('leverageStart')"
      />
      <NumberField v-model="form.leverageEnd" label="Leverage, compressed" :fault="faultOf('leverageEnd')" />
    </template>
    <details v-if="form.rearUnitId" class="wide">
      <summary>
        {{
          form.leverageCurve ? `Leverage curve: ${form.leverageCurve.length} points` : 'Leverage curve: none'
        }}
      </summary>
      <label class="form-label" for="bike-curve">Shaft mm and wheel mm per shaft mm, a row each</label>
      <BFormTextarea
        id="bike-curve"
        :model-value="curveText"
        rows="4"
        placeholder="0 2.95&#10;20 2.7&#10;55 2.4"
        @change="(e: Event) => readCurve((e.target as HTMLTextAreaElement).value)"
      />
    </details>
    <details class="wide">
      <summary>Tyres, weight on the wheels, geometry</summary>
      <div class="field-grid">
        <template v-for="e in wheels" :key="e.end">
          <div>
            <label class="form-label" :for="`tyre-${e.end}`">{{ e.title }} tyre</label>
            <BFormInput :id="`tyre-${e.end}`" v-model="form.tyres[e.end].name" autocomplete="off" />
          </div>
          <NumberField
            v-model="form.tyres[e.end].pressurePsi"
            :label="`${e.title} tyre, pressure`"
            quantity="pressure"
            :fault="faultOf(`tyres.${e.end}.pressurePsi`)"
          />
          <NumberField
            v-model="form.tyres[e.end].widthMm"
            :label="`${e.title} tyre, width`"
            quantity="length"
            :fault="faultOf(`tyres.${e.end}.widthMm`)"
          />
        </template>
        <NumberField
          v-model="form.frontShareSeatedPct"
          label="On the front wheel, seated"
          unit="%"
          hint="from two scales; usually 40"
          :fault="faultOf('frontShareSeatedPct')"
        />
        <NumberField
          v-model="form.frontShareReadyPct"
          label="On the front wheel, standing ready"
          unit="%"
          hint="usually 47"
          :fault="faultOf('frontShareReadyPct')"
        />
        <p class="wide soft">
          Bar spacers, fork legs in the crowns, a shock mount: changes like any other. They are kept with the
          fork or shock and logged on the day.
        </p>
        <div class="wide acts">
          <BButton v-if="form.frontUnitId" variant="plain" @click="addLever('front', 'Bar height', 0, 40, 5)"
            >Add bar height</BButton
          >
          <BButton
            v-if="form.frontUnitId"
            variant="plain"
            @click="addLever('front', 'Fork legs in the crowns', 0, 20, 1)"
            >Add fork legs</BButton
          >
          <BButton v-if="form.rearUnitId" variant="plain" @click="addLever('rear', 'Shock mount', 0, 10, 5)"
            >Add shock mount</BButton
          >
        </div>
      </div>
    </details>
    <template #beside>
      <UnitForm v-model:open="unitOpen" :end="making" :editing="editingUnit" @saved="unitSaved" />
    </template>
  </RecordForm>
</template>

<style scoped>
.unit {
  display: flex;
  gap: 0.5rem;
  align-items: end;
}
.unit > div {
  flex: 1;
}
.check {
  display: flex;
  gap: 0.5rem;
  align-items: center;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 0.5rem;
}
</style>
