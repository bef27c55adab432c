import { ref, watch, type Ref } from 'vue'
import type { z } from 'zod'
import { keepDraft, readDraft } from '../support/drafts.ts'

/**
 * A dialog's form over a contract schema: opens from a record or a draft, keeps a draft while typed, tells the first
 * fault beside its field, forgets the draft when saved.
 */
export function useForm<T extends { version: number; id: string }>(options: {
  schema: z.ZodType<T>
  key: () => string
  fresh: () => T
  open: Ref<boolean>
  save: (value: T) => Promise<boolean>
}) {
  const { schema, key, fresh, open, save } = options
  const form = ref(fresh()) as Ref<T>
  const fault = ref<{ path: string; message: string } | null>(null)
  const busy = ref(false)
  watch(open, (is) => {
    if (!is) return
    const start = fresh()
    const draft = readDraft<T>(`form:${key()}`)
    form.value = draft && draft.version === start.version ? draft : structuredClone(start)
    fault.value = null
  })
  watch(form, (f) => open.value && keepDraft(`form:${key()}`, f), { deep: true })

  async function submit(): Promise<void> {
    const result = schema.safeParse(form.value)
    if (!result.success) {
      const issue = result.error.issues[0]
      fault.value = { path: issue.path.join('.'), message: issue.message }
      return
    }
    fault.value = null
    busy.value = true
    const ok = await save(result.data)
    busy.value = false
    if (!ok) return
    keepDraft(`form:${key()}`, null)
    open.value = false
  }
  const faultOf = (path: string) => (fault.value?.path === path ? fault.value.message : null)
  /** A fault whose field has no place of its own on the form. */
  const otherFault = (shown: readonly string[]) =>
    fault.value && !shown.includes(fault.value.path) ? fault.value.message : null
  return { form, fault, busy, submit, faultOf, otherFault }
}
