<script setup lang="ts">
import { computed } from 'vue'
import LineFigure, { type FigureLine } from '../shell/LineFigure.vue'

/** How far from the best every run was, and how far others would have been with the same rider. */
const props = defineProps<{
  you: readonly number[]
  /** null: not played yet. */
  adviser: readonly number[] | null
  tester: readonly number[] | null
  noticeable: number
}>()
const points = (losses: readonly number[]) =>
  losses.map((x, i) => [i + 1, Math.round(100 * x) / 100] as [number, number])
const lines = computed<FigureLine[]>(() => [
  { name: 'you', points: points(props.you), colour: '--ink', width: 4, dotted: true },
  ...(props.adviser
    ? [
        {
          name: 'what the adviser would have done',
          points: points(props.adviser),
          colour: '--front',
          dashed: true,
        },
      ]
    : []),
  ...(props.tester
    ? [
        {
          name: 'one thing at a time, with a notebook',
          points: points(props.tester),
          colour: '--rust',
          dashed: true,
        },
      ]
    : []),
])
const all = computed(() => [...props.you, ...(props.adviser ?? []), ...(props.tester ?? [])])
const yMax = computed(() => Math.max(1, Math.ceil(Math.max(...all.value, 0))))
const xMax = computed(() =>
  Math.max(4, props.you.length, props.adviser?.length ?? 0, props.tester?.length ?? 0),
)
const label = computed(
  () =>
    `Rating points from the best, run by run: ${props.you.map((x, i) => `run ${i + 1} ${x.toFixed(1)}`).join(', ')}`,
)
</script>

<template>
  <LineFigure
    :label="label"
    :lines="lines"
    :marks="[{ axis: 'y', at: noticeable, name: 'below: too small to feel' }]"
    x-name="run"
    y-name="points from the best"
    :x-from="1"
    :x-max="xMax"
    :y-max="yMax"
    :say-x="(x) => `run ${x}`"
    :say-y="(y) => `${y.toFixed(1)} points from the best`"
  />
</template>
