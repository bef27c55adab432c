<script setup lang="ts">
import { computed, ref } from 'vue'
import { normalFrom, seededRandom } from '#core/numeric/random'
import { ratingScatter } from '#core/lineage/scatter'
import { normal80 } from '#core/stats/normal'
import { useBikeSetups } from '../../../composables/useBikeSetups.ts'
import { useOwnNumbers } from '../../../composables/useOwnNumbers.ts'
import LineFigure, { type FigureLine } from '../../shell/LineFigure.vue'
import RangeField from '../../shell/RangeField.vue'
import FigureFrame from './FigureFrame.vue'

/** Two setups ridden again and again: how long it takes until a true difference can be seen over the scatter. */
const { own: of } = useOwnNumbers(({ bike }) => ({ bikeId: bike.id }))
const { all } = useBikeSetups(of?.bikeId ?? null)
/** Undefined while the days of the bike are on their way. */
const own = computed(() => all.value && ratingScatter(all.value.ridden))
const [leastScatter, mostScatter, usualScatter] = [0.2, 1.5, 0.7]
const slid = ref<number | null>(null)
const scatter = computed({
  get: () => {
    if (slid.value !== null || !own.value) return slid.value ?? usualScatter
    return Math.min(mostScatter, Math.max(leastScatter, Math.round(10 * own.value.sd) / 10))
  },
  set: (sd) => (slid.value = sd),
})
const numbers = computed(() => ({ lacking: all.value && !own.value ? ('repeats' as const) : null }))
const takenFrom = computed(() =>
  own.value
    ? `This bike’s own ratings scatter by ${own.value.sd.toFixed(1)} on the same settings, by ${own.value.repeats} repeats on its days.`
    : `${usualScatter} is a usual rider.`,
)
const better = ref(0.5)
const rides = ref(1)
const luck = ref(1)
const base = 6.5
const most = 20

/** The same luck for any scatter and difference: only what is slid changes. */
const draws = computed(() => {
  const random = seededRandom(luck.value * 7919)
  return Array.from({ length: most }, () => ({ a: normalFrom(random), b: normalFrom(random) }))
})
const rated = (x: number) => Math.min(10, Math.max(1, Math.round(2 * x) / 2))
const ratings = computed(() =>
  draws.value.slice(0, rides.value).map(({ a, b }) => ({
    a: rated(base + scatter.value * a),
    b: rated(base + better.value + scatter.value * b),
  })),
)
const mean = (x: number[]) => x.reduce((s, v) => s + v, 0) / x.length
const seen = computed(() => mean(ratings.value.map((r) => r.b)) - mean(ratings.value.map((r) => r.a)))
const give = computed(() => normal80 * scatter.value * Math.sqrt(2 / rides.value))
const lines = computed<FigureLine[]>(() => [
  {
    name: 'as it was',
    colour: '--ink',
    dotted: true,
    width: 1,
    points: ratings.value.map((r, i) => [i + 1, r.a]),
  },
  {
    name: 'one click on',
    colour: '--rear',
    dotted: true,
    width: 1,
    points: ratings.value.map((r, i) => [i + 1, r.b]),
  },
])
const tells = computed(() => {
  const [low, high] = [seen.value - give.value, seen.value + give.value]
  const n = `${rides.value} ${rides.value === 1 ? 'run' : 'runs'} of each`
  const verdict =
    low > 0
      ? 'better'
      : high < 0
        ? better.value > 0
          ? 'worse, and that is wrong'
          : 'worse'
        : 'nobody can say yet'
  return `${n}: ${seen.value >= 0 ? '+' : '−'}${Math.abs(seen.value).toFixed(1)} points, give or take ${give.value.toFixed(1)}: ${verdict}.`
})
</script>

<template>
  <FigureFrame title="Ride both again" :numbers="numbers">
    <LineFigure
      label="Ratings of two setups, run by run"
      :lines="lines"
      x-name="run of each"
      y-name="rating"
      :x-from="0"
      :x-max="most"
      :y-max="10"
      :say-x="(x) => `run ${x}`"
      :say-y="(y) => `rated ${y}`"
    />
    <div class="acts">
      <button type="button" class="btn btn-primary" :disabled="rides >= most" @click="rides++">
        Ride both again
      </button>
      <button type="button" class="btn btn-plain" @click="((luck += 1), (rides = 1))">Another day</button>
    </div>
    <template #sliders>
      <RangeField
        v-model="better"
        :label="`truly ${better.toFixed(1)} points better`"
        :min="0"
        :max="2"
        :step="0.1"
      />
      <RangeField
        v-model="scatter"
        :label="`ratings scatter by ${scatter.toFixed(1)}`"
        :min="leastScatter"
        :max="mostScatter"
        :step="0.1"
      />
    </template>
    <template #tells>{{ tells }}</template>
    <template #taken>{{
      `${takenFrom} Give or take: four of five such days lie within. The judgement of a trail day does the same, and takes the scatter from your own repeats.`
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
