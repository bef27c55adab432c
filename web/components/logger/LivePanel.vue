<script setup lang="ts">
import { computed } from 'vue'
import type { LiveSample, LoggerChannel, LoggerIdentity, LoggerState } from '#contract/logger'
import type { HeldSteps } from '#core/devices/calibrationStep'
import EndMark from '../shell/EndMark.vue'

/** What the device reads now: one bar per end over its range, with the held ends of the stroke marked. */
const props = defineProps<{
  identity: LoggerIdentity
  state: LoggerState | null
  sample: LiveSample | null
  silent: boolean
  held: HeldSteps
}>()
const share = (c: LoggerChannel, v: number) => {
  const [low, high] = [c.low ?? 0, c.high ?? 1]
  return `${Math.min(100, Math.max(0, (100 * (v - low)) / (high - low)))}%`
}
const rows = computed(() =>
  props.identity.channels
    .filter((c) => c.end)
    .map((c) => {
      const value = props.sample?.values[c.key] ?? null
      const marks = (['extended', 'compressed', 'baseline', 'deep-1', 'deep-2', 'deep-3'] as const).flatMap(
        (key) => {
          const m = props.held[key]?.channels[c.key]?.mean
          return m === undefined ? [] : [{ key, left: share(c, m) }]
        },
      )
      return {
        key: c.key,
        end: c.end!,
        words:
          value === null
            ? 'no reading'
            : `${value.toFixed(c.unit === 'raw' ? 0 : 1)} ${c.unit === 'raw' ? 'counts' : c.unit}`,
        width: value === null ? '0%' : share(c, value),
        range: `0 to ${c.high}`,
        marks,
      }
    }),
)
const battery = computed(() =>
  props.state ? `battery ${Math.round(props.state.batteryPct)} %` : 'no answer',
)
const stream = computed(() => (props.silent ? 'silent' : props.sample ? 'live' : 'waiting'))
const bar = computed(() => {
  const g = props.sample?.values.bar_g
  return g === null || g === undefined ? null : `bar ${g.toFixed(2)} g`
})
</script>

<template>
  <section class="card-paper live" aria-labelledby="live-title">
    <header>
      <h2 id="live-title">It reads now</h2>
      <span class="num small" :class="{ warn: silent }">{{ stream }}</span>
      <span class="num small">{{ battery }}</span>
    </header>
    <div v-for="r in rows" :key="r.key" class="row">
      <span class="m"><EndMark :end="r.end" small /></span><b>{{ r.end }}</b>
      <span class="num reading">{{ r.words }}</span>
      <div class="track" :class="r.end">
        <i class="now" :style="{ width: r.width }"></i>
        <i v-for="m in r.marks" :key="m.key" class="held-at" :style="{ left: m.left }" :title="m.key"></i>
      </div>
      <span class="small soft num">{{ r.range }}</span>
    </div>
    <p v-if="bar" class="small soft num bar-g">{{ bar }}</p>
  </section>
</template>

<style scoped>
.live {
  padding: 0.8rem 1rem;
}
header {
  display: flex;
  gap: 1rem;
  align-items: baseline;
}
header h2 {
  flex: 1;
}
.warn {
  color: var(--rust);
  font-weight: 700;
}
.row {
  display: grid;
  grid-template-columns: 1rem 3.2rem 8.2rem minmax(0, 1fr) 6rem;
  gap: 0.5rem;
  align-items: center;
  margin-top: 0.5rem;
}
.reading {
  font-size: 1.15rem;
  font-weight: 700;
  text-align: right;
}
.track {
  position: relative;
  height: 16px;
  background: var(--paper-deep);
  border-radius: 4px;
}
.now {
  position: absolute;
  inset: 0 auto 0 0;
  border-radius: 4px;
  background: var(--front);
}
.rear .now {
  background: var(--rear);
}
.held-at {
  position: absolute;
  top: -4px;
  bottom: -4px;
  width: 2px;
  background: var(--ink);
}
.bar-g {
  margin: 0.4rem 0 0;
}
@media (max-width: 560px) {
  .row {
    grid-template-columns: 1rem 3.2rem 1fr auto;
  }
  .track {
    grid-column: 1 / -1;
    grid-row: 2;
  }
}
</style>
