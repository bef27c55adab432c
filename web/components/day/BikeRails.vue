<script setup lang="ts">
import type { Adjuster } from '#contract/adjuster'
import type { Position } from '#contract/setup'
import type { SuspensionUnit } from '#contract/unit'
import type { Bracket } from '#core/adviser/bracket'
import EndMark from '../shell/EndMark.vue'
import ClickRail from './ClickRail.vue'

/** Every adjuster of both ends on its rail. */
defineProps<{
  units: readonly SuspensionUnit[]
  /** Where each part stands and how that is known, by adjuster id. */
  held: ReadonlyMap<string, Position>
  /** Chosen and not yet said to be on the bike. */
  pending: Readonly<Record<string, number>>
  locked?: boolean
  /** What a card proposes, and where the best lies, by adjuster. */
  ghostFor?: (a: Adjuster) => number | null
  bracketFor?: (a: Adjuster) => Bracket | null
  /** A line under a rail. */
  wordsFor?: (a: Adjuster) => string | null
}>()
const emit = defineEmits<{ choose: [adjusterId: string, value: number]; apply: []; drop: [] }>()
</script>

<template>
  <template v-for="u in units" :key="u.id">
    <h3 class="unit"><EndMark :end="u.end" /> {{ u.end === 'front' ? 'Front' : 'Rear' }}, {{ u.name }}</h3>
    <template v-for="a in u.adjusters" :key="a.id">
      <ClickRail
        :end="u.end"
        :adjuster="a"
        :value="held.get(a.id)?.value ?? null"
        :known="held.get(a.id)?.known ?? null"
        :locked="locked"
        :target="pending[a.id]"
        :ghost="ghostFor?.(a) ?? null"
        :bracket="bracketFor?.(a) ?? null"
        :detail="u.assumed.includes(a.id) ? 'range assumed' : undefined"
        @choose="(v) => emit('choose', a.id, v)"
        @apply="emit('apply')"
        @drop="emit('drop')"
      />
      <p v-if="wordsFor?.(a)" class="soft small words">{{ wordsFor(a) }}</p>
    </template>
    <p v-if="u.adjusters.length === 0" class="soft small">Nothing to turn on this unit.</p>
  </template>
</template>

<style scoped>
.unit {
  margin: 0.7rem 0 0.1rem;
}
.words {
  margin: 0;
}
</style>
