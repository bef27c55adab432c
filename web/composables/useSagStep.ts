import { computed, type Ref } from 'vue'
import type { SagReading } from '#contract/bench'
import type { End } from '#contract/common'
import type { SuspensionUnit } from '#contract/unit'
import { leverageOf, wheelTravelMm, type Leverage } from '#core/linkage/leverage'
import { InputError } from '#core/errors'
import { afterReconnectPsi, chamberCc, shownByGaugePsi } from '#core/spring/gauge'
import { judgeRepeats } from '#core/spring/reading'
import { sagWindowPct } from '#core/spring/sag'
import { solveSag, type SagSolution } from '#core/spring/solver'
import { unitAir } from '#core/spring/unitSpring'
import { ambientPa } from '#core/spring/weather'
import { useBench } from '../stores/bench.ts'
import { useGarage } from '../stores/garage.ts'

/** What the readings of one end say: where it stands, whether they agree, and what to set next. */
export function useSagStep(end: Ref<End>) {
  const bench = useBench()
  const garage = useGarage()
  const unit = computed(() => bench.unit(end.value) as SuspensionUnit)
  const main = computed(() => {
    const a = unit.value.adjusters.find((x) => x.kind === 'pressure' && x.role === 'main-pressure')
    return a?.kind === 'pressure' ? a : null
  })
  const spacerDial = computed(() => {
    const a = unit.value.adjusters.find((x) => x.kind === 'spacer')
    return a?.kind === 'spacer' ? a : null
  })
  const spacers = computed(() => (spacerDial.value ? (bench.positionOf(spacerDial.value.id) ?? 0) : 0))
  const pressurePsi = computed(() => (main.value ? bench.positionOf(main.value.id) : null))
  const gauge = computed(() => garage.gauge(bench.bench?.gaugeId[end.value] ?? null))
  const leverage = computed<Leverage | null>(() =>
    end.value === 'rear' && bench.bike ? leverageOf(bench.bike, unit.value.strokeMm) : null,
  )
  /** Wheel travel of a rear unit, or the fork's own; null when not known. */
  const wheelMm = computed(() =>
    end.value === 'front'
      ? unit.value.strokeMm
      : leverage.value
        ? wheelTravelMm(unit.value.strokeMm, leverage.value)
        : (bench.bike?.rearWheelTravelMm ?? null),
  )
  const readings = computed(() => bench.readingsOf(end.value).filter((r) => !r.together))
  const pctOf = (r: SagReading) => (100 * r.sagMm) / unit.value.strokeMm
  const last = computed(() => readings.value.at(-1) ?? null)
  /** Readings alike in all that moves sag: repeats of the last. */
  const repeats = computed(() =>
    readings.value.filter(
      (r) =>
        last.value &&
        r.pressurePsi === last.value.pressurePsi &&
        r.springRateNPerMm === last.value.springRateNPerMm &&
        r.preloadTurns === last.value.preloadTurns &&
        r.spacers === last.value.spacers &&
        r.posture === last.value.posture &&
        r.together === last.value.together,
    ),
  )
  const judged = computed(() => (repeats.value.length ? judgeRepeats(repeats.value.map(pctOf)) : null))
  const sagPct = computed(() => judged.value?.meanPct ?? null)
  const offPct = computed(() => (sagPct.value === null ? null : sagPct.value - unit.value.sagTargetPct))
  const inWindow = computed(() => offPct.value !== null && Math.abs(offPct.value) <= sagWindowPct)
  /** Postures other than the one that counts now. */
  const otherPosture = computed(
    () => readings.value.find((r) => r.posture !== bench.bench?.posture[end.value])?.posture ?? null,
  )
  const solution = computed<SagSolution | null>(() => {
    const limits = main.value
    const posture = bench.bench?.posture[end.value]
    // Readings in another posture carry another load: they cannot be averaged.
    const usable = readings.value.filter(
      (r) => r.posture === posture && r.pressurePsi !== null && pctOf(r) > 0 && pctOf(r) < 100,
    )
    if (!limits || usable.length === 0) return null
    try {
      return solveSag(
        usable.map((r) => ({ sagPct: pctOf(r), pressurePsi: r.pressurePsi!, spacers: r.spacers })),
        {
          shape: unitAir(unit.value).shape,
          strokeMm: unit.value.strokeMm,
          targetPct: unit.value.sagTargetPct,
          spacers: spacers.value,
          minPsi: limits.minPsi,
          maxPsi: limits.maxPsi,
          ambientPa: ambientPa(bench.bench?.altitudeM ?? 0),
        },
      )
    } catch (e) {
      if (e instanceof InputError) return null
      throw e
    }
  })
  const onGauge = (psi: number) => shownByGaugePsi(psi, gauge.value?.readsHighPsi ?? 0)
  /** What reconnecting the pump costs at a true pressure, psi. */
  const reconnectLossPsi = (psi: number) =>
    psi -
    afterReconnectPsi(
      psi,
      chamberCc(unit.value, spacers.value),
      gauge.value?.hoseCc ?? 4,
      ambientPa(bench.bench?.altitudeM ?? 0),
    )
  return {
    unit,
    main,
    spacerDial,
    spacers,
    pressurePsi,
    gauge,
    leverage,
    wheelMm,
    readings,
    pctOf,
    last,
    repeats,
    judged,
    sagPct,
    offPct,
    inWindow,
    otherPosture,
    solution,
    onGauge,
    reconnectLossPsi,
  }
}
