import { computed, type Ref } from 'vue'
import type { SagReading } from '#contract/bench'
import type { End } from '#contract/common'
import type { SuspensionUnit } from '#contract/unit'
import { leverageOf, wheelTravelMm, type Leverage } from '#core/linkage/leverage'
import { InputError } from '#core/errors'
import { afterReconnectPsi, chamberCc, shownByGaugePsi } from '#core/spring/gauge'
import { sagConditions, sagNow, whyNotCounted } from '#core/bench/sagNow'
import { sagWindowPct, strokePct } from '#core/spring/sag'
import { solveSag, type SagSolution } from '#core/spring/solver'
import { unitAir } from '#core/spring/unitSpring'
import { ambientPa } from '#core/spring/weather'
import { useBench } from '../stores/bench.ts'
import { useGarage } from '../stores/garage.ts'

const seaLevelM = 0
/** About as high as people ride. */
const farUpM = 2000

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
  /** How many are in; null where the unit has none or nobody has looked. */
  const spacers = computed(() => (spacerDial.value ? bench.positionOf(spacerDial.value.id) : null))
  /** For the arithmetic alone: unread counts as none at every reading, which moves nothing at sag. */
  const modelSpacers = computed(() => spacers.value ?? 0)
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
  const pctOf = (r: SagReading) => strokePct(r.sagMm, unit.value.strokeMm)
  const last = computed(() => readings.value.at(-1) ?? null)
  const now = computed(() => sagNow(bench.bench!, unit.value))
  /** Readings that count as the bench stands: repeats of each other. */
  const repeats = computed(() => now.value.counted)
  const judged = computed(() => now.value.judged)
  const sagPct = computed(() => now.value.pct)
  const offPct = computed(() => (sagPct.value === null ? null : sagPct.value - unit.value.sagTargetPct))
  const windowPct = computed(() => sagWindowPct(unit.value.strokeMm))
  const inWindow = computed(() => offPct.value !== null && Math.abs(offPct.value) <= windowPct.value)
  const solvedAt = (altitudeM: number): SagSolution | null => {
    const limits = main.value
    const conditions = sagConditions(bench.bench!, unit.value, false)
    // Another posture carries another load, another gauge shows another number: only the pressure may differ.
    const usable = readings.value.filter(
      (r) =>
        r.pressurePsi !== null &&
        pctOf(r) > 0 &&
        pctOf(r) < 100 &&
        whyNotCounted(r, { ...conditions, pressurePsi: r.pressurePsi, spacers: r.spacers }) === null,
    )
    if (!limits || usable.length === 0) return null
    try {
      return solveSag(
        usable.map((r) => ({
          sagPct: pctOf(r),
          pressurePsi: r.pressurePsi!,
          spacers: r.spacers ?? modelSpacers.value,
        })),
        {
          shape: unitAir(unit.value).shape,
          strokeMm: unit.value.strokeMm,
          targetPct: unit.value.sagTargetPct,
          spacers: modelSpacers.value,
          minPsi: limits.minPsi,
          maxPsi: limits.maxPsi,
          ambientPa: ambientPa(altitudeM),
        },
      )
    } catch (e) {
      if (e instanceof InputError) return null
      throw e
    }
  }
  const altitudeM = computed(() => bench.bench?.altitudeM ?? null)
  const solution = computed(() => solvedAt(altitudeM.value ?? seaLevelM))
  /** Nobody said how high it is: true pressure that the same target takes far up, above (+) that at sea level, psi. */
  const byHeightPsi = computed(() => {
    const up = altitudeM.value === null && solution.value ? solvedAt(farUpM) : null
    return up && solution.value ? up.pressurePsi - solution.value.pressurePsi : null
  })
  const onGauge = (psi: number) => shownByGaugePsi(psi, gauge.value?.readsHighPsi ?? 0)
  /** What reconnecting the pump costs at a true pressure, psi. */
  const reconnectLossPsi = (psi: number) =>
    psi -
    afterReconnectPsi(
      psi,
      chamberCc(unit.value, modelSpacers.value),
      gauge.value?.hoseCc ?? 4,
      ambientPa(altitudeM.value ?? seaLevelM),
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
    windowPct,
    now,
    modelSpacers,
    solution,
    byHeightPsi,
    farUpM,
    onGauge,
    reconnectLossPsi,
  }
}
