import { v7 as uuid } from 'uuid'
import { watch, type Ref } from 'vue'
import type { End } from '#contract/common'
import type { DayBundle } from '#contract/endpoints'
import type { Position, Setup } from '#contract/setup'
import type { ReadPart } from '#core/command/reading'
import { diffSetups, type Move } from '#core/setup/diff'
import { readBy, withTurns } from '#core/setup/known'
import type { Letter } from '../../api/letters.ts'
import { useOutbox } from '../outbox.ts'
import type { OnBike } from './onBike.ts'
import { setupKey } from './overtaken.ts'

/** What was done to the bike: the settings before and after, and what moved. */
export interface Done {
  before: Setup
  after: Setup
  moves: Move[]
}

/** What hands do to the bike: each a new setup. */
export function useTurns(
  bundle: Ref<DayBundle | null>,
  { currentSetup, parts, setupOf, hand, undo, chosen, pending, pendingReadings, clearPending }: OnBike,
) {
  const outbox = useOutbox()
  /** Writes a new setup: what the hands did. */
  async function putSetup(
    newPositions: Position[],
    reason: Partial<Setup['reason']>,
    foundIn: Setup['foundIn'] = null,
  ): Promise<Done> {
    const b = bundle.value!
    const now = currentSetup.value!
    const setup: Setup = {
      ...now,
      id: uuid(),
      parentId: now.id,
      dayId: b.day.id,
      madeAt: new Date().toISOString(),
      name: null,
      positions: newPositions,
      reason: {
        text: '',
        source: 'own-idea',
        linked: false,
        proposalId: null,
        undoes: null,
        fromSetupId: null,
        ...reason,
      },
      foundIn,
      wanted: false,
    }
    const letter = await outbox.write({
      kind: 'setup',
      key: setupKey(b.bike.id),
      params: { id: setup.id },
      body: setup,
      file: null,
    })
    clearPending()
    await answered(letter)
    return { before: now, after: setup, moves: diffSetups(now, setup, b.units) }
  }
  /** Waits for the server while it is in reach; what it refuses is told by the outbox. */
  async function answered(letter: Letter): Promise<void> {
    if (outbox.state.unreachableSince !== null) return
    await Promise.race([
      outbox.confirmed(letter.id).catch(() => undefined),
      new Promise((resolve) => {
        const stop = watch(
          () => outbox.state.unreachableSince,
          (since) => since !== null && (stop(), resolve(undefined)),
        )
      }),
    ])
  }
  const turnsTo = (to: ReadonlyMap<string, number>) =>
    withTurns(currentSetup.value!.positions, to, parts.value, hand())

  async function readPending(): Promise<Done | null> {
    const readings = pendingReadings.value
    if (readings.length === 0) return null
    const turns = chosen(false)
    const known = readBy(hand(), 'read on the trail day')
    const read = readings.map(({ part, end, value }) => ({ end, adjusterId: part.id, value, known }))
    const done = await putSetup([...currentSetup.value!.positions, ...read], {
      text: 'Read, nothing turned',
      source: 'reading',
      linked: true,
    })
    pending.value = Object.fromEntries(turns)
    return done
  }
  /** Where parts were found to stand; what nobody is sure of any more is unread. Nothing is turned. */
  function readParts(
    parts: readonly ReadPart[],
    { gaugeId = null, text = 'Read, nothing turned' }: { gaugeId?: string | null; text?: string } = {},
  ): Promise<Done> {
    const known = readBy(hand(), 'read on the trail day')
    const ids = new Set(parts.map((p) => p.adjuster.id))
    const read = parts.flatMap(({ end, adjuster, value }) =>
      value === null
        ? []
        : [
            {
              end,
              adjusterId: adjuster.id,
              value,
              known: adjuster.kind === 'pressure' ? { ...known, gaugeId } : known,
            },
          ],
    )
    const others = currentSetup.value!.positions.filter((p) => !ids.has(p.adjusterId))
    return putSetup([...others, ...read], { text, source: 'reading', linked: true })
  }
  /** Sag that was read on the trail, on the settings that are on the bike now; nothing is turned. */
  function readSag(end: End, sagPct: number): Promise<Done> {
    const by = hand()
    return putSetup(
      currentSetup.value!.positions,
      {
        text: `${end === 'front' ? 'Front' : 'Rear'} sag read on the trail`,
        source: 'reading',
        linked: true,
      },
      {
        airTempC: by.airTempC ?? null,
        altitudeM: by.altitudeM ?? null,
        place: by.place ?? '',
        sagFrontPct: end === 'front' ? sagPct : null,
        sagRearPct: end === 'rear' ? sagPct : null,
        postureFront: end === 'front' ? 'ready' : null,
        postureRear: end === 'rear' ? 'seated' : null,
      },
    )
  }
  /** A reading that was a slip says nothing from now on; nothing is turned. */
  const unreadSag = (reading: Setup) =>
    putSetup(currentSetup.value!.positions, {
      text: 'Sag reading taken back',
      linked: true,
      source: 'undo',
      undoes: reading.id,
    })
  /** Goes back to settings that were ridden; a dial that nobody has read since is not said to stand anywhere. */
  const backTo = (setupId: string, text: string, proposalId: string | null = null) => {
    const held = new Set(currentSetup.value!.positions.map((p) => p.adjusterId))
    const ridden = setupOf(setupId)!.positions.filter((p) => held.has(p.adjusterId))
    return putSetup(turnsTo(new Map(ridden.map((p) => [p.adjusterId, p.value]))), {
      text,
      linked: true,
      source: 'revert',
      proposalId,
      fromSetupId: setupId,
    })
  }
  /** Takes the last change of the day that still holds back: its turns only, whatever was read since. */
  async function undoLast(): Promise<Done | null> {
    const u = undo.value
    if (!u) return null
    const was = new Map(u.before.positions.map((p) => [p.adjusterId, p]))
    const turned = new Set(u.moves.map((m) => m.adjuster.id))
    const back = currentSetup.value!.positions.map((p) =>
      turned.has(p.adjusterId)
        ? { ...was.get(p.adjusterId)!, known: { ...was.get(p.adjusterId)!.known } }
        : p,
    )
    return putSetup(back, { text: 'Taken back', linked: true, source: 'undo', undoes: u.change.id })
  }
  return { putSetup, turnsTo, readPending, readParts, readSag, unreadSag, backTo, undoLast }
}
