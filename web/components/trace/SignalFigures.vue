<script setup lang="ts">
import { computed } from 'vue'
import type { Analysis } from '#contract/recording'
import LineFigure from '../shell/LineFigure.vue'
import { returnLines, returnWords, spectrumLines } from '../../support/spectrumLines.ts'

/** Where in frequency the movement lies, and how fast hits come back. */
const props = defineProps<{ analysis: Analysis; other?: Analysis | null }>()
const spectrum = computed(() => spectrumLines(props.analysis, props.other ?? null))
const returns = computed(() => returnLines(props.analysis))
const words = computed(() =>
  (['front', 'rear'] as const).flatMap((e) => returnWords(props.analysis, e) ?? []).join('; '),
)
const marks = [
  { axis: 'x' as const, at: 3, name: 'support' },
  { axis: 'x' as const, at: 8, name: 'chatter' },
]
const hz = (x: number) => `${x < 10 ? x.toFixed(1) : x.toFixed(0)} Hz`
const pct = (y: number) => `${y.toFixed(2)} % of travel`
const depth = (x: number) => `${x.toFixed(0)} % deep`
const speed = (y: number) => `${y.toFixed(2)} m/s back`
</script>

<template>
  <div class="two">
    <section v-if="spectrum.length" class="card-paper panel" aria-labelledby="spectrum-title">
      <h2 id="spectrum-title">How slow, how fast it moves</h2>
      <p class="soft small">
        Movement by frequency. Up to 3 Hz it is rider, turns and brakes; from 8 to 25 Hz it is the ground.
      </p>
      <LineFigure
        label="Depth over frequency, front and rear"
        :lines="spectrum"
        :marks="marks"
        x-name="Hz"
        y-name="% of travel"
        :x-min="0.25"
        :x-max="60"
        :say-x="hz"
        :say-y="pct"
      />
    </section>
    <section v-if="returns.length" class="card-paper panel" aria-labelledby="return-title">
      <h2 id="return-title">How fast hits come back</h2>
      <p class="soft small">{{ words || 'Too few hits for a line through them.' }}</p>
      <LineFigure
        label="Return speed over depth of each hit, front and rear"
        :lines="returns"
        x-name="% of travel"
        y-name="m/s"
        :x-max="100"
        :say-x="depth"
        :say-y="speed"
      />
    </section>
  </div>
</template>

<style scoped>
.two {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  gap: 0.9rem;
  margin-top: 0.9rem;
}
.panel {
  padding: 0.9rem 1.1rem;
}
p {
  margin: 0.2rem 0 0.4rem;
}
@media (max-width: 1000px) {
  .two {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
