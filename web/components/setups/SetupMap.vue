<script setup lang="ts">
import { useMediaQuery } from '@vueuse/core'
import { computed, useTemplateRef } from 'vue'
import type { SuspensionUnit } from '#contract/unit'
import type { KnownPlace } from '#core/lineage/facts'
import type { Spot } from '#core/lineage/lanes'
import { useUnits } from '../../composables/useUnits.ts'
import { vRoving } from '../../support/roving.ts'
import {
  keptForWords,
  madeWords,
  shortRatedWords,
  shortRideWords,
  stateWords,
  titleOf,
  turnedWords,
} from '../../support/setupWords.ts'
import { laneX, rowY, trailPaths } from '../../support/trailMap.ts'

/** Setups of a bike as trails that part where something was turned, newest at the top; a list with the same facts. */
const props = defineProps<{
  spots: readonly Spot<KnownPlace>[]
  units: readonly SuspensionUnit[]
  chosenId: string | null
  /** The one it is laid beside. */
  besideId: string | null
}>()
const emit = defineEmits<{ choose: [id: string]; unfold: [id: string] }>()
const { units: choice } = useUnits()
const list = useTemplateRef<HTMLOListElement>('list')
/** Brings a row into view and hands it the keyboard. */
function show(id: string) {
  const row = rows.value.findIndex((r) => r.id === id)
  const key = list.value?.children[row]?.querySelector<HTMLElement>('.place')
  key?.scrollIntoView({ block: 'center' })
  key?.focus({ preventScroll: true })
}
defineExpose({ show })

const narrow = useMediaQuery('(max-width: 720px)')
const lanes = computed(() => Math.max(0, ...props.spots.map((s) => s.lane)) + 1)
const size = computed(() => {
  const step = narrow.value ? 22 : 44
  return {
    rowHeight: narrow.value ? 102 : 82,
    width: Math.min(narrow.value ? 92 : 260, 48 + (lanes.value - 1) * step),
  }
})
const height = computed(() => props.spots.length * size.value.rowHeight)
const paths = computed(() =>
  trailPaths(props.spots, (s) => (s as Spot<KnownPlace>).place.countedRuns, size.value),
)
// The ground it lies on; drawn once for any height.
const contours = Array.from({ length: 9 }, (_, k) => {
  const points = Array.from(
    { length: 33 },
    (_, i) =>
      `${i * 25},${(20 + k * 70 + 22 * Math.sin(i / 4.3 + k * 0.9) + 9 * Math.sin(i / 1.9 - k)).toFixed(0)}`,
  )
  return `M${points.join(' L')}`
})
const byId = computed(() => new Map(props.spots.map((s) => [s.place.id, s])))
const rows = computed(() =>
  [...props.spots]
    .sort((a, b) => a.row - b.row)
    .map((s) => {
      const p = s.place
      const parent = s.parentId ? byId.value.get(s.parentId) : undefined
      const folded = s.between.length + s.aside.length
      const [ride] = p.rides
      return {
        id: p.id,
        p,
        x: laneX(s.lane, lanes.value, size.value),
        y: rowY(s.row, size.value),
        title: titleOf(p),
        when: p.rides.length ? shortRideWords(ride, choice.value) : madeWords(p.setup),
        more: p.rides.length > 1 ? `+ ${p.rides.length - 1} ${p.rides.length === 2 ? 'day' : 'days'}` : '',
        rated: p.state === 'wanted' || p.state === 'noted' ? '' : shortRatedWords(p),
        turned: parent
          ? `${turnedWords(parent.place.setup, p.setup, props.units, choice.value)}, from ${titleOf(parent.place)}`
          : 'where it began',
        folded,
        foldedWords: `${folded} ${folded === 1 ? 'try' : 'tries'}`,
      }
    }),
)
</script>

<template>
  <div class="map" :style="{ '--row': `${size.rowHeight}px`, '--gutter': `${size.width}px` }">
    <svg
      class="contours"
      :height="height"
      viewBox="0 0 800 600"
      preserveAspectRatio="none"
      aria-hidden="true"
    >
      <path v-for="d in contours" :key="d" :d="d" />
    </svg>
    <svg :width="size.width" :height="height" aria-hidden="true">
      <g class="ground">
        <path v-for="t in paths" :key="t.id" :d="t.d" :stroke-width="t.width" :class="{ wanted: t.wanted }" />
      </g>
      <path v-for="t in paths" :key="t.id" class="line" :d="t.d" />
      <g v-for="r in rows" :key="r.id" :transform="`translate(${r.x} ${r.y})`" :class="['spot', r.p.state]">
        <circle
          v-if="r.id === chosenId || r.id === besideId"
          class="ring"
          r="19"
          :class="{ beside: r.id === besideId }"
        />
        <rect
          v-if="r.p.now"
          class="now"
          x="-11"
          y="-11"
          width="22"
          height="22"
          rx="2"
          transform="rotate(45)"
        />
        <circle
          v-else
          :r="r.p.state === 'settled' ? 12 : r.p.state === 'stood' || r.p.state === 'noted' ? 7 : 9"
        />
        <path
          v-if="r.p.state === 'settled'"
          class="tick"
          d="M-5 0 L-1.5 4 L5.5 -4"
          :class="{ dark: r.p.now }"
        />
      </g>
    </svg>
    <ol ref="list" v-roving="'button.place'" aria-label="Setups, newest first">
      <li v-for="r in rows" :key="r.id" :class="{ chosen: r.id === chosenId }">
        <button type="button" class="place" :aria-pressed="r.id === chosenId" @click="emit('choose', r.id)">
          <span class="title">
            <b>{{ r.title }}</b>
            <span v-if="r.p.now" class="tag now">on the bike now</span>
            <span v-if="r.p.state !== 'ridden'" :class="['tag', r.p.state]">{{ stateWords[r.p.state] }}</span>
            <span v-for="k in r.p.kept?.purposes ?? []" :key="k" class="tag for">{{ keptForWords[k] }}</span>
          </span>
          <span class="facts num">
            {{ r.when }} <template v-if="r.more">{{ r.more }}</template>
            <template v-if="r.rated"> · {{ r.rated }}</template>
          </span>
          <span class="turned">{{ r.turned }}</span>
        </button>
        <button
          v-if="r.folded"
          type="button"
          class="btn btn-plain btn-sm fold"
          :aria-label="`Show ${r.foldedWords} around ${r.title}`"
          @click="emit('unfold', r.id)"
        >
          + {{ r.foldedWords }}
        </button>
      </li>
    </ol>
  </div>
</template>

<style scoped>
.map {
  position: relative;
  isolation: isolate;
}
svg {
  position: absolute;
  inset: 0 auto auto 0;
  overflow: visible;
  pointer-events: none;
}
svg path {
  fill: none;
  stroke-linecap: round;
}
.contours {
  width: 100%;
  z-index: -1;
}
.contours path {
  stroke: var(--line);
  stroke-opacity: 0.55;
  vector-effect: non-scaling-stroke;
}
.ground path {
  stroke: color-mix(in srgb, var(--line) 75%, var(--sun-soft));
}
.ground .wanted {
  stroke-dasharray: 2 12;
}
.line {
  stroke: var(--ink-soft);
  stroke-width: 1.6;
  stroke-dasharray: 1 4;
}
.spot circle {
  fill: var(--card);
  stroke: var(--pine);
  stroke-width: 3;
}
[data-bs-theme='dark'] .spot circle {
  stroke: var(--moss);
}
.spot.settled circle {
  fill: var(--pine);
}
.spot.wanted circle {
  stroke-dasharray: 4 3;
}
.spot .ring {
  fill: none !important;
  stroke: var(--sun) !important;
  stroke-width: 4;
}
.spot .ring.beside {
  stroke: var(--ink-soft) !important;
  stroke-dasharray: 3 4;
  stroke-width: 3;
}
rect.now {
  fill: var(--sun);
  stroke: #1b2723;
  stroke-width: 2.5;
}
.tick {
  stroke: var(--pine-ink);
  stroke-width: 2.6;
}
.tick.dark {
  stroke: #1b2723;
}
ol {
  list-style: none;
  margin: 0;
  padding: 0 0 0 var(--gutter);
}
li {
  display: flex;
  align-items: center;
  gap: 0.5rem;
  height: var(--row);
}
.place {
  flex: 1;
  min-width: 0;
  height: calc(var(--row) - 8px);
  display: grid;
  align-content: center;
  gap: 0.05rem;
  padding: 0.2rem 0.7rem;
  border: 1px solid transparent;
  border-radius: 12px;
  background: none;
  color: var(--ink);
  text-align: left;
}
.place:hover {
  background: var(--card);
}
.chosen .place {
  background: var(--card);
  border-color: var(--line);
}
.title {
  display: flex;
  align-items: center;
  gap: 0.45rem;
  min-width: 0;
  overflow: hidden;
}
.title b {
  font: 640 1.05rem var(--head-font);
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
}
.tag {
  flex: none;
  padding: 0 0.45rem;
  border: 1px solid var(--line);
  border-radius: 20px;
  font-size: 0.8rem;
  white-space: nowrap;
}
.tag.now {
  background: var(--sun-soft);
  color: var(--sun-ink);
  border-color: transparent;
  font-weight: 650;
}
.tag.for {
  background: var(--paper-deep);
  border-color: transparent;
}
.facts,
.turned {
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
  font-size: 0.9rem;
}
.turned {
  color: var(--ink-soft);
}
.fold {
  flex: none;
  white-space: nowrap;
}
@media (max-width: 720px) {
  li {
    gap: 0.3rem;
  }
  .place {
    padding: 0.2rem 0.35rem;
  }
  .turned {
    white-space: normal;
    display: -webkit-box;
    -webkit-line-clamp: 2;
    -webkit-box-orient: vertical;
  }
  .title .for {
    display: none;
  }
  /* The tick says it to the eye. */
  .tag.settled {
    position: absolute;
    clip-path: inset(50%);
  }
  .fold {
    width: 44px;
    padding: 0;
    font-size: 0.75rem;
    white-space: normal;
    line-height: 1.1;
  }
}
</style>
