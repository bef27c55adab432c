import { computed, shallowRef, watch, type Ref } from 'vue'
import { endpoints } from '#contract/endpoints'
import type { RiddenWay } from '#contract/recording'
import { alignPieces, sure, type AlignedPiece } from '#core/signal/align'
import { layByWay } from '#core/telemetry/layByWay'
import { call } from '../api/client.ts'
import type { DrawableRecording } from './useRecording.ts'

/** How run B lies under run A, and the sentence that says so. */
export interface Laid {
  /** null: both begin at 0. */
  pieces: AlignedPiece[] | null
  words: string
}

/**
 * Lays B under A by distance where both have one, else by what both met at the same time of a section.
 * Without its server the ways are not at hand; then it is time.
 */
export function useLaid(a: Ref<DrawableRecording | null>, b: Ref<DrawableRecording | null>) {
  const wayOfA = useWay(a)
  const wayOfB = useWay(b)
  return computed((): Laid | null => {
    const [main, other] = [a.value, b.value]
    if (!main || !other) return null
    const end = (['rear', 'front'] as const).find((e) => main[e] && other[e])
    if (!end) return null
    const of = (r: DrawableRecording) => ({
      depth: r[end]!.depthPct,
      rateHz: r.recording.sampleRateHz,
      spans: r.recording.analysis.sections.flatMap((s) =>
        s.sectionId === null ? [] : [{ sectionId: s.sectionId, startS: s.startS, endS: s.endS }],
      ),
    })
    const [wayA, wayB] = [wayOfA.value, wayOfB.value]
    if (wayA === undefined || wayB === undefined) return null
    const byWay = wayA && wayB ? layByWay({ ...of(main), way: wayA }, { ...of(other), way: wayB }) : null
    if (byWay) return { pieces: byWay.pieces, words: wayWords(byWay.sections) }
    const pieces = alignPieces(of(main), of(other), of(main).spans)
    return { pieces, words: pieces ? timeWords(pieces) : unlikeWords }
  })
}

const unlikeWords = 'The two are too unlike to be laid over each other; both begin at 0.'

function wayWords(sections: readonly { isHitOnHit: boolean }[]): string {
  const alone = sections.filter((s) => !s.isHitOnHit).length
  const rest = alone
    ? `; in ${alone} of ${sections.length} sections by distance alone, good to some metres`
    : ', then hit on hit'
  return `B is laid under A by distance in each section${rest}.`
}

function timeWords(pieces: readonly AlignedPiece[]): string {
  const unsure = pieces.filter((p) => p.correlation < sure).length
  const lags = pieces.map((p) => p.lagS)
  const [low, high] = [Math.min(...lags), Math.max(...lags)].map((x) => x.toFixed(1))
  return `Sections aligned in time, by ${low === high ? low : `${low} to ${high}`} s${unsure ? `; ${unsure} of ${pieces.length} estimated` : ''}.`
}

/** The way of a recording; undefined while it comes, null where there is none. */
function useWay(source: Ref<DrawableRecording | null>) {
  const way = shallowRef<RiddenWay | null>()
  watch(
    source,
    async (r, _old, onCleanup) => {
      way.value = r?.recording.analysis.sectionsBy === 'share-of-length' ? null : undefined
      if (!r || way.value === null) return
      const cancel = new AbortController()
      onCleanup(() => cancel.abort())
      const found = await call(endpoints.getWay, { id: r.recording.id }, undefined, cancel.signal).catch(
        () => null,
      )
      if (!cancel.signal.aborted) way.value = found
    },
    { immediate: true },
  )
  return way
}
