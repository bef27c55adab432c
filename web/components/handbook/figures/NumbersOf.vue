<script setup lang="ts">
import type { Lacking } from '#core/setup/ownNumbers'
import { useFigureBike } from '../../../composables/useOwnNumbers.ts'
import { lackingWords } from '../../../support/lackingWords.ts'
import TypedPicker from '../../shell/TypedPicker.vue'

/** Whose numbers a figure opened with, and why not those of the bike that was asked for. */
defineProps<{ lacking: Lacking | null }>()
const { bikeId, bikes } = useFigureBike()
</script>

<template>
  <div v-if="bikes.length > 1" class="of">
    <TypedPicker v-model="bikeId" label="Opens with the numbers of" :options="bikes" />
    <p v-if="lacking" class="soft small">{{ `${lackingWords[lacking]} So the numbers are invented.` }}</p>
  </div>
</template>

<style scoped>
.of {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(190px, 1fr));
  gap: 0.3rem 1rem;
  align-items: end;
}
p {
  margin: 0;
}
</style>
