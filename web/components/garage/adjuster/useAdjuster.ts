import type { ModelRef } from 'vue'
import type { Adjuster } from '#contract/adjuster'

/** Writes single fields of an adjuster; an emptied number is NaN, which the form refuses with its own sentence. */
export function useAdjuster<A extends Adjuster>(adjuster: ModelRef<A>) {
  const set = (change: Partial<A>) => {
    adjuster.value = { ...adjuster.value, ...change }
  }
  const number = (key: keyof A) => (v: number | null) => set({ [key]: v ?? NaN } as Partial<A>)
  return { set, number }
}
