<script setup lang="ts">
import { computed } from 'vue'
import type { CoachDay } from '#core/practice/coach/clock'
import type { HiddenRider } from '#core/practice/hiddenRider'
import { reviewOf } from '#core/practice/review/review'
import { useUnits } from '../../composables/useUnits.ts'
import RunRemarks from './RunRemarks.vue'

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
const good = computed(() => each.value.filter((e) => e.review.left <= e.review.noticeable).length)
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
    <div class="three">
      <section v-for="e in each" :key="e.number" class="card-paper" :aria-labelledby="`end-${e.number}`">
        <h2 :id="`end-${e.number}`">{{ `${e.number}: ${e.review.headline}` }}</h2>
        <p>{{ `What was hidden: ${e.hidden}. ${e.rider.drill.after}` }}</p>
        <p class="soft small num">{{ e.stood }}</p>
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
h1 {
  margin-bottom: 0.6rem;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 0.5rem;
}
</style>
