<script setup lang="ts">
import { computed } from 'vue'
import type { Adjuster } from '#contract/adjuster'
import { familyOf, turnSign } from '#core/adjusters/words'
import { useUnits } from '../../composables/useUnits.ts'

/** How the hand moves: a knob with its turn for dials, an arrow for the rest. */
const props = defineProps<{ adjuster: Adjuster; from: number; to: number }>()
const { distanceWords } = useUnits()
const sign = computed(() => turnSign(props.adjuster, props.from, props.to))
const words = computed(
  () =>
    `${distanceWords(props.adjuster, props.from, props.to)} ${sign.value ?? (props.to > props.from ? '↑' : '↓')}`,
)
/** A turn has a direction only for somebody who looks from somewhere. */
const way = computed(() =>
  sign.value ? `${sign.value === '↻' ? 'clockwise' : 'counter-clockwise'}, seen at the knob` : '',
)
const colour = computed(() =>
  familyOf(props.adjuster) === 'rebound' ? 'var(--anodised-rebound)' : 'var(--anodised-compression)',
)
const knurls = Array.from({ length: 24 }, (_, i) => `rotate(${i * 15} 40 44)`)
</script>

<template>
  <figure>
    <svg viewBox="0 0 80 80" width="66" height="66" aria-hidden="true">
      <template v-if="sign">
        <rect
          v-for="t in knurls"
          :key="t"
          x="38.6"
          y="14"
          width="2.8"
          height="6"
          rx="1"
          :fill="colour"
          :transform="t"
        />
        <circle cx="40" cy="44" r="26" :fill="colour" />
        <circle cx="40" cy="44" r="18" fill="#fff" fill-opacity=".16" />
        <rect x="38.4" y="24" width="3.2" height="16" rx="1.6" fill="#fff" />
        <g :transform="sign === '↺' ? '' : 'translate(80 0) scale(-1 1)'">
          <path d="M64 16 A 36 36 0 0 0 16 16" class="turn" />
          <path d="M12 20 L 15 9 L 23 15 Z" class="tip" />
        </g>
      </template>
      <g v-else :transform="to > from ? '' : 'translate(0 80) scale(1 -1)'">
        <path d="M40 66 V26" class="turn thick" />
        <path d="M40 10 L 54 30 L 26 30 Z" class="tip" />
      </g>
    </svg>
    <figcaption class="num">
      {{ words }} <small v-if="way" class="soft">{{ way }}</small>
    </figcaption>
  </figure>
</template>

<style scoped>
figure {
  margin: 0;
  text-align: center;
}
figcaption small {
  display: block;
  max-width: 8.5rem;
  font-weight: 400;
}
figcaption {
  font-size: 0.86rem;
  font-weight: 600;
}
.turn {
  fill: none;
  stroke: var(--ink);
  stroke-width: 3;
}
.thick {
  stroke-width: 8;
  stroke: var(--sky);
}
.tip {
  fill: var(--ink);
}
.thick + .tip {
  fill: var(--sky);
}
</style>
