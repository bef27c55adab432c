<script setup lang="ts">
import { ref } from 'vue'
import type { Adjuster } from '#contract/adjuster'
import type { End } from '#contract/common'
import { SuspensionUnit } from '#contract/unit'
import { useForm } from '../../composables/useForm.ts'
import { useGarage } from '../../stores/garage.ts'
import { newAdjuster, unitTemplates } from '../../support/unitTemplates.ts'
import NumberField from '../shell/NumberField.vue'
import AdjusterRow from './AdjusterRow.vue'

const props = defineProps<{ end: End; editing: SuspensionUnit | null }>()
const open = defineModel<boolean>('open', { required: true })
const emit = defineEmits<{ saved: [unit: SuspensionUnit] }>()
const garage = useGarage()
const template = ref('air-2')
const { form, busy, submit, faultOf, otherFault } = useForm<SuspensionUnit>({
  schema: SuspensionUnit,
  key: () => `unit:${props.editing?.id ?? props.end}`,
  fresh: () => props.editing ?? make('air-2'),
  open,
  onStale: garage.load,
  save: async (u) => emit('saved', await garage.saveUnit(u)),
})
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
function make(key: string) {
  return (unitTemplates(props.end).find((t) => t.key === key) ?? unitTemplates(props.end)[0]).make()
}
const startFrom = () => (form.value = make(template.value))
const add = () => form.value.adjusters.push(newAdjuster(adding.value, props.end))
const remove = (i: number) => form.value.adjusters.splice(i, 1)
const replace = (i: number, a: Adjuster) => form.value.adjusters.splice(i, 1, a)
const springs = [
  { value: 'air', text: 'air' },
  { value: 'coil', text: 'coil' },
]
const shown = ['name', 'strokeMm', 'sagTargetPct']
</script>

<template>
  <BModal
    v-model="open"
    lazy
    unmount-lazy
    no-animation
    :title="`${editing ? '' : 'New '}${end === 'front' ? 'fork' : 'shock'}`"
    size="xl"
    no-footer
  >
    <form class="field-grid" @submit.prevent="submit">
      <div v-if="!editing" class="wide">
        <label class="form-label" for="unit-template">Start from</label>
        <BFormSelect
          id="unit-template"
          v-model="template"
          :options="unitTemplates(end).map((t) => ({ value: t.key, text: t.label }))"
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
      <label class="wide check"
        ><input v-model="form.revalved" type="checkbox" class="form-check-input" /> Re-valved inside: its
        dials no longer mean the maker’s chart</label
      >
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
      <p v-if="otherFault(shown)" class="fault wide" role="alert">{{ otherFault(shown) }}</p>
      <div class="wide">
        <BButton type="submit" variant="primary" :disabled="busy"
          >Save {{ end === 'front' ? 'fork' : 'shock' }}</BButton
        >
      </div>
    </form>
  </BModal>
</template>

<style scoped>
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
.fault {
  color: var(--rust);
  font-weight: 600;
  margin: 0.2rem 0 0;
}
</style>
