import type { Setup } from '#contract/setup'

/** A way of standing that a bike has had: every setup that stood so, however often it was come back to. */
export interface Place {
  /** Id of the first setup that stood here. */
  id: string
  /** In the order they were saved. */
  setupIds: string[]
  /** The last of them: the same settings, known best. */
  setup: Setup
  /** The place it was reached from; null for the first. */
  parentId: string | null
  /** A wish: nobody has turned it. */
  wanted: boolean
  /** The bike stands here now. */
  now: boolean
}

const standing = (s: Setup) =>
  JSON.stringify([
    s.frontUnitId,
    s.rearUnitId,
    s.positions.map((p) => `${p.adjusterId} ${p.value.toFixed(6)}`).sort(),
  ])

/**
 * The places of a bike, in the order they were first reached, so that a parent comes before its children. Coming back to
 * settings that were had before is the same place; so is a reading, which turns nothing. A wish is a place of its own.
 *
 * @param setups in the order they were saved
 * @param nowId  the setup that is on the bike; null: nothing is known of it
 */
export function placesOf(setups: readonly Setup[], nowId: string | null): Place[] {
  const places: Place[] = []
  const ofSetup = new Map<string, Place>()
  const byStanding = new Map<string, Place>()
  let last = null as Place | null
  for (const s of setups) {
    // A start that was carried from another bike was wished for where this one stood.
    const from: Place | null = (s.parentId === null ? null : ofSetup.get(s.parentId)) ?? last
    const nothingTurned =
      from !== null && (s.reason.source === 'reading' || standing(s) === standing(from.setup))
    const same = s.wanted ? null : nothingTurned ? from : byStanding.get(standing(s))
    let place: Place | null = same ?? null
    if (place) {
      place.setupIds.push(s.id)
      place.setup = s
    } else {
      place = {
        id: s.id,
        setupIds: [s.id],
        setup: s,
        parentId: from?.id ?? null,
        wanted: s.wanted,
        now: false,
      }
      places.push(place)
    }
    ofSetup.set(s.id, place)
    if (s.wanted) continue
    if (!byStanding.has(standing(s))) byStanding.set(standing(s), place)
    last = place
  }
  const now = nowId === null ? undefined : ofSetup.get(nowId)
  if (now) now.now = true
  return places
}
