<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Adjuster } from '#contract/adjuster'
import type { End } from '#contract/common'
import { SuspensionUnit } from '#contract/unit'
import { useForm } from '../../composables/useForm.ts'
import { useGarage } from '../../stores/garage.ts'
import { useNotices } from '../../stores/notices.ts'
import { copyOfUnit, newAdjuster, unitTemplates } from '../../support/unitTemplates.ts'
import NumberField from '../shell/NumberField.vue'
import TypedPicker from '../shell/TypedPicker.vue'
import AdjusterRow from './AdjusterRow.vue'
import AirSpringFields from './AirSpringFields.vue'
import ChartEditor from './ChartEditor.vue'
import { adjusterName, positionWords } from '#core/adjusters/words'
import { cannotStand } from '#core/setup/standing'
import { localToday } from '../../support/dates.ts'
import { dayFaultAt } from '../../support/dayFault.ts'
import { assumedWords } from '../../support/assumed.ts'
import AssumedNote from './AssumedNote.vue'
import RecordForm from './RecordForm.vue'

const props = defineProps<{ end: End; editing: SuspensionUnit | null }>()
const open = defineModel<boolean>('open', { required: true })
const emit = defineEmits<{ saved: [unit: SuspensionUnit] }>()
const garage = useGarage()
const notices = useNotices()
const template = ref('air-2')
/** Templates, then copies of what is already there. */
const startsFrom = computed(() => [
  ...unitTemplates(props.end).map((t) => ({ value: t.key, text: t.label })),
  ...garage.units.filter((u) => u.end === props.end).map((u) => ({ value: u.id, text: `copy of ${u.name}` })),
])
const { form, busy, submit, faultOf, otherFault } = useForm<SuspensionUnit>({
  schema: SuspensionUnit,
  key: () => `unit:${props.editing?.id ?? props.end}`,
  fresh: () => props.editing ?? make('air-2'),
  open,
  onStale: garage.load,
  save: async (u, opened) => {
    const lost = unreadBy(u)
    const saved = await garage.saveUnit(u, opened)
    if (lost) notices.show(lost)
    emit('saved', saved)
  },
  check: (u) => (u.revalved && u.revalvedOn ? dayFaultAt('revalvedOn', u.revalvedOn) : null),
})
/** What a new range leaves no place for, in a sentence; null: everything on the bikes can stand where it is written. */
function unreadBy(u: SuspensionUnit): string | null {
  const before = props.editing?.adjusters ?? []
  const names = garage.bikes
    .filter((b) => b.frontUnitId === u.id || b.rearUnitId === u.id)
    .flatMap((b) => cannotStand(garage.currentSetup(b.id) ?? { positions: [] }, [u]))
    .map(({ adjuster: a, value }) => {
      const was = before.find((x) => x.id === a.id) ?? a
      return `${adjusterName(a)} was written at ${positionWords(was, value)}, which it does not have now: where it stands is unread until it is counted.`
    })
  return names.length > 0 ? [...new Set(names)].join(' ') : null
}
const kinds = [
  { value: 'click', text: 'dial with clicks' },
  { value: 'turn', text: 'dial with turns' },
  { value: 'pressure', text: 'pressure' },
  { value: 'spacer', text: 'spacers' },
  { value: 'spring-rate', text: 'springs' },
  { value: 'lever', text: 'lever' },
  { value: 'custom', text: 'something else' },
]
const adding = ref<Adjuster['kind']>('click')
function make(key: string): SuspensionUnit {
  const copied = garage.units.find((u) => u.id === key)
  if (copied) return copyOfUnit(copied)
  return (unitTemplates(props.end).find((t) => t.key === key) ?? unitTemplates(props.end)[0]).make()
}
const startFrom = () => (form.value = make(template.value))
const add = () => form.value.adjusters.push(newAdjuster(adding.value, props.end))
const replace = (i: number, a: Adjuster) => form.value.adjusters.splice(i, 1, a)
const springs = [
  { value: 'air', text: 'air' },
  { value: 'coil', text: 'coil' },
]
const shown = ['name', 'strokeMm', 'sagTargetPct', 'serviceEveryDays', 'preloadPitchMm', 'revalvedOn']
const hasCollar = computed(() => form.value.adjusters.some((a) => a.role === 'preload'))
const owners = computed<{ value: string | null; text: string }[]>(() => [
  { value: null, text: 'the rider of its bike' },
  ...garage.riders.map((r) => ({ value: r.id, text: r.name })),
])
const lend = (to: string) =>
  (form.value.loan = to ? { to, since: form.value.loan?.since ?? localToday() } : null)
/** A dial taken away takes its charts with it. */
function remove(i: number) {
  const [gone] = form.value.adjusters.splice(i, 1)
  form.value.charts = form.value.charts.filter((c) => c.adjusterId !== gone.id)
}
</script>

<template>
  <RecordForm
    v-model:open="open"
    :title="`${editing ? 'Edit' : 'New'} ${end === 'front' ? 'fork' : 'shock'}`"
    :save-label="`Save ${end === 'front' ? 'fork' : 'shock'}`"
    size="xl"
    :busy="busy"
    :fault="otherFault(shown)"
    @submit="submit"
  >
    <AssumedNote :of="assumedWords(form, adjusterName)" @right="form.assumed = []" />
    <div v-if="!editing" class="wide">
      <label class="form-label" for="unit-template">Start from</label>
      <BFormSelect
        id="unit-template"
        v-model="template"
        :options="startsFrom"
        @update:model-value="startFrom"
      />
    </div>
    <div>
      <label class="form-label" for="unit-name">Name</label>
      <BFormInput id="unit-name" v-model="form.name" autocomplete="off" />
      <p v-if="faultOf('name')" class="fault" role="alert">{{ faultOf('name') }}</p>
    </div>
    <div>
      <label class="form-label" for="unit-spring">Spring</label>
      <BFormSelect id="unit-spring" v-model="form.spring" :options="springs" />
    </div>
    <NumberField
      v-model="form.strokeMm"
      :label="end === 'front' ? 'Travel' : 'Stroke of the shaft'"
      quantity="length"
      :hint="end === 'rear' ? 'the shock itself, not the wheel' : undefined"
      :fault="faultOf('strokeMm')"
    />
    <NumberField
      v-model="form.sagTargetPct"
      label="Sag target"
      unit="%"
      :hint="end === 'front' ? 'often 15 to 25' : 'often 25 to 30'"
      :fault="faultOf('sagTargetPct')"
    />
    <div>
      <label class="form-label" for="unit-id-note">Printed on the unit</label>
      <BFormInput
        id="unit-id-note"
        v-model="form.idNote"
        placeholder="to order parts by"
        autocomplete="off"
      />
    </div>
    <NumberField
      v-model="form.serviceEveryDays"
      label="Service every"
      unit="days"
      hint="empty: no reminder"
      :fault="faultOf('serviceEveryDays')"
    />
    <NumberField
      v-if="hasCollar"
      :model-value="form.preloadPitchMm"
      label="Collar, per turn"
      quantity="length"
      :fault="faultOf('preloadPitchMm')"
      @update:model-value="(v) => (form.preloadPitchMm = v ?? NaN)"
    />
    <label class="wide check"
      ><input v-model="form.revalved" type="checkbox" class="form-check-input" /> Re-valved inside: its dials
      no longer mean the maker’s chart</label
    >
    <div v-if="form.revalved">
      <label class="form-label" for="unit-revalved">Re-valved on</label>
      <BFormInput
        id="unit-revalved"
        :model-value="form.revalvedOn"
        type="date"
        @update:model-value="(v) => (form.revalvedOn = v ? String(v) : null)"
      />
      <p v-if="faultOf('revalvedOn')" class="fault" role="alert">{{ faultOf('revalvedOn') }}</p>
    </div>
    <TypedPicker v-model="form.ownerId" label="Whose" :options="owners" />
    <div class="lent">
      <label class="form-label"
        >Lent to
        <BFormInput
          :model-value="form.loan?.to ?? ''"
          placeholder="nobody"
          autocomplete="off"
          @update:model-value="(v) => lend(String(v ?? ''))"
      /></label>
      <label v-if="form.loan" class="form-label"
        >since <BFormInput v-model="form.loan.since" type="date"
      /></label>
    </div>
    <div class="wide list">
      <span class="form-label">What can be turned</span>
      <AdjusterRow
        v-for="(a, i) in form.adjusters"
        :key="a.id"
        :model-value="a"
        @update:model-value="(v) => replace(i, v)"
        @remove="remove(i)"
      />
      <div class="add">
        <BFormSelect v-model="adding" :options="kinds" aria-label="Kind of adjuster" />
        <BButton variant="plain" @click="add">Add it</BButton>
      </div>
    </div>
    <AirSpringFields v-if="form.spring === 'air'" v-model="form.airSpring" :end="end" :fault-of="faultOf" />
    <details class="wide">
      <summary>
        {{ form.charts.length ? `Makers’ charts: ${form.charts.length}` : 'Makers’ charts: none yet' }}
      </summary>
      <ChartEditor v-model="form.charts" :unit="form" />
    </details>
  </RecordForm>
</template>

<style scoped>
.lent {
  display: flex;
  flex-wrap: wrap;
  gap: 0.5rem;
}
.lent label {
  flex: 1 1 130px;
}
.list {
  display: grid;
  gap: 0.5rem;
}
.add,
.check {
  display: flex;
  gap: 0.5rem;
  align-items: center;
}
.add {
  max-width: 360px;
}
.add .btn {
  white-space: nowrap;
}
</style>
