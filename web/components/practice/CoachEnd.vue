<script setup lang="ts">
import { computed } from 'vue'
import { proxy } from 'comlink'
import type { CoachDay } from '#core/practice/coach/clock'
import type { HiddenRider } from '#core/practice/hiddenRider'
import { lossesOf } from '#core/practice/review/losses'
import { reviewOf } from '#core/practice/review/review'
import { useOtherPlayers } from '../../composables/useOtherPlayers.ts'
import { useUnits } from '../../composables/useUnits.ts'
import { lostWords } from '../../support/practiceWords.ts'
import { endPracticeThread, practiceThread } from '../../workers/practiceThread.ts'
import LossChart from './LossChart.vue'
import RunRemarks from './RunRemarks.vue'
import WaitForOthers from './WaitForOthers.vue'

/** What was hidden in each of them, what each run could have told, and who stood how long. */
const props = defineProps<{ riders: readonly HiddenRider[]; tent: CoachDay; seed: number }>()
const emit = defineEmits<{ again: [] }>()
const { units } = useUnits()
const each = computed(() =>
  props.tent.riders.map((r, i) => {
    const rider = props.riders[i]
    const review = reviewOf(rider, r.acts, units.value)
    return {
      number: i + 1,
      rider,
      review,
      hidden: review.hidden.length ? review.hidden.join(', and ') : 'nothing',
      stood: `${r.day.runs.length === 1 ? 'One run' : `${r.day.runs.length} runs`}, stood ${r.stoodMin} min while the track was open.`,
    }
  }),
)
/** As many runs as each of them rode here, and all the time that is wanted between them. */
const { played, progress, failed, cancel } = useOtherPlayers({
  mostRuns: props.tent.riders.map((r) => r.day.runs.length),
  play: (i, who, onRun) => {
    const { drill, seed } = props.riders[i]
    const key = { drill: drill.key, variation: null, seed }
    return practiceThread().play(key, who, false, props.tent.riders[i].day.runs.length, proxy(onRun))
  },
  stop: endPracticeThread,
})
const beside = computed(() =>
  each.value.map(({ rider }, i) => {
    const { adviser, tester } = played.value[i]
    const { acts, day } = props.tent.riders[i]
    const runs = day.runs.length
    const lost = lostWords(rider, { you: acts, adviser, tester }, runs)
    return {
      runs,
      adviser: adviser ? lossesOf(rider, adviser).runs : null,
      tester: tester ? lossesOf(rider, tester).runs : null,
      words: `Points lost over ${runs === 1 ? 'this run' : `these ${runs} runs`}: ${lost}.`,
    }
  }),
)
const good = computed(() => each.value.filter((e) => e.review.left <= e.review.noticeable).length)
const othersWords =
  'Beside you: the adviser, and one thing at a time with a notebook, each with one rider alone, as many runs as the rider had with you, and all the time they wanted between them. No clock pressed them.'
const headline = computed(() =>
  good.value === each.value.length
    ? 'All of them ride home on what suits them'
    : good.value === 0
      ? 'None of them rides home on what suits them'
      : `${good.value} of ${each.value.length} ride home on what suits them`,
)
</script>

<template>
  <div class="page">
    <h1>{{ headline }}</h1>
    <div class="acts">
      <RouterLink
        class="btn btn-primary"
        :to="{ name: 'practice', params: { drill: 'coach', seed: seed + 1 } }"
        >Another three</RouterLink
      >
      <button type="button" class="btn btn-plain" @click="emit('again')">The same three again</button>
      <RouterLink class="btn btn-plain" :to="{ name: 'practice', params: { drill: '', seed: '' } }"
        >All drills</RouterLink
      >
    </div>
    <p class="soft small beside">
      {{ othersWords }}
    </p>
    <WaitForOthers :progress="progress" :failed="failed" @cancel="cancel" />
    <div class="three">
      <section v-for="(e, i) in each" :key="e.number" class="card-paper" :aria-labelledby="`end-${e.number}`">
        <h2 :id="`end-${e.number}`">{{ `${e.number}: ${e.review.headline}` }}</h2>
        <p>{{ `What was hidden: ${e.hidden}. ${e.rider.drill.after}` }}</p>
        <p class="soft small num">{{ e.stood }}</p>
        <template v-if="beside[i].runs > 0">
          <h3>How far from the best, run by run</h3>
          <LossChart
            :you="e.review.losses"
            :adviser="beside[i].adviser"
            :tester="beside[i].tester"
            :noticeable="e.review.noticeable"
          />
          <p class="soft small num">{{ beside[i].words }}</p>
        </template>
        <RunRemarks :review="e.review" />
        <RouterLink
          class="btn btn-plain"
          :to="{ name: 'practice', params: { drill: e.rider.drill.key, seed: e.rider.seed } }"
          >{{ `Rider ${e.number} alone, against the adviser` }}</RouterLink
        >
      </section>
    </div>
    <p class="soft small">
      Invented riders on invented bikes. What was right here is not right for yours: makers’ manuals and
      qualified technicians come first.
    </p>
  </div>
</template>

<style scoped>
.three {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(300px, 1fr));
  gap: 1rem;
  align-items: start;
  margin: 1rem 0;
}
.card-paper {
  padding: 0.8rem 1rem 1rem;
}
h2 {
  font-size: 1.15rem;
  margin-bottom: 0.4rem;
}
h3 {
  font-size: 0.95rem;
  margin: 0.6rem 0 0.2rem;
}
h1 {
  margin-bottom: 0.6rem;
}
.beside {
  margin: 0.8rem 0 0;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 0.5rem;
}
</style>
