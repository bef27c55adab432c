<script setup lang="ts">
import { useMediaQuery } from '@vueuse/core'
import { computed, ref } from 'vue'
import type { End } from '#contract/common'
import type { RecordingEvent } from '#contract/recording'
import type { TrailSection } from '#contract/trail'
import { zeroMovedWords, type ZeroMoved } from '#core/adviser/zeroMoved'
import type { DrawableRecording } from '../../composables/useRecording.ts'
import { durationWords } from '../../support/dates.ts'
import type { ReadRecording } from '../../support/figures.ts'
import { believedEvents } from '../../support/believedEvents.ts'
import { standsOut } from '../../support/standsOut.ts'
import DepthBySection from './DepthBySection.vue'
import EvidencePanel from './EvidencePanel.vue'
import JumpTo from './JumpTo.vue'
import MirrorTrace from './MirrorTrace.vue'
import SignalFigures from './SignalFigures.vue'

/** What the suspension did on one run, and what it says. */
const props = defineProps<{
  recording: ReadRecording
  /** null: its channels are still on their way, or `fault` says why they are not. */
  drawable: DrawableRecording | null
  fault: string
  sections: TrailSection[]
  /** Ride height that is meant, % of travel. */
  targets: Record<End, number | null>
  number: number
  /** Ends whose sensor shows what cannot be. */
  moved: readonly ZeroMoved[]
  /** A tap on the trace is waited for. */
  picking?: boolean
}>()
const emit = defineEmits<{ pick: [timeS: number] }>()

const wrongDepths = computed(() => props.moved.map((z) => z.end))
const events = computed(() => believedEvents(props.recording.analysis.events, wrongDepths.value))
const lines = computed(() =>
  standsOut(props.recording.analysis, props.sections, props.targets, wrongDepths.value),
)
/** Said above what rests on it. */
const cautions = computed(() => props.moved.map(zeroMovedWords))
const read = ref<{ timeS: number; front: number | null; rear: number | null } | null>(null)
const isTouch = useMediaQuery('(pointer: coarse)')
const depthWords = (v: number | null) => (v === null ? '·' : `${v.toFixed(0)} %`)
const readWords = computed(() =>
  read.value
    ? `${durationWords(read.value.timeS, 2)}  front ${depthWords(read.value.front)}  rear ${depthWords(read.value.rear)}`
    : `front grows up, rear grows down, 0 to 100 % of travel; drag to move, ${isTouch.value ? 'two fingers' : 'wheel'} to zoom`,
)
const trace = ref<InstanceType<typeof MirrorTrace>>()
const jump = (e: RecordingEvent) => trace.value?.showAt(e.startS, e.endS)
</script>

<template>
  <section class="card-paper stage">
    <div class="over">
      <span class="num" role="status">{{ readWords }}</span>
      <span class="tools">
        <JumpTo :events="events" @show="jump" />
        <slot name="tools" />
      </span>
    </div>
    <MirrorTrace
      v-if="drawable"
      ref="trace"
      :main="drawable"
      :sections="sections"
      :wrong-depths="wrongDepths"
      :label="`Depth of front and rear over time, run ${number}`"
      :class="{ picking }"
      @read="(r) => (read = r)"
      @pick="(t) => emit('pick', t)"
    />
    <p v-else class="soft wait" role="status">{{ fault || 'Fetching the channels …' }}</p>
    <p v-if="recording.analysis.sectionsDoubt" class="small note doubt" role="status">
      {{ recording.analysis.sectionsDoubt }}
    </p>
    <p v-for="words in cautions" :key="words" class="caution" role="status">{{ words }}</p>
    <slot name="notes" />
  </section>
  <slot name="below" />
  <div class="three">
    <DepthBySection
      :analysis="recording.analysis"
      :sections="sections"
      :targets="targets"
      :wrong-depths="wrongDepths"
    />
    <div class="stack">
      <slot name="figures" />
      <section class="card-paper panel" aria-labelledby="out-title">
        <h2 id="out-title">What stands out</h2>
        <p v-if="lines.length === 0" class="soft">Nothing that can be believed.</p>
        <ul v-else>
          <li v-for="l in lines" :key="l.title">
            <b :class="l.end ? `end-${l.end}` : ''">{{ l.title }}</b>
            <span class="soft">{{ l.detail }}</span>
          </li>
        </ul>
        <p v-for="i in recording.issues" :key="i.code" class="small soft">{{ i.message }}</p>
        <slot name="files" />
      </section>
    </div>
    <EvidencePanel :analysis="recording.analysis" :wrong-depths="wrongDepths" />
  </div>
  <SignalFigures :analysis="recording.analysis" />
</template>

<style scoped>
.stage {
  padding: 0.5rem 0.7rem 0.2rem;
  margin-bottom: 0.9rem;
}
.over {
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  gap: 0.4rem;
  font-size: 0.9rem;
  min-height: 32px;
}
.tools {
  display: flex;
  flex-wrap: wrap;
  gap: 0.4rem;
}
.tools > :slotted(button) {
  border: 1px solid var(--line);
  background: var(--paper);
  color: var(--ink);
  border-radius: 8px;
  min-height: 36px;
  padding: 0 0.7rem;
  font-size: 0.88rem;
}
.tools > :slotted(button)[aria-pressed='true'] {
  background: var(--sun);
  color: #1b2723;
}
.doubt {
  color: var(--rust);
  font-weight: 600;
}
.picking {
  cursor: crosshair;
  outline: 2px solid var(--sun);
}
.wait {
  height: 340px;
  display: grid;
  place-items: center;
}
.note,
:slotted(.note) {
  margin: 0 0 0.3rem;
}
.three {
  display: grid;
  grid-template-columns: minmax(0, 1.45fr) minmax(0, 1fr) minmax(0, 1fr);
  gap: 0.9rem;
  align-items: start;
}
.panel {
  padding: 0.9rem 1.1rem;
}
.stack {
  display: grid;
  gap: 0.9rem;
}
ul {
  list-style: none;
  padding: 0;
  margin: 0.5rem 0;
}
li {
  display: grid;
  border-bottom: 1px solid var(--line);
  padding: 0.35rem 0;
}
@media (pointer: coarse) {
  .over > .num {
    /* Two lines, whatever is read: the trace must not jump under a finger. */
    min-height: 2.9em;
    flex-basis: 100%;
  }
  .tools > :slotted(button) {
    min-height: var(--touch);
  }
}
@media (max-width: 1000px) {
  .three {
    grid-template-columns: 1fr;
  }
}
</style>
