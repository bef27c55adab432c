<script setup lang="ts">
import CautionList from '../bench/CautionList.vue'
import { defineAsyncComponent, ref, watch, type Component } from 'vue'
import type { FigureKey, TextPage } from '../../handbook/page.ts'
import { useFigureBike } from '../../composables/useOwnNumbers.ts'
import { useGarage } from '../../stores/garage.ts'
import DialSigns from './DialSigns.vue'
import SeeAlso from './SeeAlso.vue'

// Charts come with the page that has one.
const figures: Record<FigureKey, Component> = {
  'let-go': defineAsyncComponent(() => import('./figures/LetGo.vue')),
  'row-of-hits': defineAsyncComponent(() => import('./figures/RowOfHits.vue')),
  'ride-again': defineAsyncComponent(() => import('./figures/RideAgain.vue')),
  'two-speeds': defineAsyncComponent(() => import('./figures/TwoSpeeds.vue')),
  'air-spring': defineAsyncComponent(() => import('./figures/AirSpring.vue')),
  'negative-chamber': defineAsyncComponent(() => import('./figures/NegativeChamber.vue')),
  'sag-on-scale': defineAsyncComponent(() => import('./figures/SagOnScale.vue')),
  'leverage-fall': defineAsyncComponent(() => import('./figures/LeverageFall.vue')),
  'heat-and-height': defineAsyncComponent(() => import('./figures/HeatAndHeight.vue')),
  'past-the-best': defineAsyncComponent(() => import('./figures/PastTheBest.vue')),
  'count-three': defineAsyncComponent(() => import('./figures/CountThree.vue')),
}
/** A page of text, with its lists and cautions. */
const props = defineProps<{ page: TextPage }>()

const garage = useGarage()
const { bikeId } = useFigureBike()
/** Figures open with what is on a bike: they wait for the garage, or for the word that it cannot be had. */
const ready = ref(garage.loaded)
watch(
  () => props.page.figure,
  async (figure) => {
    if (!figure || ready.value) return
    await garage.load().catch(() => undefined)
    ready.value = true
  },
  { immediate: true },
)
</script>

<template>
  <article class="with-side">
    <div>
      <h1>{{ page.title }}</h1>
      <p v-for="(t, i) in page.text" :key="i" :class="{ lead: i === 0 }">{{ t }}</p>
      <component :is="figures[page.figure]" v-if="page.figure && ready" :key="`${page.key} ${bikeId}`" />
      <section v-for="l in page.lists ?? []" :key="l.title">
        <h2>{{ l.title }}</h2>
        <ul>
          <li v-for="x in l.items" :key="x">{{ x }}</li>
        </ul>
      </section>
      <section v-if="page.signs">
        <h2>Signs on it</h2>
        <DialSigns :of="page.signs" />
      </section>
    </div>
    <aside aria-label="Cautions, and further pages">
      <CautionList v-if="page.cautions?.length" :of="page.cautions" />
      <SeeAlso :pages="page.see ?? []" />
    </aside>
  </article>
</template>

<style scoped>
.lead {
  font-size: 1.08rem;
}
p {
  max-width: 62ch;
}
section {
  margin-top: 1rem;
}
ul {
  padding-left: 1.1rem;
}
</style>
