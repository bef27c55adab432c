<script setup lang="ts">
import { computed } from 'vue'
import { useClipboard } from '@vueuse/core'
import { lossesOf } from '#core/practice/review/losses'
import { reviewOf } from '#core/practice/review/review'
import { reviewRules } from '#core/practice/review/rules'
import { variations, type Variation } from '#core/practice/vary'
import { useOtherPlayers, type OtherPlayer } from '../../composables/useOtherPlayers.ts'
import { useUnits } from '../../composables/useUnits.ts'
import { mostRuns, usePractice } from '../../stores/practice.ts'
import { lostWords, standingWords } from '../../support/practiceWords.ts'
import LossChart from './LossChart.vue'
import RunRemarks from './RunRemarks.vue'
import WaitForOthers from './WaitForOthers.vue'
import WhereItWas from './WhereItWas.vue'

/** The end that tells: what was hidden, how near every run was, and what others would have done. */
const emit = defineEmits<{ again: []; reopen: [] }>()
const practice = usePractice()
const { units } = useUnits()
const rider = computed(() => practice.rider!)
const review = computed(() => reviewOf(rider.value, practice.acts, units.value))
const hidden = computed(() => {
  const [first, ...rest] = review.value.hidden
  if (!first) return 'What was hidden: nothing. The bike suited this rider as it stood.'
  return `What was hidden: ${[first, ...rest].join(', and ')}.`
})
const { played, progress, failed, cancel } = useOtherPlayers({
  mostRuns: [mostRuns],
  play: (_, who, onRun) => practice.playedBy(who, onRun),
  stop: practice.stopPlaying,
})
const others = computed(() => played.value[0])
const lossesFor = (who: OtherPlayer) => {
  const acts = others.value[who]
  return acts ? lossesOf(rider.value, acts).runs : null
}
/** Over a day of equal length, so that to stop early and wrong costs as much as to search on. */
const inAll = computed(() => {
  const lost = lostWords(rider.value, { you: practice.acts, ...others.value }, mostRuns)
  return `Points lost over ${mostRuns} runs, whoever stopped riding on what was left: ${lost}.`
})
const seed = computed(() => practice.key!.seed)
const to = (change: { seed?: number; vary?: Variation }) => ({
  name: 'practice',
  params: { drill: practice.key!.drill, seed: change.seed ?? seed.value },
  query: change.vary ? { vary: change.vary } : {},
})
const { copy, copied, isSupported } = useClipboard()
const address = computed(() => location.href)
const rules = Object.values(reviewRules)
</script>

<template>
  <div class="end">
    <section class="told">
      <p class="soft small">{{ `${rider.drill.title}, rider ${seed}` }}</p>
      <h1>{{ review.headline }}</h1>
      <p>{{ hidden }} {{ rider.drill.after }}</p>
      <section class="card-paper" aria-labelledby="far-title">
        <header>
          <h2 id="far-title">How far from the best, run by run</h2>
          <span class="soft small">points the rider would have felt</span>
        </header>
        <LossChart
          :you="review.losses"
          :adviser="lossesFor('adviser')"
          :tester="lossesFor('tester')"
          :noticeable="review.noticeable"
        />
        <p class="soft small num">{{ inAll }}</p>
        <WaitForOthers :progress="progress" :failed="failed" @cancel="cancel" />
      </section>
      <WhereItWas :rider="rider" :day="practice.day!" />
    </section>
    <section class="runs" aria-labelledby="runs-title">
      <h2 id="runs-title">What each run could have told</h2>
      <RunRemarks :review="review" />
      <div class="acts">
        <RouterLink class="btn btn-primary" :to="to({ seed: seed + 1 })">Another rider</RouterLink>
        <button type="button" class="btn btn-plain" @click="emit('again')">The same rider again</button>
        <button type="button" class="btn btn-plain" @click="emit('reopen')">Ride on</button>
        <RouterLink class="btn btn-plain" :to="{ name: 'practice', params: { drill: '', seed: '' } }"
          >All drills</RouterLink
        >
      </div>
      <details>
        <summary>Vary one thing</summary>
        <ul class="vary">
          <li v-for="(words, v) in variations" :key="v">
            <RouterLink :to="to({ vary: v })">{{ words }}</RouterLink>
          </li>
        </ul>
      </details>
      <details>
        <summary>The rules behind these words</summary>
        <p class="soft small">
          The first that applies speaks. They look at what was done and at what was hidden, never at luck.
        </p>
        <ol>
          <li v-for="r in rules" :key="r.when">
            {{ r.when }} <b class="standing" :class="r.standing">{{ standingWords[r.standing] }}</b>
          </li>
        </ol>
      </details>
      <p class="soft small share">
        The address of this page makes the same rider anywhere.
        <button v-if="isSupported" type="button" class="btn btn-plain btn-sm" @click="copy(address)">
          {{ copied ? 'Copied' : 'Copy it' }}
        </button>
      </p>
      <p class="soft small">
        An invented rider on an invented bike. What was right here is not right for yours: makers’ manuals and
        qualified technicians come first.
      </p>
    </section>
  </div>
</template>

<style scoped>
.card-paper {
  padding: 0.8rem 1rem;
}
.end {
  display: grid;
  grid-template-columns: minmax(0, 1.7fr) minmax(0, 1fr);
  gap: 1.2rem 1.6rem;
  padding: 1rem 1.4rem 2rem;
  align-items: start;
}
.told {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 0.7rem;
}
.told p {
  margin: 0;
}
header {
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  align-items: baseline;
  gap: 0 1rem;
}
.standing {
  white-space: nowrap;
}
.standing.well-done,
.standing.found {
  color: color-mix(in srgb, var(--moss) 65%, var(--ink));
}
.standing.open,
.standing.missed {
  color: var(--rust);
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 0.5rem;
  margin-bottom: 0.8rem;
}
.share {
  margin-top: 0.8rem;
}
@media (max-width: 900px) {
  .end {
    grid-template-columns: minmax(0, 1fr);
    padding: 0.8rem 0.8rem 5rem;
  }
}
</style>
