import { defineStore } from 'pinia'
import { computed, shallowRef } from 'vue'
import { cache } from '../api/cache.ts'
import type { Letter, LetterKind, NewLetter, Removable } from '../api/letters.ts'
import { writeFromForm, type Written } from '../api/mail.ts'
import type { Outbox, OutboxState } from '../api/outbox.ts'

let office: Outbox | null = null

/** Hands the page its outbox, once, before the first screen. */
export function holdOutbox(outbox: Outbox): void {
  office = outbox
}

function mustHold(): Outbox {
  if (!office) throw new Error('The outbox was not opened before the page; see web/main.ts.')
  return office
}

/** What waits to be sent, for the screens; every write of the page starts here. */
export const useOutbox = defineStore('outbox', () => {
  const outbox = mustHold()
  const state = shallowRef<OutboxState>(outbox.state())
  outbox.subscribe((s) => (state.value = s))

  const letters = computed(() => state.value.letters)
  const waiting = computed(() => letters.value.filter((l) => l.state === 'waiting'))
  /** How safely what was written stands: at the server, on its way, only in this browser, or in no safe place. */
  const saving = computed(() =>
    waiting.value.length === 0
      ? ('saved' as const)
      : state.value.unreachableSince === null
        ? ('saving' as const)
        : state.value.durable
          ? ('kept-here' as const)
          : ('not-kept' as const),
  )
  /** Writes the server will never take, with its sentence. */
  const refused = computed(() => letters.value.filter((l) => l.state === 'refused'))
  /** Writes that met a record which was changed elsewhere meanwhile. */
  const conflicts = computed(() => letters.value.filter((l) => l.state === 'conflict'))
  const conflictOf = (key: string): Letter | null => conflicts.value.find((l) => l.key === key) ?? null

  const letter = (kind: LetterKind, record: { id: string }): NewLetter => ({
    kind,
    key: `${kind}:${record.id}`,
    params: { id: record.id },
    body: record,
    file: null,
  })
  const removal = (kind: 'remove' | 'restore', what: Removable, id: string) => ({
    kind,
    key: `${what}:${id}`,
    params: { id },
    body: { what },
    file: null,
  })
  async function removed(kind: 'remove' | 'restore', what: Removable, id: string): Promise<void> {
    const done = await writeFromForm(outbox, removal(kind, what, id))
    if (done.state === 'saved') void cache.invalidateQueries({ queryKey: ['shelf'] })
  }
  return {
    state,
    letters,
    waiting,
    saving,
    refused,
    conflicts,
    conflictOf,
    /** Puts a write on its way and does not wait for the server. */
    write: (l: NewLetter) => outbox.write(l),
    /**
     * Saves a record from an open form.
     * @param opened the record that the typing began from, where there was one
     * @throws ApiError
     */
    save: <T extends { id: string }>(kind: LetterKind, record: T, opened?: T): Promise<Written<T>> =>
      writeFromForm<T>(outbox, { ...letter(kind, record), opened }),
    /** Sends a file with what it is from an open dialog. @throws ApiError */
    sendFile: <T>(l: NewLetter): Promise<Written<T>> => writeFromForm<T>(outbox, l),
    remove: (what: Removable, id: string) => removed('remove', what, id),
    restore: (what: Removable, id: string) => removed('restore', what, id),
    settle: (id: number, which: 'mine' | 'theirs') => outbox.settle(id, which),
    again: (id: number, body?: unknown) => outbox.again(id, body),
    drop: (ids: readonly number[]) => outbox.drop(ids),
    flush: () => outbox.flush(),
    confirmed: (id: number) => outbox.confirmed(id),
  }
})
