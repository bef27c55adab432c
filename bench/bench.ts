import { cleanSpeedMS } from '#core/damper/recovery'
import { stepStates } from '#core/bench/states'
import { forkAir, netPressurePsi } from '#core/spring/air'
import { solveSag } from '#core/spring/solver'
import { energyCurve, forceCurve, spacerCases } from '#core/spring/spacers'
import { benchOn, benchRider, fork, shock } from '#core/test/dayBuilder'
import { medianMs, type Row } from './measure.ts'

const repeats = 100

/** What a keystroke on the bench makes the page compute, each as the mean of many. */
export function benchRows(): Row[] {
  const readings = Array.from({ length: 6 }, (_, i) => ({
    sagPct: 24 - i,
    pressurePsi: 90 + 6 * i,
    spacers: 1,
  }))
  const options = { shape: forkAir, strokeMm: 150, targetPct: 20, spacers: 1, minPsi: 40, maxPsi: 150 }
  const solve = () => solveSag(readings, options)
  const load = netPressurePsi(0.2, 100, forkAir, { spacers: 1 })
  const spacers = () => {
    const cases = spacerCases({ sagPct: 20, pressurePsi: 100, spacers: 1 }, 4, forkAir)
    return cases.map((c) => energyCurve(forceCurve(c.pressurePsi, c.spacers, load, forkAir)))
  }
  const packing = () =>
    [0.5, 0.62, 0.77].map((ratio) =>
      Array.from({ length: 46 }, (_, i) => cleanSpeedMS(20, 0.3 + 0.06 * i, 16, ratio)),
    )
  const steps = () => stepStates(benchOn(), [fork, shock], benchRider(76))
  const row = (work: string, act: () => unknown, against: string): Row => ({
    work,
    figure:
      medianMs(() => {
        for (let i = 0; i < repeats; i++) act()
      }) / repeats,
    unit: 'ms',
    against,
  })
  return [
    row('sag solver, six readings, negative chamber fitted', solve, 'bar ≤ 5 ms'),
    row('spacer curves, three cases', spacers, 'a frame is 16 ms'),
    row('packing chart, three clicks', packing, 'a frame is 16 ms'),
    row('states of all bench steps', steps, 'a frame is 16 ms'),
  ]
}
