import { computed, type Ref } from 'vue'
import { v7 as uuid } from 'uuid'
import { parseCommand, type Command } from '#core/command/parse'
import { nearestReadings } from '#core/command/readings'
import { adjusterName, turnSign } from '#core/adjusters/words'
import type { ReadPart } from '#core/command/reading'
import { bigMoveWords, isBigMove } from '#core/setup/bigMove'
import { conditionWords, parsePlan, planHelp } from '#core/plans/plan'
import type { Move } from '#core/setup/diff'
import { useDay } from '../stores/day.ts'
import type { Done } from '../stores/day/turns.ts'
import { useGarage } from '../stores/garage.ts'
import { wayBack } from '../support/goBack.ts'
import { useUnits } from './useUnits.ts'

/**
 * A line of changes to the bike of the open day: what it would do, in words, and the doing.
 *
 * @param line  as it is typed
 * @param asked the line that was asked about: moves far beyond a usual step are most likely slips
 */
export function useCommand(line: Readonly<Ref<string>>, asked: Ref<string>) {
  const day = useDay()
  const garage = useGarage()
  const { moveWords, units } = useUnits()
  const people = computed(() => {
    const rider = day.bundle?.rider.name ?? ''
    return { rider, others: garage.riders.map((r) => r.name).filter((n) => n !== rider) }
  })
  const turnWords = (m: Move) => `${moveWords(m)} ${turnSign(m.adjuster, m.from, m.to) ?? ''}`.trim()
  /** "if worse, shock reb faster 1": kept for after the next run. */
  const isPlan = computed(() => /^if\b/i.test(line.value.trim()))
  const plan = computed(() => (isPlan.value ? parsePlan(line.value) : null))
  /** What is done now, or, of a plan, would be. */
  const deed = computed(() => (isPlan.value ? (plan.value?.line ?? '') : line.value))
  const parsed = computed(() => {
    if (isPlan.value && !plan.value) return { command: null, fault: planHelp }
    try {
      return { command: parseCommand(deed.value, day.space, day.positions, people.value), fault: null }
    } catch (e) {
      return { command: null, fault: e instanceof Error ? e.message : String(e) }
    }
  })
  const { positionWords } = useUnits()
  function readWords({ end, adjuster, value, was }: ReadPart): string {
    const part = `${end === 'front' ? 'Front' : 'Rear'} ${adjusterName(adjuster).toLowerCase()}`
    if (value === null) return `${part}: nobody is sure where it stands; it is unread until it is counted`
    const before =
      was === undefined
        ? 'nobody had read it'
        : Math.abs(was - value) < 1e-6
          ? 'as it was said'
          : `it was said to be ${positionWords(adjuster, was)}`
    return `${part} read: ${positionWords(adjuster, value)}, ${before}. Nothing is turned`
  }
  /** The settings of an earlier run that a line asks for, with the turns to them. */
  const goingBack = computed(() => {
    const c = parsed.value.command
    const b = day.bundle
    const now = day.currentSetup
    if (c?.kind !== 'back-to' || !b || !now) return null
    return wayBack(b, now, c.run)
  })
  /** The same where it can be gone. */
  const way = computed(() => (goingBack.value && !('fault' in goingBack.value) ? goingBack.value : null))
  const fault = computed(
    () =>
      parsed.value.fault ?? (goingBack.value && 'fault' in goingBack.value ? goingBack.value.fault : null),
  )
  const wordsOf = (c: Command): string[] => {
    if (c.kind === 'back-to')
      return way.value ? [`Back to run ${way.value.number}:`, ...way.value.moves.map(turnWords)] : []
    if (c.kind === 'read') return c.parts.map(readWords)
    return c.kind === 'undo'
      ? [
          day.undo
            ? `Undo: ${day.undo.moves.map((m) => moveWords(m)).join('; ')}`
            : 'There is no change of today to undo.',
        ]
      : c.moves.map(turnWords)
  }
  const preview = computed(() => {
    if (!parsed.value.command) return []
    const does = wordsOf(parsed.value.command)
    return plan.value
      ? [`If the next run comes ${conditionWords(plan.value)}:`, ...does, 'Nothing is turned now.']
      : does
  })
  const readings = computed(() =>
    parsed.value.command || isPlan.value
      ? []
      : nearestReadings(line.value, day.space, day.positions, people.value).map((r) => ({
          line: r.line,
          words: wordsOf(r.command).join('; '),
        })),
  )
  const slips = computed(() => {
    const c = parsed.value.command
    return c?.kind === 'change' ? c.moves.filter(isBigMove) : []
  })
  /** What is to be looked at once more before it is done. */
  const slipWords = computed(() =>
    asked.value === line.value ? slips.value.map((m) => bigMoveWords(m, units.value)) : [],
  )
  const ready = computed(() => parsed.value.command !== null && fault.value === null)

  /**
   * Does what the line says.
   * @returns what was done; 'undo': the caller takes the last change back; 'planned': kept for after the next run; null: nothing
   * yet, a slip is asked about
   * @throws ApiError
   */
  async function act(): Promise<Done | 'undo' | 'planned' | null> {
    const c = parsed.value.command
    if (!c || !ready.value) return null
    if (slips.value.length > 0 && asked.value !== line.value) {
      asked.value = line.value
      return null
    }
    if (isPlan.value) {
      const made = {
        id: uuid(),
        at: new Date().toISOString(),
        text: line.value.trim(),
        afterRunId: day.bundle?.runs.at(-1)?.id ?? null,
        closedAt: null,
      }
      await day.editPlans((plans) => [...plans, made])
      return 'planned'
    }
    if (c.kind === 'undo') return 'undo'
    if (c.kind === 'back-to')
      return way.value ? day.backTo(way.value.setup.id, `Back to run ${way.value.number}`) : null
    if (c.kind === 'read') return day.readParts(c.parts)
    for (const m of c.moves) day.choose(m.adjuster.id, m.to)
    return day.applyPending(`typed: ${line.value}`, c.moves.length > 1)
  }
  return { preview, fault, readings, slipWords, ready, isPlan, act }
}
