<script setup lang="ts">
import { useId } from 'vue'
import type { CalibrationWay } from '#core/devices/calibration'

/** The two ways to calibrate a chamber, with what each costs. */
const way = defineModel<CalibrationWay>({ required: true })
const name = useId()
const ways: { value: CalibrationWay; title: string; about: string }[] = [
  {
    value: 'emptied',
    title: 'Emptied',
    about: 'All air out, pressed to the very end. The surest; the pressure is to be set again.',
  },
  {
    value: 'held',
    title: 'As it is ridden',
    about: 'Nothing is let out: three depths are held and read off the ring. Tells how far it may be off.',
  },
]
</script>

<template>
  <fieldset class="ways">
    <legend class="form-label">How</legend>
    <label v-for="w in ways" :key="w.value">
      <input v-model="way" type="radio" class="form-check-input" :name="name" :value="w.value" />
      <span
        ><b>{{ w.title }}</b> <span class="soft small">{{ w.about }}</span></span
      >
    </label>
  </fieldset>
</template>

<style scoped>
.ways {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 0.3rem 0.8rem;
  margin-bottom: 0.4rem;
}
legend {
  grid-column: 1 / -1;
}
label {
  display: flex;
  gap: 0.5rem;
  min-height: var(--touch);
}
@media (max-width: 560px) {
  .ways {
    grid-template-columns: 1fr;
  }
}
</style>
