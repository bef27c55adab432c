<script setup lang="ts">
import { vRoving } from '../../support/roving.ts'
import { computed, ref, toRef, watch } from 'vue'
import { v7 as uuid } from 'uuid'
import type { ReadingMark, SagMethod, SagReading } from '#contract/bench'
import type { End } from '#contract/common'
import { adjusterRange } from '#core/adjusters/range'
import { InputError } from '#core/errors'
import { truePressurePsi } from '#core/spring/gauge'
import { sagAtUnitMm, unitSlipMm, type RingEdge, type SagMeasurement } from '#core/spring/reading'
import { useUnits } from '../../composables/useUnits.ts'
import { useSagStep } from '../../composables/useSagStep.ts'
import { useBench } from '../../stores/bench.ts'
import { methodWords } from '../../support/benchWords.ts'
import NumberField from '../shell/NumberField.vue'
import ChoiceRow from './ChoiceRow.vue'
import { strokePct } from '#core/spring/sag'

const props = defineProps<{ end: End; together: boolean }>()
const bench = useBench()
const { say } = useUnits()
const { unit, main, spacers, pressurePsi, gauge, leverage, wheelMm, onGauge } = useSagStep(
  toRef(props, 'end'),
)

const method = ref<SagMethod>(unit.value.spring === 'coil' ? 'eye-to-eye' : 'ring')
const entered = ref<'length' | 'per-cent'>('length')
const edge = ref<RingEdge>('facing-wiper')
const ring = ref<number | null>(null)
const free = ref<number | null>(null)
const loaded = ref<number | null>(null)
const shownPsi = ref<number | null>(null)
const fault = ref<string | null>(null)
/** A number that was most likely typed in the other unit. */
const slip = ref<{ typed: number; meantMm: number } | null>(null)

// Filled in only where somebody has set or read it: an estimate is no reading of a gauge.
watch(
  [pressurePsi, gauge],
  () => {
    const psi = pressurePsi.value
    const how = main.value ? bench.knownOf(main.value.id)?.how : undefined
    shownPsi.value = psi === null || how === 'assumed' ? null : Math.round(onGauge(psi) * 10) / 10
  },
  { immediate: true },
)
/** What spoils a reading, said by whoever took it; kept for the next one of this form. */
const said = ref<ReadingMark[]>([])
const spoils: readonly { mark: ReadingMark; words: string }[] = [
  { mark: 'brakes-held', words: 'Brakes were held' },
  { mark: 'kit-missing', words: 'Without all the kit' },
]
const toggle = (mark: ReadingMark) =>
  (said.value = said.value.includes(mark) ? said.value.filter((m) => m !== mark) : [...said.value, mark])
const openable = computed(() =>
  unit.value.adjusters.filter((a) => a.kind === 'lever' || a.role.includes('compression')),
)
/** null: nobody has said whether levers and compression are open. */
function openMarks(): ReadingMark[] | null {
  const marks: ReadingMark[] = []
  for (const a of openable.value) {
    const at = bench.positionOf(a.id)
    const firstHand = at !== null && bench.knownOf(a.id)?.how !== 'assumed'
    const ticked = bench.bench!.checks.includes(a.kind === 'lever' ? 'levers-open' : 'compression-open')
    const isOpen = a.kind === 'lever' ? at === 0 : at === adjusterRange(a).max
    if (firstHand && !isOpen) marks.push(a.kind === 'lever' ? 'lever-closed' : 'compression-closed')
    else if (!firstHand && !ticked) return null
  }
  return [...new Set(marks)]
}
const asking = ref(false)
function answerOpen(isOpen: boolean) {
  asking.value = false
  if (!isOpen) return keep(false, ['not-confirmed-open'])
  for (const a of openable.value)
    bench.setPosition(props.end, a.id, a.kind === 'lever' ? 0 : adjusterRange(a).max)
  keep()
}
const methods = computed(() =>
  (['ring', 'eye-to-eye', 'wheel'] as const)
    .filter((m) => m !== 'eye-to-eye' || props.end === 'rear' || unit.value.spring === 'coil')
    .map((value) => ({ value, text: methodWords[value] })),
)
const spring = computed(() => unit.value.adjusters.find((a) => a.kind === 'spring-rate'))
const preload = computed(() => unit.value.adjusters.find((a) => a.kind === 'turn' && a.role === 'preload'))

const enteredOptions = [
  { value: 'length', text: 'length' },
  { value: 'per-cent', text: 'per cent' },
] as const
const edgeOptions = [
  { value: 'facing-wiper', text: 'facing the wiper' },
  { value: 'far-edge', text: 'far edge, 2 mm taken off' },
] as const
const howWords = computed(() =>
  method.value !== 'ring'
    ? `Read ${methodWords[method.value]}`
    : entered.value === 'per-cent'
      ? 'Read on the ring, in per cent'
      : `Read on the ring, edge ${edge.value === 'far-edge' ? 'away from' : 'facing'} the wiper`,
)

function measurement(): SagMeasurement | null {
  if (method.value === 'ring')
    return ring.value === null ? null : { method: 'ring', ringMm: ring.value, edge: edge.value }
  if (free.value === null || loaded.value === null) return null
  return method.value === 'wheel'
    ? { method: 'wheel', unloadedMm: free.value, loadedMm: loaded.value }
    : { method: 'eye-to-eye', freeMm: free.value, loadedMm: loaded.value }
}

function sagMm(): number | null {
  if (method.value === 'ring' && entered.value === 'per-cent') {
    if (ring.value === null) return null
    if (!(ring.value >= 0 && ring.value <= 100))
      throw new InputError('sag.reading-range', { got: ring.value })
    return (ring.value / 100) * unit.value.strokeMm
  }
  const m = measurement()
  return m && sagAtUnitMm(m, unit.value.strokeMm, leverage.value, wheelMm.value)
}

/** Keeps the reading, or says what is wrong with it; a likely slip is asked about first. */
function keep(certain = false, openness: ReadingMark[] | null = openMarks()) {
  asking.value = false
  fault.value = null
  slip.value = null
  try {
    const mm = sagMm()
    if (mm === null || Number.isNaN(mm)) return (fault.value = 'Enter what you measured.')
    const limits = main.value
    const psi =
      limits && shownPsi.value !== null
        ? truePressurePsi(shownPsi.value, gauge.value?.readsHighPsi ?? 0)
        : null
    if (limits && (psi === null || Number.isNaN(psi))) return (fault.value = 'Enter what the gauge shows.')
    if (limits && psi !== null && psi > limits.maxPsi)
      return (fault.value = `${say('pressure', psi)} is above the ${say('pressure', limits.maxPsi)} this unit may have; let air out slowly.`)
    if (limits && psi !== null && psi < 1)
      return (fault.value = 'The pressure must be above 0; read the gauge again.')
    const typed = method.value === 'ring' ? ring.value : null
    if (!certain && typed !== null) {
      const { strokeMm, sagTargetPct } = unit.value
      const as = entered.value === 'per-cent' ? 'per-cent' : 'mm'
      const meantMm = unitSlipMm(typed, as, strokeMm, sagTargetPct)
      if (meantMm !== null) return (slip.value = { typed, meantMm })
    }
    if (openness === null) return (asking.value = true)
    if (
      limits &&
      psi !== null &&
      (pressurePsi.value === null || firstHandPsi() === null || Math.abs(psi - pressurePsi.value) > 0.05)
    )
      bench.setPosition(props.end, limits.id, psi)
    const reading: SagReading = {
      id: uuid(),
      end: props.end,
      at: new Date().toISOString(),
      method: method.value,
      // Both ends together are read standing ready, whatever each alone was.
      posture: props.together ? 'ready' : bench.bench!.posture[props.end],
      together: props.together,
      sagMm: mm,
      pressurePsi: psi,
      gaugeId: bench.bench!.gaugeId[props.end],
      marks: [...new Set([...openness, ...said.value])],
      springRateNPerMm: spring.value ? bench.positionOf(spring.value.id) : null,
      preloadTurns:
        preload.value?.kind === 'turn' && bench.positionOf(preload.value.id) !== null
          ? preload.value.turns - bench.positionOf(preload.value.id)!
          : null,
      spacers: spacers.value,
      leftOut: false,
    }
    bench.set({ readings: [...bench.bench!.readings, reading] })
    ring.value = loaded.value = null
  } catch (e) {
    if (!(e instanceof InputError)) throw e
    fault.value = e.message
  }
}
/** The pressure, where somebody set or read it. */
const firstHandPsi = () =>
  main.value && bench.knownOf(main.value.id)?.how !== 'assumed' ? pressurePsi.value : null
/** It was meant in the other unit: keep it so. */
function meantOther() {
  const other = slip.value
  if (!other) return
  entered.value = entered.value === 'length' ? 'per-cent' : 'length'
  keep(true)
}
const slipWords = computed(() => {
  if (!slip.value) return null
  const { typed, meantMm } = slip.value
  const { strokeMm } = unit.value
  return entered.value === 'length'
    ? {
        ask: `${say('length', typed)} of ${say('length', strokeMm)} is ${Math.round(strokePct(typed, strokeMm))} %. Was it ${Math.round(typed)} per cent?`,
        yes: 'Yes, per cent',
        no: 'No, it is a length',
      }
    : {
        ask: `${typed} % of ${say('length', strokeMm)} is ${say('length', (typed / 100) * strokeMm)}. Was it ${say('length', meantMm)}?`,
        yes: 'Yes, a length',
        no: 'No, it is per cent',
      }
})
</script>

<template>
  <form class="form" @submit.prevent="keep()">
    <div class="field-grid">
      <NumberField
        v-if="main"
        v-model="shownPsi"
        :label="gauge ? `${gauge.name} shows` : 'Pressure on the gauge'"
        quantity="pressure"
        :hint="`most: ${say('pressure', main.maxPsi)}`"
      />
      <template v-if="method === 'ring'">
        <NumberField
          v-if="entered === 'length'"
          v-model="ring"
          label="Wiper to ring"
          quantity="length"
          :hint="`of ${say('length', unit.strokeMm)}`"
        />
        <NumberField v-else v-model="ring" label="Sag" unit="%" />
      </template>
      <template v-else-if="method === 'eye-to-eye'">
        <NumberField v-model="free" label="Eye to eye, unloaded" quantity="length" />
        <NumberField v-model="loaded" label="Eye to eye, loaded" quantity="length" />
      </template>
      <template v-else>
        <NumberField
          v-model="free"
          label="Axle to a mark above, unloaded"
          quantity="length"
          hint="saddle or bar, straight up"
        />
        <NumberField v-model="loaded" label="The same, loaded" quantity="length" />
      </template>
    </div>
    <details>
      <summary>{{ howWords }}</summary>
      <div class="two">
        <ChoiceRow v-model="method" label="Read by" :options="methods" />
        <template v-if="method === 'ring'">
          <ChoiceRow v-model="entered" label="Typed as" :options="enteredOptions" />
          <ChoiceRow
            v-if="entered === 'length'"
            v-model="edge"
            label="Edge of the ring"
            :options="edgeOptions"
          />
        </template>
      </div>
    </details>
    <div v-if="slipWords" class="caution slip" role="alert">
      <span>{{ slipWords.ask }}</span>
      <BButton variant="plain" @click="meantOther">{{ slipWords.yes }}</BButton>
      <BButton variant="plain" @click="keep(true)">{{ slipWords.no }}</BButton>
    </div>
    <fieldset class="spoils">
      <legend class="form-label">Was anything not as it should be?</legend>
      <span v-roving class="choice">
        <button
          v-for="x in spoils"
          :key="x.mark"
          type="button"
          :aria-pressed="said.includes(x.mark)"
          @click="toggle(x.mark)"
        >
          {{ x.words }}
        </button>
      </span>
    </fieldset>
    <div v-if="asking" class="caution slip" role="alert">
      <span>Are the levers and all compression open at this end?</span>
      <BButton variant="plain" @click="answerOpen(true)">Yes, open</BButton>
      <BButton variant="plain" @click="answerOpen(false)">No, or not sure</BButton>
    </div>
    <p v-if="fault" class="fault" role="alert">{{ fault }}</p>
    <BButton type="submit" variant="primary">Save this reading</BButton>
  </form>
</template>

<style scoped>
.spoils {
  border: 0;
  padding: 0;
  margin: 0;
}
.form {
  display: grid;
  gap: 0.6rem;
  justify-items: start;
}
.form > .field-grid {
  width: 100%;
}
.two {
  display: flex;
  flex-wrap: wrap;
  gap: 0.4rem 1.4rem;
}
.slip {
  flex-wrap: wrap;
  align-items: center;
}
.fault {
  color: var(--rust);
  font-weight: 600;
  margin: 0;
}
</style>
