<script setup lang="ts">
import { computed, ref } from 'vue'
import { normalFrom, seededRandom } from '#core/numeric/random'
import { useOwnReturn } from '../../../composables/useOwnReturn.ts'
import LineFigure, { type FigureLine } from '../../shell/LineFigure.vue'
import RangeField from '../../shell/RangeField.vue'
import FigureFrame from './FigureFrame.vue'

/** One dial, its best place hidden: ride, turn, ride, until it was too far on both sides. */
const { numbers, own, at: start, most, step, count, dialWords } = useOwnReturn(3)
const at = ref(start)
const luck = ref(1)
const scatter = 0.35
const ridden = ref<{ at: number; rating: number }[]>([])
/** Somewhere in the middle third. */
const best = computed(() => Math.round(most * (0.35 + 0.3 * seededRandom(luck.value * 104729)())))

function ride() {
  const random = seededRandom(luck.value * 7919 + ridden.value.length + 1)
  const raw = 8 - ((at.value - best.value) / 2.2) ** 2 + scatter * normalFrom(random)
  ridden.value = [
    ...ridden.value,
    { at: at.value, rating: Math.min(10, Math.max(1, Math.round(2 * raw) / 2)) },
  ]
}
function another() {
  luck.value++
  ridden.value = []
  at.value = start
}
const lines = computed<FigureLine[]>(() => [
  {
    name: 'ridden',
    colour: '--rear',
    dots: true,
    width: 13,
    points: ridden.value.map((r) => [r.at, r.rating]),
  },
])
/** Places that were ridden, in their order on the dial, with their mean. */
const places = computed(() =>
  [...new Set(ridden.value.map((r) => r.at))]
    .sort((a, b) => a - b)
    .map((place) => {
      const of = ridden.value.filter((r) => r.at === place).map((r) => r.rating)
      return { place, mean: of.reduce((s, x) => s + x, 0) / of.length }
    }),
)
const tells = computed(() => {
  if (places.value.length < 2) return 'Ride it where it stands, turn it, ride it again.'
  const top = places.value.reduce((a, b) => (b.mean > a.mean ? b : a))
  const i = places.value.indexOf(top)
  const [below, above] = [places.value[i - 1], places.value[i + 1]] as (typeof top | undefined)[]
  if (below && above)
    return `Too far on both sides: the best lies between ${count(below.place)} and ${count(above.place)}, near ${count(top.place)}.`
  const untried = below ? 'further open' : 'further closed'
  return `Best rating so far at ${count(top.place)}, and nothing was ridden ${untried}: nobody knows whether the best was passed.`
})
</script>

<template>
  <FigureFrame title="Past the best, and back" :numbers="numbers">
    <LineFigure
      label="Ratings over the clicks that were ridden"
      :lines="lines"
      x-name="clicks from closed"
      y-name="rating"
      :x-max="most"
      :y-max="10"
      :say-x="(x) => `${count(Math.round(x))} clicks`"
      :say-y="(y) => `rated ${y}`"
    />
    <div class="acts">
      <button type="button" class="btn btn-primary" @click="ride">Ride it</button>
      <button v-if="ridden.length" type="button" class="btn btn-plain" @click="another">Another dial</button>
    </div>
    <template #sliders>
      <RangeField v-model="at" :label="dialWords(at)" :min="0" :max="most" :step="step" />
    </template>
    <template #tells>{{ tells }}</template>
    <template #taken>{{
      `${own ? `The ${own.end} rebound dial of this bike; what is best on it here is invented. ` : ''}Ratings scatter by ${scatter}; the best is hidden, somewhere in the middle.`
    }}</template>
  </FigureFrame>
</template>

<style scoped>
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 0.5rem;
}
</style>
