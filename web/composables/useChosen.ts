import { computed, ref, type Ref } from 'vue'
import type { DayBundle } from '#contract/endpoints'
import { diffSetups, type Move } from '#core/setup/diff'

/** What is chosen on the rails of a day of practice and not yet said to be on, beside where everything is written to stand. */
export function useChosen(bundle: Readonly<Ref<DayBundle | null>>) {
  const pending = ref<Record<string, number>>({})
  const setup = computed(() => bundle.value?.setups.at(-1) ?? null)
  const held = computed(() => new Map(setup.value?.positions.map((p) => [p.adjusterId, p] as const)))
  const moves = computed<Move[]>(() => {
    const now = setup.value
    if (!now || !bundle.value) return []
    const after = now.positions.map((p) => ({ ...p, value: pending.value[p.adjusterId] ?? p.value }))
    return diffSetups(now, { ...now, positions: after }, bundle.value.units)
  })
  const choose = (id: string, value: number) => {
    const rest = Object.fromEntries(Object.entries(pending.value).filter(([other]) => other !== id))
    pending.value = held.value.get(id)?.value === value ? rest : { ...rest, [id]: value }
  }
  const drop = () => (pending.value = {})
  return { pending, held, moves, choose, drop }
}
