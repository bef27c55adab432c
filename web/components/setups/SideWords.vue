<script setup lang="ts">
import { computed } from 'vue'
import { wordRules } from '#core/causes/words'
import type { KnownPlace } from '#core/lineage/facts'
import { useUnits } from '../../composables/useUnits.ts'
import PegSign from './PegSign.vue'
import { madeWords, ratedWords, rideWords, titleOf } from '../../support/setupWords.ts'

/** What is known of one setup: where it was ridden, how it was rated, what was said. */
const props = defineProps<{ place: KnownPlace; sign: 'first' | 'second' }>()
const { say, units } = useUnits()
const mostShown = 2
const rides = computed(() => props.place.rides.slice(0, mostShown))
const said = computed(() =>
  props.place.words
    .slice(0, 3)
    .map(
      (w) =>
        `“${wordRules[w.word].label}”${w.end === 'both' ? '' : ` ${w.end}`} on ${w.runs} of ${props.place.countedRuns}`,
    )
    .join(', '),
)
const sag = computed(() => {
  const f = props.place.setup.foundIn
  const one = (end: string, pct: number | null | undefined, posture: string | null | undefined) =>
    typeof pct === 'number' ? `${end} ${pct.toFixed(0)} %${posture ? ` ${posture}` : ''}` : null
  return [one('front', f?.sagFrontPct, f?.postureFront), one('rear', f?.sagRearPct, f?.postureRear)]
    .filter((x) => x !== null)
    .join(', ')
})
const tyres = computed(() => {
  const [ride] = props.place.rides
  const { kept } = props.place
  const front = kept?.tyreFrontPsi ?? ride?.tyreFrontPsi ?? null
  const rear = kept?.tyreRearPsi ?? ride?.tyreRearPsi ?? null
  const one = (psi: number | null) => (psi === null ? '?' : say('pressure', psi))
  return front === null && rear === null ? '' : `tyres ${one(front)} / ${one(rear)}`
})
const noted = computed(() =>
  [
    sag.value && `sag ${sag.value}`,
    tyres.value,
    props.place.kept?.geometry,
    typeof props.place.kept?.found.kitMassKg === 'number' &&
      `kit ${say('mass', props.place.kept.found.kitMassKg)}`,
    props.place.kept?.by && `kept by ${props.place.kept.by}`,
  ]
    .filter(Boolean)
    .join(' · '),
)
</script>

<template>
  <article>
    <PegSign :sign="sign" />
    <div>
      <h4 class="visually-hidden">{{ titleOf(place) }}</h4>
      <p v-for="r in rides" :key="r.dayId" class="small num">
        <RouterLink :to="{ name: 'day', params: { id: r.dayId } }">{{ r.trailName }}</RouterLink>
        {{ rideWords(r, units) }}<template v-if="r.settled">, settled</template>
      </p>
      <p v-if="place.rides.length > rides.length" class="small soft">
        {{
          `and ${place.rides.length - rides.length} earlier ${place.rides.length - rides.length === 1 ? 'day' : 'days'}`
        }}
      </p>
      <p v-if="!place.rides.length" class="small soft">
        {{
          place.state === 'noted'
            ? `Noted for ${madeWords(place.setup)}; no run on it is kept here.`
            : `Made ${madeWords(place.setup)}, not ridden.`
        }}
      </p>
      <p v-if="place.countedRuns" class="small num">{{ ratedWords(place) }}</p>
      <p v-if="said" class="small">{{ said }}</p>
      <p v-if="noted" class="small soft num">{{ noted }}</p>
      <p v-if="place.kept?.words" class="small">“{{ place.kept.words }}”</p>
    </div>
  </article>
</template>

<style scoped>
article {
  display: flex;
  gap: 0.6rem;
  margin-top: 0.5rem;
}
p {
  margin: 0.1rem 0 0;
}
</style>
