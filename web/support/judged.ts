import type { DayBundle } from '#contract/endpoints'
import type { UnitChoice } from '#core/units/choice'

/**
 * What the judgement of a day rests on, as one text: two days with the same text are judged alike. Notes, versions and
 * names are no part of it; figures stand for themselves by their recording and the core that made them.
 */
export function judgedOf(b: DayBundle, units: UnitChoice): string {
  const before = kept.get(b)
  if (before?.units === units) return before.text
  const text = textOf(b, units)
  kept.set(b, { units, text })
  return text
}

/** A day that did not change is not written out again each time that anything else did. */
const kept = new WeakMap<DayBundle, { units: UnitChoice; text: string }>()

function textOf(b: DayBundle, units: UnitChoice): string {
  const plain = <T extends { version: number; note: string }>({ version: _v, note: _n, ...rest }: T) => rest
  return JSON.stringify({
    day: plain(b.day),
    latest: b.latest,
    hours: b.tent?.hours.map(plain) ?? null,
    bike: plain(b.bike),
    units: b.units.map(plain),
    ownCharts: b.ownCharts,
    sections: b.trail.sections,
    setups: b.setups,
    runs: b.runs.map(plain),
    feels: b.feels.map(plain),
    recordings: b.recordings.map((r) => [
      r.id,
      r.runId,
      r.figures,
      r.analysis?.coreVersion,
      r.spans,
      r.addedFiles.map((f) => f.id),
    ]),
    units_: units,
  })
}
