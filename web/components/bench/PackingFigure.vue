<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Adjuster } from '#contract/adjuster'
import type { End } from '#contract/common'
import { distanceWords, effectWord } from '#core/adjusters/words'
import { usualRatioPerClick } from '#core/damper/clicks'
import {
  airFrequencyRadS,
  cleanSpeedMS,
  coilFrequencyRadS,
  packedDepthPct,
  recoveryTimeS,
} from '#core/damper/recovery'
import { reboundRatioFor } from '#core/damper/startClicks'
import { unitAir } from '#core/spring/unitSpring'
import RangeField from '../shell/RangeField.vue'
import LineFigure, { type FigureLine } from '../shell/LineFigure.vue'
import { useBench } from '../../stores/bench.ts'

/** Up to what speed the way back out keeps up with hits in a row, at the present click and two to either side. */
const props = defineProps<{ end: End; dial: Extract<Adjuster, { kind: 'click' | 'turn' }> }>()
const bench = useBench()
const addedPct = ref(20)
const spacingM = ref(1)
const speedKmh = ref(25)
const kmhPerMs = 3.6

const unit = computed(() => bench.unit(props.end)!)
const travelM = computed(
  () =>
    (props.end === 'front'
      ? unit.value.strokeMm
      : (bench.bike?.rearWheelTravelMm ?? unit.value.strokeMm * 2.6)) / 1000,
)
const omega = computed(() => {
  const sag = unit.value.sagTargetPct
  const main = unit.value.adjusters.find((a) => a.role === 'main-pressure')
  const spacer = unit.value.adjusters.find((a) => a.kind === 'spacer')
  const psi = main ? bench.positionOf(main.id) : null
  return psi && psi > 0
    ? airFrequencyRadS(
        sag,
        psi,
        spacer ? (bench.positionOf(spacer.id) ?? 0) : 0,
        unitAir(unit.value).shape,
        travelM.value,
      )
    : coilFrequencyRadS((sag / 100) * travelM.value, 0)
})
const now = computed(() => bench.positionOf(props.dial.id) ?? 0)
/** The present click is taken to give the damping ratio that is usual for this rider: stated beside the chart. */
const ratioNow = computed(() => reboundRatioFor[bench.rider?.level ?? 'intermediate'])
const step = computed(() => (props.dial.kind === 'click' ? 1 : props.dial.turns / 12))
const most = computed(() => (props.dial.kind === 'click' ? props.dial.clicks : props.dial.turns))
const cases = computed(() =>
  [-2, 0, 2]
    .map((d) => ({ d, at: now.value + d * step.value }))
    .filter((c) => c.at >= 0 && c.at <= most.value)
    .map((c) => ({
      ...c,
      ratio: ratioNow.value * Math.pow(usualRatioPerClick.low, -c.d),
      name:
        c.d === 0
          ? 'as it stands'
          : `${distanceWords(props.dial, now.value, c.at)} ${effectWord(props.dial, now.value, c.at)}`,
    })),
)
const colours = {
  '-2': '--rust',
  '0': props.end === 'front' ? '--front' : '--rear',
  '2': '--moss',
} as Record<string, string>
const lines = computed<FigureLine[]>(() =>
  cases.value.map((c) => ({
    name: c.name,
    colour: colours[String(c.d)],
    width: c.d === 0 ? 3 : 2,
    dashed: c.d !== 0,
    filled: c.d === 0,
    points: Array.from({ length: 46 }, (_, i) => {
      const s = 0.3 + i * 0.06
      return [s, cleanSpeedMS(addedPct.value, s, omega.value, c.ratio) * kmhPerMs] as [number, number]
    }),
  })),
)
const here = computed(() => {
  const packed = packedDepthPct(
    addedPct.value,
    spacingM.value,
    speedKmh.value / kmhPerMs,
    omega.value,
    ratioNow.value,
  )
  const limit = cleanSpeedMS(addedPct.value, spacingM.value, omega.value, ratioNow.value) * kmhPerMs
  const back = recoveryTimeS(omega.value, ratioNow.value)
  return {
    packed: packed === Infinity ? 'all of it' : `${packed.toFixed(0)} % of travel`,
    limit: Math.round(limit),
    back: Math.round(back * 1000),
    between: Math.round((spacingM.value / (speedKmh.value / kmhPerMs)) * 1000),
    over: speedKmh.value > limit,
  }
})
</script>

<template>
  <section class="packing">
    <h3>Does it keep up with hits in a row?</h3>
    <LineFigure
      label="Clean speed over the distance between hits, for three rebound positions"
      :lines="lines"
      :marks="[
        { axis: 'x', at: spacingM, name: '' },
        { axis: 'y', at: speedKmh, name: 'your speed' },
      ]"
      x-name="metres between hits"
      y-name="km/h"
      :x-max="3"
      :y-max="60"
      :say-x="(x) => `${x.toFixed(2)} m apart`"
      :say-y="(y) => `clean to ${y.toFixed(0)} km/h`"
    />
    <div class="sliders">
      <RangeField
        v-model="spacingM"
        :label="`Hits ${spacingM.toFixed(1)} m apart`"
        :min="0.4"
        :max="3"
        :step="0.1"
      />
      <RangeField v-model="speedKmh" :label="`at ${speedKmh} km/h`" :min="8" :max="50" :step="1" />
      <RangeField v-model="addedPct" :label="`each ${addedPct} % of travel`" :min="5" :max="50" :step="5" />
    </div>
    <p :class="{ over: here.over }" class="num">
      {{
        `A hit every ${here.between} ms, back by nine tenths in ${here.back} ms: it stays down by ${here.packed}. Clean up to about ${here.limit} km/h.`
      }}
    </p>
    <p class="soft small">
      {{
        `Taken as a damping ratio of ${ratioNow} where it stands now, and ${Math.round((usualRatioPerClick.low - 1) * 100)} % a click; trail runs tell the truth. Above a line it packs down by more than a tenth of the travel.`
      }}
    </p>
  </section>
</template>

<style scoped>
.packing {
  display: grid;
  gap: 0.4rem;
}
.sliders {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(170px, 1fr));
  gap: 0.3rem 1rem;
}
p {
  margin: 0;
}
.over {
  color: var(--rust);
  font-weight: 600;
}
</style>
