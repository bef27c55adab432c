import { ref, watch, type Ref } from 'vue'
import { keepDraft, readDraft } from '../support/drafts.ts'

/** The line that is being typed on a day: it outlives its dialog, a reload and a power cut. */
export function useCommandText(dayId: () => string): { line: Ref<string>; asked: Ref<string> } {
  const line = ref('')
  /** The line that was asked about: moves far beyond a usual step are most likely slips. */
  const asked = ref('')
  watch(dayId, (id) => (line.value = id ? (readDraft<string>(`command:${id}`) ?? '') : ''), {
    immediate: true,
  })
  watch(line, (text) => dayId() && keepDraft(`command:${dayId()}`, text || null))
  return { line, asked }
}
