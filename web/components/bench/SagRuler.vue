<script setup lang="ts">
import { computed } from 'vue'
import type { End } from '#contract/common'
import { sagWindowPct } from '#core/spring/sag'
import { toChosen, chosenNumber } from '#core/units/choice'
import { useUnits } from '../../composables/useUnits.ts'

/** The shaft to scale: its whole stroke, the target window, where the ring stands and where it is expected next. */
const props = defineProps<{
  end: End
  strokeMm: number
  targetPct: number
  sagPct: number | null
  expectedPct?: number | null
  expectedSpreadPct?: number | null
}>()
const { units, say } = useUnits()
const wide = 1000
const left = 26
const x = (pct: number) => left + (Math.min(100, Math.max(0, pct)) / 100) * (wide - 2 * left)
const metric = computed(() => units.value.length === 'mm')
/** Marks at whole millimetres, or eighths of an inch. */
const marks = computed(() => {
  const step = metric.value ? 1 : 25.4 / 8
  const major = metric.value ? 10 : 8
  const half = metric.value ? 5 : 4
  return Array.from({ length: Math.floor(props.strokeMm / step) + 1 }, (_, i) => ({
    x: x((100 * i * step) / props.strokeMm),
    size: i % major === 0 ? 22 : i % half === 0 ? 15 : 8,
    label:
      i % (metric.value && props.strokeMm > 90 ? 2 * major : major) === 0
        ? chosenNumber('length', i * step, units.value)
        : '',
  }))
})
const half = computed(() => sagWindowPct(props.strokeMm))
const mm = (pct: number) => (pct / 100) * props.strokeMm
const label = computed(() => {
  const target = `target ${props.targetPct} %, ${say('length', mm(props.targetPct))} of ${say('length', props.strokeMm)}`
  return props.sagPct === null
    ? `Sag ruler, ${target}`
    : `Sag ruler, ${target}; the ring stands at ${say('length', mm(props.sagPct))}, ${props.sagPct.toFixed(1)} %`
})
const unitName = computed(() => (toChosen('length', 1, units.value) === 1 ? 'mm' : 'in'))
</script>

<template>
  <div class="place">
    <svg class="ruler" :class="end" :viewBox="`0 0 ${wide} 150`" role="img" :aria-label="label">
      <rect :x="left" y="46" :width="wide - 2 * left" height="58" rx="8" class="shaft" />
      <rect
        :x="x(targetPct - half)"
        y="46"
        :width="x(targetPct + half) - x(targetPct - half)"
        height="58"
        class="window"
      />
      <line :x1="x(targetPct)" :x2="x(targetPct)" y1="40" y2="110" class="target" />
      <text :x="x(targetPct)" y="30" class="big target-text">{{ targetPct }} %</text>
      <g v-for="(m, i) in marks" :key="i">
        <line :x1="m.x" :x2="m.x" y1="104" :y2="104 - m.size" class="mark" />
        <text v-if="m.label" :x="m.x" y="130" class="small">{{ m.label }}</text>
      </g>
      <text :x="wide - 6" y="148" class="small unit">{{ unitName }}</text>
      <!-- The wiper at 0: the shaft goes in to its right. -->
      <rect :x="left - 22" y="34" width="22" height="82" rx="4" class="wiper" />
      <g v-if="typeof expectedPct === 'number'">
        <rect
          v-if="expectedSpreadPct"
          :x="x(expectedPct - expectedSpreadPct)"
          y="58"
          :width="Math.max(4, x(expectedPct + expectedSpreadPct) - x(expectedPct - expectedSpreadPct))"
          height="34"
          class="spread"
        />
        <rect :x="x(expectedPct) - 7" y="50" width="14" height="50" rx="7" class="ring ghost" />
      </g>
      <g v-if="sagPct !== null">
        <rect :x="x(sagPct) - 7" y="42" width="14" height="66" rx="7" class="ring" />
        <text
          :x="Math.min(wide - 70, Math.max(70, x(sagPct)))"
          y="30"
          class="big ring-text"
          :class="{ away: Math.abs(x(sagPct) - x(targetPct)) < 110 }"
          :dx="Math.abs(x(sagPct) - x(targetPct)) < 110 ? (sagPct >= targetPct ? 120 : -120) : 0"
        >
          {{ sagPct.toFixed(1) }} %
        </text>
      </g>
    </svg>
  </div>
</template>

<style scoped>
.place {
  container: ruler / inline-size;
}
.ruler {
  --end: var(--front);
  --end-soft: var(--front-soft);
  display: block;
  width: 100%;
  height: auto;
}
.ruler.rear {
  --end: var(--rear);
  --end-soft: var(--rear-soft);
}
.shaft {
  fill: var(--paper-deep);
  stroke: var(--ink-soft);
}
.window {
  fill: var(--end-soft);
  stroke: var(--end);
}
.target {
  stroke: var(--end);
  stroke-width: 3;
  stroke-dasharray: 5 4;
}
.mark {
  stroke: var(--ink);
  stroke-width: 1.5;
}
.wiper {
  fill: var(--ink);
}
.ring {
  fill: var(--sun);
  stroke: var(--ink);
  stroke-width: 2;
}
.ghost {
  fill: none;
  stroke-dasharray: 5 3;
  stroke: var(--end);
  stroke-width: 3;
}
.spread {
  fill: var(--end);
  opacity: 0.22;
}
text {
  fill: var(--ink);
  text-anchor: middle;
  font-variant-numeric: tabular-nums;
}
.big {
  font-size: 28px;
  font-weight: 650;
}
.target-text {
  fill: var(--end);
}
.small {
  font-size: 21px;
  fill: var(--ink-soft);
}
.unit {
  text-anchor: end;
}
/* The drawing shrinks with its place; its figures do not. */
@container ruler (max-width: 640px) {
  .big {
    font-size: 42px;
  }
  .small {
    font-size: 32px;
  }
}
</style>
