<script setup lang="ts">
import { computed, ref, useId } from 'vue'
import { chosenNumber, type Quantity } from '#core/units/choice'
import { typedNumber } from '#core/units/typed'
import { useUnits } from '../../composables/useUnits.ts'

/**
 * A number with its unit; takes a comma or a point, and its unit; empty is null. With a quantity the model is canonical and the
 * person reads and types their own unit.
 */
const props = defineProps<{
  label: string
  unit?: string
  quantity?: Quantity
  hint?: string
  fault?: string | null
  placeholder?: string
}>()
const model = defineModel<number | null>({ required: true })

const id = useId()
const { units } = useUnits()
const unitShown = computed(() => (props.quantity ? units.value[props.quantity] : props.unit))
/** What is being typed: a number that comes in meanwhile, from a list on its way or another device, does not replace it. */
const typing = ref<string | null>(null)
const shown = computed(() => {
  if (typing.value !== null) return typing.value
  if (model.value === null || Number.isNaN(model.value)) return ''
  // Two places finer than it is said, so that what was typed in another unit comes back as typed.
  return props.quantity ? chosenNumber(props.quantity, model.value, units.value, 2) : String(model.value)
})
const textOf = (e: Event) => (e.target as HTMLInputElement).value
function take(e: Event) {
  const text = textOf(e)
  typing.value = null
  model.value = typedNumber(text, props.quantity, units.value, props.unit)
}
const broken = computed(() =>
  Number.isNaN(model.value)
    ? unitShown.value
      ? `Enter a number in ${unitShown.value}.`
      : 'Enter a number.'
    : (props.fault ?? null),
)
</script>

<template>
  <div>
    <label class="form-label" :for="id">{{ label }}</label>
    <div class="box">
      <input
        :id="id"
        class="form-control num"
        :class="{ 'is-invalid': broken }"
        inputmode="decimal"
        autocomplete="off"
        :value="shown"
        :placeholder="placeholder"
        :aria-invalid="broken ? true : undefined"
        :aria-describedby="`${id}-more`"
        @input="typing = textOf($event)"
        @change="take"
        @blur="typing !== null && take($event)"
      />
      <span v-if="unitShown" class="unit">{{ unitShown }}</span>
    </div>
    <p
      :id="`${id}-more`"
      class="more small"
      :class="broken ? 'fault' : 'soft'"
      :role="broken ? 'alert' : undefined"
    >
      {{ broken ?? hint }}
    </p>
  </div>
</template>

<style scoped>
.box {
  position: relative;
}
.box input {
  padding-right: 3.2rem;
  background-image: none;
}
.unit {
  position: absolute;
  right: 0.8rem;
  top: 50%;
  translate: 0 -50%;
  color: var(--ink-soft);
}
.more {
  margin: 0.15rem 0 0;
}
.fault {
  color: var(--rust);
  font-weight: 600;
}
</style>
