<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import type { Adjuster } from '#contract/adjuster'
import { useUnits } from '../../composables/useUnits.ts'
import { adjusterName, turnSign } from '#core/adjusters/words'
import IconUndo from '~icons/lucide/undo-2'
import { wayBack } from '../../support/goBack.ts'
import { oneAtATime } from '../../support/oneAtATime.ts'
import { useDay } from '../../stores/day.ts'
import type { Done } from '../../stores/day/turns.ts'
import { useNotices } from '../../stores/notices.ts'
import BikeRails from './BikeRails.vue'
import PendingTurns from './PendingTurns.vue'
import type { SuspensionUnit } from '#contract/unit'
import { bigMoveWords, isBigMove } from '#core/setup/bigMove'
import { pressureHere } from '#core/setup/pressureHere'

const emit = defineEmits<{ done: [done: Done]; undo: []; command: []; say: [line: string] }>()
const day = useDay()
const { moveWords, positionWords, say, units: unitChoice } = useUnits()
const notices = useNotices()
const linked = ref(false)
const why = ref('')
const units = computed(() => [day.space.front, day.space.rear].filter((u) => u !== null))
const bracketFor = (a: Adjuster) =>
  day.knowledge?.brackets.find((b) => b.adjuster.id === a.id)?.bracket ?? null
const ghostFor = (a: Adjuster) => day.proposal?.moves.find((m) => m.adjusterId === a.id)?.to ?? null
const pendingWords = computed(() =>
  day.pendingMoves.map((m) => `${moveWords(m)} ${turnSign(m.adjuster, m.from, m.to) ?? ''}`),
)
const needsLink = computed(() => day.pendingMoves.length > 1)
const applicable = computed(() => !needsLink.value || linked.value)
watch(needsLink, () => (linked.value = false))

/** The day itself, apart from any change: a rider who warms up, a track that wears. */
const drift = computed(() => {
  const d = day.knowledge?.driftPerRun ?? 0
  const size = Math.abs(d)
  return size < 0.05
    ? null
    : `Ratings drift ${d > 0 ? 'up' : 'down'} ${size.toFixed(2)} per run today; comparisons correct for that.`
})
const anyTried = computed(() => (day.knowledge?.brackets.length ?? 0) > 0)
/** What an undo would do, said before it is pressed. */
const undoWords = computed(() => day.undo?.moves.map((m) => moveWords(m)).join('; ') ?? '')
const readingWords = computed(() =>
  day.pendingReadings.map(
    (r) =>
      `${r.end === 'front' ? 'Front' : 'Rear'} ${adjusterName(r.part).toLowerCase()} stands at ${positionWords(r.part, r.value)}`,
  ),
)
/** The way to the best-rated run's settings, where something else is on the bike. */
const toBest = computed(() => {
  if (!day.bundle || !day.currentSetup || day.past) return null
  const way = wayBack(day.bundle, day.currentSetup, 'best')
  return 'fault' in way ? null : way
})
const title = computed(() => (day.past ? 'On the bike at the end of that day' : 'On the bike now'))
/** A slip of the hand is asked about once; what a card asked for is meant. */
const slips = computed(() =>
  day.pendingMoves.filter(
    (m) => isBigMove(m) && !day.proposal?.moves.some((p) => p.adjusterId === m.adjuster.id && p.to === m.to),
  ),
)
const slipKey = computed(() => slips.value.map((m) => `${m.adjuster.id} ${m.to}`).join(' '))
/** The moves that were asked about. */
const asked = ref('')
const slipWords = computed(() =>
  asked.value !== '' && asked.value === slipKey.value
    ? slips.value.map((m) => bigMoveWords(m, unitChoice.value))
    : [],
)
/** What a pressure that was set in other air means today. */
function airWords(u: SuspensionUnit, a: Adjuster): string | null {
  const psi = day.positions.get(a.id)
  const known = day.held.get(a.id)?.known
  if (a.role !== 'main-pressure' || psi === undefined || !known || !day.bundle || day.past) return null
  const spacers = u.adjusters.find((x) => x.role === 'spacers')
  const here = pressureHere(psi, known, day.air, u, (spacers && day.positions.get(spacers.id)) ?? 0)
  return (
    here &&
    `reads about ${say('pressure', here.readsPsi)} here now; same sag: ${say('pressure', here.sameSagPsi)}`
  )
}
const airOf = computed(
  () => new Map(units.value.flatMap((u) => u.adjusters.map((a) => [a.id, airWords(u, a)] as const))),
)
const apply = oneAtATime(async () => {
  if (slipKey.value !== '' && asked.value !== slipKey.value) {
    asked.value = slipKey.value
    return
  }
  asked.value = ''
  await notices.attempt(async () => emit('done', await day.applyPending(why.value, linked.value)))
  why.value = ''
})
</script>

<template>
  <section class="on-bike" aria-labelledby="bike-title">
    <header>
      <h2 id="bike-title">{{ title }}</h2>
      <span class="soft small">closed ◂ ▸ open</span>
    </header>
    <button v-if="!day.past" type="button" class="btn btn-plain say-it" @click="emit('command')">
      Change in one line
    </button>
    <PendingTurns
      v-if="day.pendingMoves.length || readingWords.length"
      v-model:linked="linked"
      v-model:why="why"
      :readings="readingWords"
      :turns="pendingWords"
      :slips="slipWords"
      @apply="apply"
      @drop="day.clearPending"
    />
    <BikeRails
      :units="units"
      :held="day.held"
      :pending="day.pending"
      :locked="day.past"
      :ghost-for="ghostFor"
      :bracket-for="bracketFor"
      :words-for="(a) => airOf.get(a.id) ?? null"
      @choose="day.choose"
      @apply="applicable && apply()"
      @drop="day.clearPending"
    />
    <p v-if="anyTried" class="legend small soft">
      <span>○ start</span><span class="b">▲ better</span><span class="w">▼ worse</span><span>◆ unclear</span
      ><span class="s">best lies here</span>
    </p>
    <div class="known">
      <p>{{ day.knowledge?.words ?? ' ' }}</p>
      <p v-for="n in day.knowledge?.notes ?? []" :key="n" class="note">{{ n }}</p>
      <p v-if="drift" class="soft small">{{ drift }}</p>
      <p v-if="!day.past" class="soft small">
        {{ `${day.changes} of ${day.bundle?.day.changeLimit} changes today` }}
      </p>
    </div>
    <button
      v-if="toBest"
      type="button"
      class="btn btn-plain to-best"
      @click="emit('say', 'back to the best')"
    >
      {{ `Back to run ${toBest.number}, the best rated` }}
    </button>
    <button v-if="undoWords" type="button" class="btn btn-plain btn-sm undo" @click="emit('undo')">
      <IconUndo aria-hidden="true" /> {{ `Undo: ${undoWords}` }}
    </button>
  </section>
</template>

<style scoped>
.to-best {
  margin-bottom: 8px;
}
.say-it {
  display: none;
}
@media (max-width: 720px) {
  .say-it {
    display: inline-flex;
    width: 100%;
    margin-bottom: 0.4rem;
  }
}
.on-bike > header {
  display: flex;
  justify-content: space-between;
  align-items: baseline;
}
.note {
  border-left: 3px solid var(--sun);
  padding-left: 0.5rem;
}
.undo {
  text-align: left;
}
.legend {
  display: flex;
  flex-wrap: wrap;
  gap: 0.1rem 0.7rem;
  margin: 0.5rem 0;
}
.b::first-letter {
  color: var(--moss);
}
.w::first-letter {
  color: var(--rust);
}
.s::before {
  content: '';
  display: inline-block;
  width: 18px;
  height: 11px;
  margin-right: 4px;
  background: var(--sun-soft);
  border-radius: 4px;
}
.known {
  background: var(--paper-deep);
  border-radius: 10px;
  padding: 0.6rem 0.8rem;
  margin: 0.6rem 0;
}
.known p {
  margin: 0;
}
</style>
