<script setup lang="ts">
import { computed } from 'vue'
import type { TentNote, TentRider } from '#contract/tent'
import { shareOf, type ClockSpan } from '#core/tent/clock'
import type { Lane } from '#core/tent/lane'
import { useUnits } from '../../composables/useUnits.ts'
import { laneLabels } from '../../support/laneLabels.ts'
import { clockWords } from '../../support/dates.ts'
import { changeLabel, changeWords, noteWords } from '../../support/tentWords.ts'

/** One rider’s day along the clock: runs as waypoints with their ratings, changes as marks by end. */
const props = defineProps<{
  lane: Lane
  rider: TentRider
  notes: readonly TentNote[]
  span: ClockSpan
  nowMs: number
  widthPx: number
  heightPx: number
}>()
const { units } = useUnits()
/** Below this there is no room for a line under the trail. */
const roomyPx = 76
const roomy = computed(() => props.heightPx >= roomyPx)
const radius = computed(() => (roomy.value ? 14 : 11))
const x = (ms: number) => Math.round(props.widthPx * shareOf(props.span, ms) * 10) / 10
const trailY = computed(() => Math.round(props.heightPx * (roomy.value ? 0.58 : 0.68)))
const runs = computed(() =>
  props.lane.runs.map((r, i) => ({
    ...r,
    x: x(r.atMs),
    y: trailY.value + (i % 2 ? 3 : -3),
    words: `run ${r.number}, ${clockWords(r.atMs)}${r.rating === null ? (r.kind === 'counted' ? ', not rated' : `, ${r.kind}`) : `, rated ${r.rating}`}`,
  })),
)
const top = 12
const changes = computed(() => {
  const marks = props.lane.changes.map((c) => ({
    key: c.setupId,
    x: x(c.atMs),
    end: c.end,
    label: changeLabel(c, units.value),
    words: `${clockWords(c.atMs)}: ${changeWords(c, units.value)}`,
  }))
  const shown = laneLabels(marks, props.widthPx)
  return marks.map((m, i) => ({ ...m, labelX: shown[i] }))
})
const alone = computed(() =>
  props.notes
    .filter((n) => n.kind !== 'later')
    .map((n) => ({
      id: n.id,
      x: x(Date.parse(n.at)),
      words: `${clockWords(Date.parse(n.at))}: ${noteWords[n.kind]}${n.text ? `, ${n.text}` : ''}`,
    })),
)
const isOut = computed(() => props.rider.whereabouts === 'out')
const path = computed(() => {
  const points = runs.value.map((r) => ({ x: r.x, y: r.y }))
  if (isOut.value) {
    if (!points.length) points.push({ x: x(Date.parse(props.rider.since)), y: trailY.value })
    points.push({ x: x(props.nowMs), y: trailY.value })
  }
  return points.reduce((d, p, i) => {
    if (i === 0) return `M${p.x - 12} ${p.y} L${p.x} ${p.y}`
    const before = points[i - 1]
    const middle = (before.x + p.x) / 2
    return `${d} C${middle} ${before.y} ${middle} ${p.y} ${p.x} ${p.y}`
  }, '')
})
/** All of it for who cannot see it. */
const spoken = computed(() =>
  [
    ...props.lane.runs.map((r, i) => ({ at: r.atMs, words: runs.value[i].words })),
    ...props.lane.changes.map((c, i) => ({ at: c.atMs, words: changes.value[i].words })),
  ]
    .sort((a, b) => a.at - b.at)
    .map((l) => l.words)
    .join('. '),
)
</script>

<template>
  <svg
    class="lane"
    :viewBox="`0 0 ${widthPx} ${heightPx}`"
    :width="widthPx"
    :height="heightPx"
    role="img"
    :aria-label="spoken || 'nothing ridden yet'"
  >
    <path v-if="path" class="trail" :d="path" />
    <path v-if="path" class="dots" :d="path" />
    <g v-for="c in changes" :key="c.key">
      <title>{{ c.words }}</title>
      <line class="stem" :class="c.end" :x1="c.x" :x2="c.x" :y1="top + 10" :y2="trailY - 8" />
      <circle
        v-if="c.end !== 'rear'"
        class="sign"
        :class="c.end ?? 'both'"
        :cx="c.x"
        :cy="top + 10"
        r="4.5"
      />
      <rect v-else class="sign rear" :x="c.x - 4.5" :y="top + 5.5" width="9" height="9" />
      <text v-if="c.labelX !== null" class="label" :x="c.labelX" :y="top">{{ c.label }}</text>
    </g>
    <g v-for="n in alone" :key="n.id">
      <title>{{ n.words }}</title>
      <line class="alone" :x1="n.x - 5" :x2="n.x + 5" :y1="top + 10" :y2="top + 10" />
    </g>
    <g v-for="r in runs" :key="r.runId">
      <title>{{ r.words }}</title>
      <circle class="run" :class="r.kind" :cx="r.x" :cy="r.y" :r="radius" />
      <text class="number" :class="r.kind" :x="r.x" :y="r.y + 5">{{ r.number }}</text>
      <text
        v-if="r.rating !== null"
        class="rating"
        :class="{ beside: !roomy }"
        :x="roomy ? r.x : r.x + radius + 4"
        :y="roomy ? r.y + radius + 15 : r.y + 5"
      >
        {{ r.rating }}
      </text>
    </g>
    <g v-if="isOut">
      <circle class="away" :cx="x(nowMs)" :cy="trailY" r="8" />
      <circle class="dot" :cx="x(nowMs)" :cy="trailY" r="3" />
    </g>
  </svg>
</template>

<style scoped>
.lane {
  display: block;
  overflow: visible;
}
.trail {
  fill: none;
  stroke: color-mix(in srgb, var(--line) 80%, var(--paper-deep));
  stroke-width: 11;
  stroke-linecap: round;
}
.dots {
  fill: none;
  stroke: var(--ink-soft);
  stroke-width: 1.6;
  stroke-dasharray: 1.6 4.4;
}
.stem {
  stroke: var(--ink-soft);
  stroke-width: 1.6;
}
.stem.front,
.sign.front {
  stroke: var(--front);
}
.stem.rear {
  stroke: var(--rear);
}
.sign {
  fill: var(--ink-soft);
}
.sign.front {
  fill: var(--front);
}
.sign.rear {
  fill: var(--rear);
}
.label {
  font-size: 13px;
  font-weight: 650;
  text-anchor: middle;
  fill: var(--ink);
  paint-order: stroke;
  stroke: var(--paper);
  stroke-width: 4px;
  stroke-linejoin: round;
}
.alone {
  stroke: var(--ink-soft);
  stroke-width: 3;
}
.run {
  fill: var(--pine);
  stroke: var(--pine);
  stroke-width: 2.5;
}
[data-bs-theme='dark'] .run {
  stroke: var(--pine-ink);
}
[data-bs-theme='dark'] .run.counted {
  fill: #356353;
}
.run.warm-up {
  fill: var(--card);
}
.run.void {
  fill: var(--card);
  stroke-dasharray: 4 3;
}
.number {
  font-size: 14px;
  font-weight: 700;
  text-anchor: middle;
  fill: var(--pine-ink);
}
.number.warm-up,
.number.void {
  fill: var(--ink);
}
.rating {
  font-size: 14px;
  font-weight: 650;
  text-anchor: middle;
  fill: var(--ink);
  paint-order: stroke;
  stroke: var(--paper);
  stroke-width: 3px;
}
.rating.beside {
  text-anchor: start;
}
.away {
  fill: var(--card);
  stroke: var(--front);
  stroke-width: 3;
}
.dot {
  fill: var(--front);
}
</style>
