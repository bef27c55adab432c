<script setup lang="ts">
import type { Lacking } from '#core/setup/ownNumbers'
import NumbersOf from './NumbersOf.vue'

/** A figure one plays with: what it is, its sliders, and what they make of it, in words for everybody. */
defineProps<{
  title: string
  /** For those that open with the numbers of a bike: why they do not. */
  numbers?: { lacking: Lacking | null }
}>()
</script>

<template>
  <section class="card-paper figure" :aria-label="title">
    <h2>{{ title }}</h2>
    <NumbersOf v-if="numbers" :lacking="numbers.lacking" />
    <slot />
    <div v-if="$slots.sliders" class="sliders"><slot name="sliders" /></div>
    <p class="tells num" role="status"><slot name="tells" /></p>
    <p v-if="$slots.taken" class="soft small taken"><slot name="taken" /></p>
  </section>
</template>

<style scoped>
.figure {
  padding: 0.8rem 1rem;
  margin: 1rem 0;
  max-width: 760px;
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 0.4rem;
}
.sliders {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(190px, 1fr));
  gap: 0.3rem 1rem;
}
p {
  margin: 0;
}
.tells {
  font-weight: 650;
}
</style>
