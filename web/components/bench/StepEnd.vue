<script setup lang="ts">
import { computed, defineAsyncComponent, ref } from 'vue'
import { v7 as uuid } from 'uuid'
import type { Effort } from '#contract/bench'
import type { End } from '#contract/common'
import { judgeEndOfStroke, wishedDepthPct } from '#core/bench/endOfStroke'
import { useUnits } from '../../composables/useUnits.ts'
import { useBench } from '../../stores/bench.ts'
import { effortWords } from '../../support/benchWords.ts'
import { optionsOf } from '../../support/words.ts'
import EndMark from '../shell/EndMark.vue'
import NumberField from '../shell/NumberField.vue'

const SpacerFigure = defineAsyncComponent(() => import('./SpacerFigure.vue'))

/** How much of the travel a hard use takes, and whether the ramp at the end is right. */
const bench = useBench()
const { say } = useUnits()
const ring = ref<Record<End, number | null>>({ front: null, rear: null })
const effort = ref<Effort>('car-park')
const fault = ref<Partial<Record<End, string>>>({})

const ends = computed(() =>
  bench.units.map((u) => {
    const spacer = u.adjusters.find((a) => a.kind === 'spacer')
    const last = bench.bench!.travelReadings.filter((r) => r.end === u.end).at(-1)
    const sag = bench.sagNowPct(u.end)
    return {
      u,
      spacer,
      last,
      judged: last
        ? judgeEndOfStroke(
            last.ringMm,
            u.strokeMm,
            last.effort,
            sag === null ? null : sag - u.sagTargetPct,
            spacer ? bench.positionOf(spacer.id) : null,
            spacer?.kind === 'spacer' ? spacer.maxCount : null,
          )
        : null,
    }
  }),
)
const window = computed(() => wishedDepthPct[effort.value])
function keep(end: End) {
  const u = bench.unit(end)!
  const mm = ring.value[end]
  const wrong =
    mm === null || Number.isNaN(mm)
      ? 'Enter what the ring shows.'
      : mm < 0
        ? 'A ring reading cannot be below 0.'
        : mm > u.strokeMm
          ? `${say('length', mm)} is longer than the ${say('length', u.strokeMm)} this unit has; measure from wiper to ring.`
          : null
  fault.value = { ...fault.value, [end]: wrong ?? undefined }
  if (wrong || mm === null) return
  bench.set({
    travelReadings: [
      ...bench.bench!.travelReadings,
      { id: uuid(), end, at: new Date().toISOString(), ringMm: mm, effort: effort.value },
    ],
  })
  ring.value = { ...ring.value, [end]: null }
}
</script>

<template>
  <div class="step two-up">
    <div>
      <label class="form-label" for="effort">How hard it was used</label>
      <BFormSelect id="effort" v-model="effort" :options="optionsOf(effortWords)" />
      <p class="soft num">
        {{ `After ${effortWords[effort]}, ${window[0]} to ${window[1]} % of the travel is good.` }}
      </p>
    </div>
    <p v-if="bench.bench!.spacerSchool === 'start-full'" class="soft">
      Start full: begin with every spacer that is allowed, take one out at a time until the travel is just
      reached.
    </p>
    <section v-for="e in ends" :key="e.u.id" class="card-paper card half">
      <h2><EndMark :end="e.u.end" /> {{ e.u.end === 'front' ? 'Front' : 'Rear' }}, {{ e.u.name }}</h2>
      <form class="read" @submit.prevent="keep(e.u.end)">
        <NumberField
          v-model="ring[e.u.end]"
          :label="`Ring at its deepest, ${e.u.end}`"
          quantity="length"
          :fault="fault[e.u.end] ?? null"
          :hint="`of ${say('length', e.u.strokeMm)}`"
        />
        <BButton type="submit" variant="primary">Save the reading</BButton>
      </form>
      <p v-if="e.judged" role="status" class="judged num" :class="e.judged.verdict">
        <b>{{ `${e.judged.usedPct.toFixed(0)} % used.` }}</b> {{ e.judged.words }}
      </p>
      <SpacerFigure v-if="e.spacer && e.u.spring === 'air'" :end="e.u.end" />
    </section>
  </div>
</template>

<style scoped>
.step {
  display: grid;
  gap: 0.9rem;
}
p {
  margin: 0.2rem 0 0;
}
.card {
  padding: 0.8rem 1rem 1rem;
  display: grid;
  gap: 0.6rem;
}
.read {
  display: flex;
  gap: 0.8rem;
  align-items: start;
}
.read .btn {
  white-space: nowrap;
  margin-top: 1.55rem;
}
.judged {
  border-left: 6px solid var(--sun);
  padding-left: 0.9rem;
}
.judged.good {
  border-color: var(--moss);
}
</style>
