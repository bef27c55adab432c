import type { Problem } from '#contract/errors'

/** What a removal is of. */
export type Removable =
  | 'rider'
  | 'unit'
  | 'bike'
  | 'trail'
  | 'gauge'
  | 'stock'
  | 'service'
  | 'baseline'
  | 'kept'
  | 'profile'
  | 'bench'
  | 'tent'
  | 'tentRider'
  | 'tentHour'
  | 'tentNote'
  | 'setup'
  | 'day'
  | 'run'
  | 'recording'

/** What a rider's phone sends. */
export type PadKind = 'padReport' | 'padVoice'

/** What a write is about; letters of one record go out in their order. */
export type LetterKind =
  | Removable
  | 'feel'
  | 'letterhead'
  | 'takenReport'
  | 'handedReport'
  | 'proposal'
  | 'addedFile'
  | 'remove'
  | 'restore'
  | PadKind

/** One write on its way to the server. Plain data: it survives reload and power loss as it is. */
export interface Letter {
  /** Order of writing; also its name. */
  id: number
  kind: LetterKind
  /** The record: kind and id. */
  key: string
  params: Record<string, string>
  body: unknown
  /** The record that the typing began from: of what was not typed, theirs is the only word when it was changed elsewhere. */
  opened?: unknown
  /** Bytes that go before the body. */
  file: Blob | null
  /** When it was written, ISO. */
  at: string
  tries: number
  /** Tries that the server answered with a fault of its own; of those it was out of reach for there may be any number. */
  faults?: number
  /** waiting: to be sent · conflict: somebody else changed the record, a person chooses · refused: it will never be taken. */
  state: 'waiting' | 'conflict' | 'refused'
  problem: Problem | null
  /** Bodies that went out and may be at the server, though no answer came: what it holds of them is nobody else's. */
  attempted: unknown[]
}

export type NewLetter = Pick<Letter, 'kind' | 'key' | 'params' | 'body' | 'file' | 'opened'> & {
  /** Typing goes on: sent this much later, ms. It waits safely all the same. */
  holdMs?: number
}

/** Kinds that nothing else waits for: a later version takes the place of one not yet sent, at the end of the row. */
export const replaceable: ReadonlySet<LetterKind> = new Set(['feel', 'bench'])

const versionOf = (body: unknown): number | null =>
  body !== null && typeof body === 'object' && 'version' in body && typeof body.version === 'number'
    ? body.version
    : null

/** The body on another version, where it has one. */
export const onVersion = (body: unknown, version: number): unknown =>
  versionOf(body) === null ? body : { ...(body as object), version }

export { versionOf }

/** JSON with the keys of every object in order: the server writes them in the order of its schema, a page as it likes. */
const inOrder = (value: unknown): string =>
  JSON.stringify(value, (_, x: unknown) =>
    x !== null && typeof x === 'object' && !Array.isArray(x)
      ? Object.fromEntries(Object.entries(x).sort(([a], [b]) => (a < b ? -1 : 1)))
      : x,
  )

/** Whether two bodies say the same, whatever their versions and the order of their keys. */
export const sameContent = (a: unknown, b: unknown): boolean =>
  a !== null && b !== null && inOrder(onVersion(a, 0)) === inOrder(onVersion(b, 0))
