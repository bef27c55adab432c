<script setup lang="ts">
import { unitsOf, type Quantity } from '#core/units/choice'
import { useWho } from '../../composables/useWho.ts'
import { useUnits } from '../../composables/useUnits.ts'
import DialogFrame from './DialogFrame.vue'

const open = defineModel<boolean>('open', { required: true })
const { units, choose } = useUnits()
const words: Record<Quantity, string> = {
  pressure: 'Air pressure',
  length: 'Travel and sag',
  mass: 'Weight',
  temperature: 'Temperature',
  springRate: 'Spring rate',
  altitude: 'Altitude',
}
const { who } = useWho()
const rows = Object.keys(words) as Quantity[]
</script>

<template>
  <DialogFrame v-model:open="open" title="This device">
    <label class="form-label" for="who">Whose hands are at this device</label>
    <BFormInput
      id="who"
      v-model="who"
      maxlength="80"
      placeholder="stands beside what is set and read here"
      autocomplete="off"
    />
    <p class="soft">Units you read and type. Only how values are shown.</p>
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
  </DialogFrame>
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
