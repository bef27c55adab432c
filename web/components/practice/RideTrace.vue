<script setup lang="ts">
import { useMediaQuery, useResizeObserver } from '@vueuse/core'
import { computed, onBeforeUnmount, onMounted, ref, watch } from 'vue'
import type { TrailSection } from '#contract/trail'
import type { RiddenCourse } from '#core/practice/ride'
import { buildPyramid } from '#core/signal/pyramid'
import { token } from '../../support/chartTheme.ts'
import { courseStretches, paintCourse } from '../../support/depthCourse.ts'
import { timesAsFast } from '../../support/practiceWords.ts'

/** A ride as it goes by: front depth grows up, rear depth down, many times as fast as it was ridden. */
const props = defineProps<{ course: RiddenCourse; sections: readonly TrailSection[]; number: number }>()
const emit = defineEmits<{ over: [] }>()
const picture = ref<HTMLCanvasElement>()
const still = useMediaQuery('(prefers-reduced-motion: reduce)')
/** Share of the ride that has gone by. */
const gone = ref(0)
let frame = 0

const durationS = computed(() => props.course.depthPct.front.length / props.course.sampleRateHz)
const channels = computed(() => {
  const of = (depthPct: Float32Array) => ({ depthPct, pyramid: buildPyramid(depthPct) })
  return { front: of(props.course.depthPct.front), rear: of(props.course.depthPct.rear) }
})
const parts = computed(() =>
  props.course.sections.map((s) => ({
    id: s.id,
    name: props.sections.find((x) => x.id === s.id)?.name ?? '',
    left: (100 * s.startS) / durationS.value,
    width: (100 * (s.endS - s.startS)) / durationS.value,
  })),
)
const deepest = computed(() => {
  const most = (x: Float32Array) => Math.round(x.reduce((a, b) => Math.max(a, b), 0))
  return `Run ${props.number}, by the sensors: the front went to ${most(props.course.depthPct.front)} % of its travel, the rear to ${most(props.course.depthPct.rear)} %.`
})

function paint() {
  const canvas = picture.value
  const ctx = canvas?.getContext('2d')
  if (!canvas || !ctx) return
  const dense = window.devicePixelRatio
  canvas.width = Math.round(canvas.clientWidth * dense)
  canvas.height = Math.round(canvas.clientHeight * dense)
  const middle = canvas.height / 2
  ctx.fillStyle = token('--paper-deep')
  parts.value.forEach((p, i) => {
    if (i % 2) ctx.fillRect((p.left / 100) * canvas.width, 0, (p.width / 100) * canvas.width, canvas.height)
  })
  for (const end of ['front', 'rear'] as const) {
    const own = {
      width: canvas.width,
      timeZero: 0,
      perS: canvas.width / durationS.value,
      depthZero: middle,
      perPct: ((end === 'front' ? -1 : 1) * middle) / 104,
    }
    paintCourse(ctx, courseStretches(channels.value[end], props.course.sampleRateHz, own, null), own, {
      color: token(`--${end}`),
      lineWidth: 1.2 * dense,
      opacity: 1,
      areaOpacity: 0.3,
    })
  }
}
function run() {
  cancelAnimationFrame(frame)
  paint()
  if (still.value) return end()
  gone.value = 0
  const from = performance.now()
  const step = (now: number) => {
    gone.value = Math.min(1, ((now - from) * timesAsFast) / (1000 * durationS.value))
    if (gone.value < 1) frame = requestAnimationFrame(step)
    else emit('over')
  }
  frame = requestAnimationFrame(step)
}
/** To the end at once: for whoever does not want to watch. */
function end() {
  cancelAnimationFrame(frame)
  if (gone.value < 1) {
    gone.value = 1
    emit('over')
  }
}
onMounted(run)
watch(() => props.course, run)
useResizeObserver(picture, paint)
onBeforeUnmount(() => cancelAnimationFrame(frame))
</script>

<template>
  <figure class="ride">
    <div class="names" aria-hidden="true">
      <span v-for="p in parts" :key="p.id" :style="{ left: `${p.left}%`, width: `${p.width}%` }">{{
        p.name
      }}</span>
    </div>
    <div class="field">
      <canvas ref="picture" :style="{ clipPath: `inset(0 ${100 * (1 - gone)}% 0 0)` }" aria-hidden="true" />
      <span class="zero" aria-hidden="true"></span>
      <i v-if="gone < 1" class="now" :style="{ left: `${100 * gone}%` }" aria-hidden="true"></i>
      <span class="end-of front">front</span><span class="end-of rear">rear</span>
      <button v-if="gone < 1" type="button" class="btn btn-plain skip" @click="end">To the end</button>
    </div>
    <figcaption class="soft small">
      {{ gone < 1 ? `${timesAsFast} times as fast as ridden` : deepest }}
    </figcaption>
  </figure>
</template>

<style scoped>
.ride {
  margin: 0;
}
.names {
  position: relative;
  height: 1.3rem;
  font-size: 0.8rem;
}
.names span {
  position: absolute;
  overflow: hidden;
  white-space: nowrap;
  text-overflow: ellipsis;
  text-align: center;
}
.field {
  position: relative;
  height: 170px;
  border: 1px solid var(--line);
  border-radius: 8px;
  background: var(--card);
  overflow: hidden;
}
canvas {
  width: 100%;
  height: 100%;
  display: block;
}
.zero {
  position: absolute;
  inset: 50% 0 auto;
  border-top: 1px solid var(--ink-soft);
}
.now {
  position: absolute;
  top: 0;
  bottom: 0;
  border-left: 2px solid var(--sun);
}
.end-of {
  position: absolute;
  left: 6px;
  font-size: 0.8rem;
  padding: 0 0.25rem;
  background: color-mix(in srgb, var(--card) 80%, transparent);
}
.end-of.front {
  top: 4px;
  color: var(--front);
}
.end-of.rear {
  bottom: 4px;
  color: var(--rear);
}
.skip {
  position: absolute;
  right: 8px;
  bottom: 8px;
}
</style>
