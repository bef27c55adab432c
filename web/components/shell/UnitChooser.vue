<script setup lang="ts">
import { unitsOf, type Quantity } from '#core/units/choice'
import { useUnits } from '../../composables/useUnits.ts'

const open = defineModel<boolean>('open', { required: true })
const { units, choose } = useUnits()
const words: Record<Quantity, string> = {
  pressure: 'Air pressure',
  length: 'Travel and sag',
  mass: 'Weight',
  temperature: 'Temperature',
  springRate: 'Spring rate',
  altitude: 'Height',
}
const rows = Object.keys(words) as Quantity[]
</script>

<template>
  <BModal v-model="open" lazy unmount-lazy no-animation title="Units you read and type" no-footer>
    <p class="soft">For this device only. What is stored does not change.</p>
    <fieldset v-for="q in rows" :key="q">
      <legend>{{ words[q] }}</legend>
      <span class="choice">
        <button
          v-for="u in unitsOf[q]"
          :key="u"
          type="button"
          :aria-pressed="units[q] === u"
          @click="choose({ [q]: u })"
        >
          {{ u }}
        </button>
      </span>
    </fieldset>
  </BModal>
</template>

<style scoped>
fieldset {
  display: grid;
  grid-template-columns: 1fr auto;
  align-items: center;
  gap: 0.6rem;
  border-bottom: 1px solid var(--line);
  padding: 0.3rem 0;
}
legend {
  float: left;
  margin: 0;
  font-size: 1rem;
  width: auto;
}
</style>
