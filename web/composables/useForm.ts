import { computed, provide, ref, shallowRef, watch, type ComputedRef, type InjectionKey, type Ref } from 'vue'
import type { z } from 'zod'
import { ApiError } from '../api/client.ts'
import { differencesOf, type FieldDifference } from '../support/bothVersions.ts'
import { toFault } from '../support/toFault.ts'
import { keepDraft, readDraft } from '../support/drafts.ts'
import { typedOver } from '../support/typedOver.ts'

/** What a form in conflict hands to the frame around it. */
export const formConflictKey: InjectionKey<{
  differences: ComputedRef<FieldDifference[]>
  choose: (which: 'mine' | 'theirs') => void
}> = Symbol('form conflict')

/** What lies in the browser of a form that was left: what it opened with, and what it came to. */
interface Left<T> {
  opened: T
  form: T
}

/**
 * A dialog's form over a contract schema: opens from a record or a draft, keeps a draft while typed, tells the first
 * fault beside its field, forgets the draft when saved.
 */
export function useForm<T extends { version: number; id: string }>(options: {
  schema: z.ZodType<T>
  key: () => string
  fresh: () => T
  open: Ref<boolean>
  /** @param opened the record that the typing began from */
  save: (value: T, opened: T) => Promise<unknown>
  /** What is most likely a slip, though the schema takes it. */
  check?: (value: T) => { path: string; message: string } | null
  /** Fetches what others saved, so that the form opens on it next time. */
  onStale?: () => Promise<unknown>
}) {
  const { schema, key, fresh, open, save, onStale, check = () => null } = options
  const form = ref(fresh()) as Ref<T>
  const fault = ref<{ path: string; message: string } | null>(null)
  const busy = ref(false)
  /** What it opened with before anybody typed. */
  let opened = ''
  /** Theirs, while a person has to choose. */
  const theirs = shallowRef<T | null>(null)
  const differences = computed<FieldDifference[]>(() => {
    const other = theirs.value
    if (!other) return []
    // What was not typed here is theirs anyway, and nothing to choose about.
    return differencesOf(typedOver(JSON.parse(opened) as T, form.value, other).record, other)
  })
  provide(formConflictKey, {
    differences,
    choose(which) {
      const other = theirs.value
      theirs.value = null
      fault.value = null
      if (!other) return
      if (which === 'mine') {
        form.value = typedOver(JSON.parse(opened) as T, form.value, other).record
        opened = JSON.stringify(other)
        void submit()
      } else {
        keepDraft(`form:${key()}`, null)
        open.value = false
      }
    },
  })
  watch(
    open,
    (is) => {
      if (!is) {
        // Closed over a choice: the record stays theirs; what was typed waits, and is asked about again.
        theirs.value = null
        return
      }
      const start = fresh()
      opened = JSON.stringify(start)
      fault.value = null
      takeUp(start)
    },
    { immediate: true },
  )
  // A form that was looked at is no draft: next week it would open with the date and the kind of today.
  watch(
    form,
    (f) => {
      if (!open.value) return
      const left: Left<T> = { opened: JSON.parse(opened) as T, form: f }
      keepDraft(`form:${key()}`, JSON.stringify(f) === opened ? null : left)
    },
    { deep: true },
  )

  /** Opens on what is saved now, and on what was typed and left. */
  function takeUp(start: T) {
    const left = readDraft<Partial<Left<T>>>(`form:${key()}`)
    if (!left?.opened || !left.form) form.value = copyOf(start)
    else if (left.form.version === start.version) {
      opened = JSON.stringify(left.opened)
      form.value = left.form
    } else {
      // Saved by somebody else meanwhile: what was typed here is not dropped without a word, nor laid over theirs.
      const { record, collide } = typedOver(left.opened, left.form, start)
      if (collide.length === 0) form.value = copyOf(record)
      else {
        // What was not typed stands as they have it; it is saved over theirs by nobody's oversight: the version stays old.
        const { version } = left.form
        const before = Object.fromEntries(collide.map((k) => [k, left.opened![k]]))
        opened = JSON.stringify({ ...start, ...before, version })
        form.value = copyOf({ ...record, version })
        toChoose(copyOf(start))
      }
    }
  }
  function toChoose(current: T) {
    theirs.value = current
    fault.value = {
      path: '',
      message: 'It was changed elsewhere in the meantime. Look at both and choose.',
    }
  }

  async function submit(): Promise<void> {
    if (busy.value) return
    const result = schema.safeParse(form.value)
    const issue = result.error?.issues[0]
    fault.value = issue ? { path: issue.path.join('.'), message: issue.message } : check(result.data!)
    if (fault.value || !result.success) return toFault(document.querySelector('.modal.show form') ?? document)
    busy.value = true
    try {
      await save(result.data, JSON.parse(opened) as T)
    } catch (e) {
      fault.value = {
        path: '',
        message: e instanceof ApiError ? e.message : 'It could not be saved; try again.',
      }
      const current =
        e instanceof ApiError && e.problem?.code === 'record.stale' ? (e.problem.current as T) : null
      if (current) {
        void onStale?.()
        toChoose(current)
        // Somebody typed the very same: there is nothing to choose, and nothing left to save.
        if (differences.value.length === 0) open.value = false
      }
      return
    } finally {
      busy.value = false
    }
    keepDraft(`form:${key()}`, null)
    open.value = false
  }
  const faultOf = (path: string) => (fault.value?.path === path ? fault.value.message : null)
  /** A fault whose field has no place of its own on the form. */
  const otherFault = (shown: readonly string[]) =>
    fault.value && !shown.includes(fault.value.path) ? fault.value.message : null
  return { form, fault, busy, submit, faultOf, otherFault }
}

/** Records are plain JSON; structuredClone refuses the reactive proxy that a page hands in. */
function copyOf<T>(record: T): T {
  return JSON.parse(JSON.stringify(record)) as T
}
