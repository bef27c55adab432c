<script setup lang="ts">
import { computed, nextTick, onMounted, useTemplateRef, watch } from 'vue'
import { useUnits } from '../../composables/useUnits.ts'
import { clockWords } from '../../support/dates.ts'
import { keyOf } from '../../handbook/page.ts'
import { hourWords } from '../../support/hourWords.ts'
import { mindWords } from '../../support/words.ts'
import { dayLine, ratingWidth, type Waypoint } from '../../support/dayLine.ts'
import type { DayBundle } from '#contract/endpoints'
import type { DayKnowledge } from '#core/adviser/summary'
import IconWave from '~icons/lucide/activity'
import { vRoving } from '../../support/roving.ts'
import EndMark from '../shell/EndMark.vue'

const props = defineProps<{ bundle: DayBundle; knowledge: DayKnowledge | null; selected: string | null }>()
const emit = defineEmits<{ select: [id: string]; compare: [id: string] }>()

const { units } = useUnits()
const view = computed(() => dayLine(props.bundle, props.knowledge, units.value))
const ratingLine = computed(() => view.value.ratingPoints.map((p) => `${p.x.toFixed(1)},${p.y}`).join(' '))
const recorded = computed(() => new Set(props.bundle.recordings.map((r) => r.runId)))
const bandTop = computed(() => (view.value.ratingPoints[0]?.y ?? 0) - 16)
const bandBottom = computed(() => (view.value.ratingPoints.at(-1)?.y ?? 0) + 16)
const noiseWords = computed(() => {
  const k = props.knowledge
  if (!k || view.value.ratingPoints.length === 0) return ''
  const sd = k.noiseSd.toFixed(1)
  return k.repeats > 0
    ? `Runs on the same settings scatter by about ${sd}: a change has to beat that to count.`
    : `No repeat yet: the noise is taken as ${sd}.`
})
const field = useTemplateRef<HTMLElement>('field')
/** Room under the next run, px. */
const below = 120
/** A long day opens at its end: the next run is what is reached for. */
async function toEnd() {
  await nextTick()
  const column = field.value?.closest('.col')
  if (!column || column.scrollHeight <= column.clientHeight) return
  const end = field.value!.offsetTop + view.value.nextY + below - column.clientHeight
  if (end > column.scrollTop) column.scrollTop = end
}
onMounted(toEnd)
watch(() => view.value.nextNumber, toEnd)
function click(w: Waypoint, e: MouseEvent) {
  if (e.shiftKey) emit('compare', w.id)
  else emit('select', w.id)
}
const describe = (w: Waypoint) =>
  `Run ${w.number}, ${clockWords(w.run.startedAt)}${w.words ? `, ${w.words}` : ''}${w.rating === null ? '' : `, rated ${w.rating}`}${w.best ? ', best rating' : ''}`
const traceLink = (w: Waypoint) => ({ name: 'trace', params: { id: props.bundle.day.id, runId: w.id } })
</script>

<template>
  <section class="dayline" aria-labelledby="line-title">
    <header>
      <h2 id="line-title">The day so far</h2>
      <span class="soft small">rating, scatter</span>
    </header>
    <div ref="field" class="field" :style="{ height: `${view.height}px` }">
      <svg :height="view.height" width="90" aria-hidden="true">
        <path :d="view.path" class="trail" />
        <path :d="view.path" class="dots" />
      </svg>
      <svg class="ratings" :height="view.height" :width="ratingWidth + 12" aria-hidden="true">
        <rect
          v-if="view.band"
          :x="view.band.x + 6"
          :width="view.band.width"
          :y="bandTop"
          :height="bandBottom - bandTop"
          rx="4"
          class="band"
        />
        <g transform="translate(6 0)">
          <polyline :points="ratingLine" class="rating" />
          <circle v-for="p in view.ratingPoints" :key="p.run" :cx="p.x" :cy="p.y" r="4" />
        </g>
      </svg>
      <ol v-roving="'.waypoint'" aria-label="Runs and changes, in their order">
        <template v-for="i in view.items" :key="i.id">
          <li v-if="i.kind === 'change'" class="tag" :class="i.end" :style="{ top: `${i.y - 24}px` }">
            <b><EndMark v-if="i.end" :end="i.end" small /> {{ i.title }}</b>
            <span>{{ i.detail }}</span>
            <span v-if="i.why" class="why" :title="i.why">{{ `“${i.why}”` }}</span>
          </li>
          <li v-else-if="i.kind === 'hour'" class="hour num" :style="{ top: `${i.y}px` }">
            <span class="soft">{{ clockWords(i.line.at) }}</span> {{ hourWords(i.line, units) }}
          </li>
          <li v-else class="stop" :style="{ top: `${i.y}px` }">
            <button
              type="button"
              class="waypoint num"
              :class="[i.run.kind, `ring-${i.ring % 6}`, { selected: selected === i.id }]"
              :style="{ left: `${i.x}px` }"
              :aria-label="describe(i)"
              :aria-pressed="selected === i.id"
              @click="click(i, $event)"
            >
              {{ i.number }}
            </button>
            <div class="label">
              <span class="soft small num">{{ clockWords(i.run.startedAt) }}</span>
              <span v-if="i.run.mind !== 'normal'" class="mind small">{{ mindWords[i.run.mind] }}</span>
              <RouterLink
                v-if="recorded.has(i.id)"
                :to="traceLink(i)"
                class="wave"
                :aria-label="`Trace of run ${i.number}`"
                ><IconWave aria-hidden="true"
              /></RouterLink>
              <b v-if="i.words || i.best">{{ i.best ? 'best rating' : i.words }}</b>
            </div>
            <b class="score num">{{ i.rating ?? '' }}</b>
          </li>
        </template>
      </ol>
      <span class="next num" :style="{ top: `${view.nextY}px`, left: `${view.nextX}px` }">{{
        view.nextNumber
      }}</span>
      <span class="nextword soft" :style="{ top: `${view.nextY}px` }">next</span>
    </div>
    <p v-if="view.shortNames.length" class="soft small">
      <template v-for="(n, i) in view.shortNames" :key="n.short"
        >{{ i ? ' · ' : '' }}{{ n.short }}:
        <RouterLink :to="{ name: 'handbook', params: { chapter: 'dials', page: keyOf(n.long) } }">{{
          n.long.toLowerCase()
        }}</RouterLink></template
      >
    </p>
    <p v-if="noiseWords" class="soft small">{{ noiseWords }}</p>
  </section>
</template>

<style scoped>
header {
  display: flex;
  justify-content: space-between;
  align-items: baseline;
}
.field {
  position: relative;
  margin: 0.4rem 0;
}
ol {
  list-style: none;
  margin: 0;
  padding: 0;
}
.field > svg {
  position: absolute;
  top: 0;
  left: 0;
}
.trail {
  fill: none;
  stroke: var(--paper-deep);
  stroke-width: 13;
  stroke-linecap: round;
  filter: brightness(0.94);
}
.dots {
  fill: none;
  stroke: var(--ink-soft);
  stroke-width: 1.6;
  stroke-dasharray: 1.5 5;
  stroke-linecap: round;
}
.field > .ratings {
  left: auto;
  right: 30px;
}
.band {
  fill: var(--sun-soft);
  opacity: 0.75;
}
.rating {
  fill: none;
  stroke: var(--front);
  stroke-width: 1.5;
}
circle {
  fill: var(--ink);
}
.stop {
  position: absolute;
  left: 0;
  right: 0;
  height: 0;
}
.waypoint {
  position: absolute;
  translate: -50% -50%;
  width: var(--touch);
  height: var(--touch);
  border-radius: 50%;
  border: 0;
  background: none;
  color: var(--card);
  font-weight: 700;
  isolation: isolate;
}
.waypoint::before {
  content: '';
  position: absolute;
  inset: 8px;
  border-radius: 50%;
  background: var(--ring);
  border: 3px solid var(--ring);
  z-index: -1;
}
.waypoint.warm-up {
  color: var(--ink);
}
.waypoint.warm-up::before {
  background: var(--card);
}
.waypoint.void {
  color: var(--ink-soft);
  text-decoration: line-through;
}
.waypoint.void::before {
  background: var(--card);
  border: 2px dashed var(--ink-soft);
}
.waypoint.selected::after {
  content: '';
  position: absolute;
  inset: 3px;
  border-radius: 50%;
  border: 3px solid var(--sun);
}
.ring-0 {
  --ring: #23483c;
}
.ring-1 {
  --ring: #33617f;
}
.ring-2 {
  --ring: #8a4a12;
}
.ring-3 {
  --ring: #5d4a86;
}
.ring-4 {
  --ring: #7a2f3d;
}
.ring-5 {
  --ring: #4d5953;
}
[data-bs-theme='dark'] .waypoint:not(.warm-up, .void) {
  color: #fdfaf2;
}
.label {
  position: absolute;
  left: 84px;
  translate: 0 -50%;
  line-height: 1.2;
  max-width: 104px;
}
.label b {
  display: block;
  font-size: 0.95rem;
}
.mind {
  display: block;
  color: var(--sun-ink);
}
.wave {
  display: inline-flex;
  padding: 8px;
  margin: -8px -4px;
  vertical-align: middle;
}
.score {
  position: absolute;
  right: 0;
  translate: 0 -50%;
  font-size: 1.05rem;
  min-width: 26px;
  text-align: right;
}
.tag {
  position: absolute;
  left: 82px;
  right: 58px;
  max-height: 96px;
  overflow: hidden;
  background: var(--card);
  border: 1px solid var(--line);
  border-left: 4px solid var(--ink-soft);
  border-radius: 8px;
  padding: 2px 7px 3px;
  line-height: 1.15;
  font-size: 0.8rem;
  z-index: 1;
}
.tag b {
  display: block;
  font-size: 0.84rem;
}
.why {
  display: block;
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
  font-style: italic;
}
.hour {
  position: absolute;
  left: 82px;
  right: 58px;
  max-height: 2.4em;
  overflow: hidden;
  padding-left: 7px;
  border-left: 4px solid var(--sun);
  font-size: 0.84rem;
  line-height: 1.2;
}
.tag.front {
  border-left-color: var(--front);
}
.tag.rear {
  border-left-color: var(--rear);
}
.next {
  position: absolute;
  translate: -50% -50%;
  width: 30px;
  height: 30px;
  border-radius: 50%;
  border: 2px dashed var(--ink);
  display: grid;
  place-items: center;
  background: var(--paper);
}
.nextword {
  position: absolute;
  left: 84px;
  translate: 0 -50%;
}
</style>
