<script setup lang="ts">
import { computed } from 'vue'
import type { TentHour } from '#contract/tent'
import { hourMarks, shareOf, type ClockSpan } from '#core/tent/clock'
import type { Trend } from '#core/tent/trend'
import { useUnits } from '../../composables/useUnits.ts'
import { clockWords } from '../../support/dates.ts'
import { hourWords } from '../../support/hourWords.ts'
import { trendWords } from '../../support/tentWords.ts'

/** The air over the day above the lanes, and what several riders turned alike. */
const props = defineProps<{
  hours: readonly TentHour[]
  span: ClockSpan
  nowMs: number
  widthPx: number
  trends: readonly (Trend & { names: string[] })[]
}>()
const { units, say } = useUnits()
const height = 116
const ground = height - 22
const stripPx = 20
/** Below the lines about what turns. */
const topY = computed(() => 22 + stripPx * told.value.length)
const x = (ms: number) => props.widthPx * shareOf(props.span, ms)
const read = computed(() =>
  props.hours.flatMap((h) => (h.airTempC === null ? [] : [{ h, ms: Date.parse(h.at), c: h.airTempC }])),
)
/** At least ten degrees high, so that one degree is no mountain. */
const leastC = 10
const scale = computed(() => {
  const all = read.value.map((r) => r.c)
  const [low, high] = [Math.min(...all), Math.max(...all)]
  const middle = (low + high) / 2
  const half = Math.max(high - low, leastC) / 2
  return (c: number) => ground - 8 - ((c - (middle - half)) / (2 * half)) * (ground - 8 - topY.value)
})
const points = computed(() =>
  read.value.map((r) => ({ x: x(r.ms), y: scale.value(r.c), words: hourWords(r.h, units.value), c: r.c })),
)
const line = computed(() => points.value.map((p, i) => `${i ? 'L' : 'M'}${p.x} ${p.y}`).join(' '))
const area = computed(() => {
  const list = points.value
  return list.length > 1
    ? `${line.value} L${list[list.length - 1].x} ${ground} L${list[0].x} ${ground} Z`
    : ''
})
/** Nobody has read the air since: as it was then, dashed. */
const since = computed(() => {
  const last = points.value.at(-1)
  return last && x(props.nowMs) > last.x ? `M${last.x} ${last.y} L${x(props.nowMs)} ${last.y}` : ''
})
const labelPx = 52
const labelled = computed(() => {
  let free = -Infinity
  return points.value.filter((p, i, all) => {
    const isLast = i === all.length - 1
    const fits = p.x >= free && (isLast || p.x < all[all.length - 1].x - labelPx)
    if (fits) free = p.x + labelPx
    return fits
  })
})
const marks = computed(() => hourMarks(props.span))
const told = computed(() => props.trends.slice(0, 2).map((t) => ({ t, ...trendWords(t, t.names) })))
</script>

<template>
  <div class="weather" :style="{ width: `${widthPx}px` }">
    <svg
      :viewBox="`0 0 ${widthPx} ${height}`"
      :width="widthPx"
      :height="height"
      role="img"
      :aria-label="
        points.length
          ? `Air: ${points.map((p, i) => `${clockWords(read[i].ms)} ${p.words}`).join(', ')}`
          : 'Nobody has noted the air yet'
      "
    >
      <path v-if="area" class="area" :d="area" />
      <path v-if="line" class="line" :d="line" />
      <path v-if="since" class="since" :d="since" />
      <circle v-for="p in points" :key="p.x" class="point" :cx="p.x" :cy="p.y" r="3.5">
        <title>{{ p.words }}</title>
      </circle>
      <text v-for="p in labelled" :key="`t${p.x}`" class="temp" :x="p.x + 6" :y="p.y - 8">
        {{ say('temperature', p.c) }}
      </text>
      <line class="base" x1="0" :x2="widthPx" :y1="ground" :y2="ground" />
      <g v-for="m in marks" :key="m.atMs">
        <line class="tick" :x1="x(m.atMs)" :x2="x(m.atMs)" :y1="ground" :y2="ground + (m.full ? 9 : 5)" />
        <text v-if="m.full && x(m.atMs) < widthPx - 36" class="hour" :x="x(m.atMs) + 4" :y="ground + 17">
          {{ clockWords(m.atMs) }}
        </text>
      </g>
    </svg>
    <ul v-if="told.length" class="trends" aria-label="What turns in the tent">
      <li v-for="t in told" :key="t.text">
        <i :class="t.t.family" aria-hidden="true"></i>
        <span
          ><b>{{ t.text }}</b
          ><template v-if="t.by">; {{ t.by }}</template
          ><small v-if="t.who" class="soft"> ({{ t.who }})</small></span
        >
      </li>
    </ul>
  </div>
</template>

<style scoped>
.weather {
  position: relative;
}
svg {
  display: block;
}
.area {
  fill: var(--sun-soft);
  opacity: 0.7;
}
.line {
  fill: none;
  stroke: var(--sun);
  stroke-width: 2.5;
}
.since {
  fill: none;
  stroke: var(--sun);
  stroke-width: 2;
  stroke-dasharray: 2 5;
}
.point {
  fill: var(--sun);
}
.temp {
  font-weight: 700;
  font-size: 15px;
  fill: var(--ink);
  paint-order: stroke;
  stroke: var(--paper);
  stroke-width: 3px;
}
.base,
.tick {
  stroke: var(--line);
}
.tick {
  stroke: var(--ink-soft);
}
.hour {
  font-size: 13px;
  fill: var(--ink-soft);
}
.trends {
  position: absolute;
  top: 2px;
  left: 8px;
  right: 8px;
  list-style: none;
  margin: 0;
  padding: 0;
  font-size: 0.92rem;
}
.trends li {
  display: flex;
  gap: 0.45rem;
  align-items: center;
  height: 20px;
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
}
.trends i {
  flex: none;
  width: 9px;
  height: 9px;
  background: var(--anodised-rebound);
  clip-path: polygon(0 0, 100% 0, 50% 100%);
}
.trends i.compression {
  background: var(--anodised-compression);
  clip-path: none;
}
.trends i.spring {
  background: var(--ink-soft);
  border-radius: 50%;
  clip-path: none;
}
</style>
