<script setup lang="ts">
import { computed } from 'vue'
import type { SpringNeed } from '#core/care/pieces'
import { useShelf } from '../../composables/useShelf.ts'
import { useGarage } from '../../stores/garage.ts'

/** Whether a spring that a change asks for lies around, and whose it is. */
const props = defineProps<{ need: SpringNeed; bikeId: string }>()
const garage = useGarage()
const { needWords } = useShelf()
const words = computed(() => needWords(props.need, garage.bike(props.bikeId)?.riderId ?? null))
</script>

<template>
  <p class="num">{{ words }}</p>
</template>
