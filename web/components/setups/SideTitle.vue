<script setup lang="ts">
import { computed } from 'vue'
import { useUnits } from '../../composables/useUnits.ts'
import type { ComparedSide } from '../../support/setupSides.ts'
import { madeWords, shortRatedWords, shortRideWords, stateWords } from '../../support/setupWords.ts'
import PegSign from './PegSign.vue'

/** A setup in two lines, with the sign its pegs have on the rails. */
const props = defineProps<{ side: ComparedSide; sign: 'first' | 'second' }>()
const { units } = useUnits()
const line = computed(() => {
  const { place, note } = props.side
  if (!place) return note
  const [ride] = place.rides
  const when = place.rides.length ? shortRideWords(ride, units.value) : madeWords(place.setup)
  const isBare = place.state === 'wanted' || place.state === 'noted'
  const rated = isBare ? stateWords[place.state] : shortRatedWords(place)
  return `${when} · ${rated}`
})
</script>

<template>
  <div class="side">
    <PegSign :sign="sign" />
    <div>
      <h2>{{ side.words }}</h2>
      <p class="small soft num">{{ line }}</p>
    </div>
  </div>
</template>

<style scoped>
.side {
  display: flex;
  gap: 0.6rem;
}
h2 {
  font-size: 1.1rem;
}
p {
  margin: 0;
}
</style>
