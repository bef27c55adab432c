<script setup lang="ts">
import { computed } from 'vue'
import type { Effect } from '#core/stats/session'
import { noticeable } from '#core/stats/verdict'
import { signedWords } from '../../support/words.ts'

/** The effect and its 80 % interval on a scale from worse to better; the grey middle is what nobody would notice. */
const props = defineProps<{ effect: Effect }>()
const reach = computed(() =>
  Math.max(2, Math.ceil(Math.max(Math.abs(props.effect.low80), Math.abs(props.effect.high80)))),
)
const of = (x: number) => signedWords(x, 1)
const at = (x: number) => `${(50 + (50 * x) / reach.value).toFixed(2)}%`
const span = computed(() => ({
  left: at(props.effect.low80),
  right: `calc(100% - ${at(props.effect.high80)})`,
}))
const dead = computed(() => ({ left: at(-noticeable), right: `calc(100% - ${at(noticeable)})` }))
const label = computed(
  () =>
    `Effect ${of(props.effect.effect)} rating points, 80 percent interval ${of(props.effect.low80)} to ${of(props.effect.high80)}`,
)
</script>

<template>
  <div class="effect" role="img" :aria-label="label">
    <span class="dead" :style="dead"></span>
    <span class="axis"></span>
    <span class="zero"></span>
    <span class="span" :style="span"></span>
    <span class="point" :style="{ left: at(effect.effect) }"></span>
    <span class="end left">B worse, {{ reach }} points</span>
    <span class="end mid">not to be noticed</span>
    <span class="end right">B better, {{ reach }} points</span>
  </div>
</template>

<style scoped>
.effect {
  position: relative;
  height: 62px;
  margin: 0.4rem 0 0.6rem;
}
.effect > span {
  position: absolute;
}
.axis {
  top: 20px;
  left: 0;
  right: 0;
  height: 1px;
  background: var(--ink-soft);
}
.zero {
  top: 6px;
  height: 28px;
  left: 50%;
  width: 1px;
  background: var(--ink-soft);
}
.dead {
  top: 4px;
  height: 32px;
  background: var(--paper-deep);
  border-radius: 6px;
}
.span {
  top: 14px;
  height: 12px;
  background: var(--sun);
  border-radius: 6px;
}
.point {
  top: 10px;
  width: 6px;
  height: 20px;
  margin-left: -3px;
  background: var(--ink);
  border-radius: 3px;
}
.end {
  bottom: 0;
  font-size: 0.83rem;
  color: var(--ink-soft);
}
.left {
  left: 0;
}
.right {
  right: 0;
}
.mid {
  left: 50%;
  translate: -50% 0;
}
</style>
