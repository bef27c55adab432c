import { useKept } from './useKept.ts'
import { readonly } from 'vue'
import type { Adjuster } from '#contract/adjuster'
import { distanceWords, positionNumber, positionWords, unitWord } from '#core/adjusters/words'
import { moveWords, type Move } from '#core/setup/diff'
import {
  canonicalUnits,
  say,
  sayDifference,
  unitsOf,
  type Quantity,
  type UnitChoice,
} from '#core/units/choice'

const held = useKept<UnitChoice>('wild-spring:units', { ...canonicalUnits }, { mergeDefaults: true })

// Something else wrote the storage: an unknown unit must not reach the arithmetic.
for (const q of Object.keys(canonicalUnits) as Quantity[])
  if (!(unitsOf[q] as readonly string[]).includes(held.value[q]))
    held.value = { ...held.value, [q]: canonicalUnits[q] }

/** The units this person reads and types, kept on the device; everything is stored canonically. */
export function useUnits() {
  return {
    units: readonly(held) as Readonly<typeof held>,
    choose: (choice: Partial<UnitChoice>) => (held.value = { ...held.value, ...choice }),
    say: (q: Quantity, canonical: number) => say(q, canonical, held.value),
    sayDifference: (q: Quantity, canonical: number) => sayDifference(q, canonical, held.value),
    positionWords: (a: Adjuster, v: number) => positionWords(a, v, held.value),
    positionNumber: (a: Adjuster, v: number) => positionNumber(a, v, held.value),
    distanceWords: (a: Adjuster, from: number, to: number) => distanceWords(a, from, to, held.value),
    unitWord: (a: Adjuster) => unitWord(a, held.value),
    moveWords: (m: Move) => moveWords(m, held.value),
  }
}
