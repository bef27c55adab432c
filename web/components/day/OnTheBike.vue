<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import type { Adjuster } from '#contract/adjuster'
import { useUnits } from '../../composables/useUnits.ts'
import { adjusterName, turnSign } from '#core/adjusters/words'
import IconUndo from '~icons/lucide/undo-2'
import { wayBack } from '../../support/goBack.ts'
import { useDay } from '../../stores/day.ts'
import type { Done } from '../../stores/day/turns.ts'
import { useNotices } from '../../stores/notices.ts'
import EndMark from '../shell/EndMark.vue'
import ClickRail from './ClickRail.vue'
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
async function apply() {
  if (slipKey.value !== '' && asked.value !== slipKey.value) {
    asked.value = slipKey.value
    return
  }
  asked.value = ''
  await notices.attempt(async () => emit('done', await day.applyPending(why.value, linked.value)))
  why.value = ''
}
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
    <div v-if="day.pendingMoves.length || readingWords.length" class="pending" role="status">
      <p class="small soft">Chosen here, not yet said to be on the bike</p>
      <p v-for="w in readingWords" :key="w" class="words">{{ `Read: ${w}` }}</p>
      <p v-for="w in pendingWords" :key="w" class="words">{{ w }}</p>
      <label v-if="needsLink" class="linked">
        <input v-model="linked" type="checkbox" class="form-check-input" />
        These belong together and count as one change. Otherwise change one and ride it first.
      </label>
      <BFormInput v-model="why" size="sm" placeholder="Why? (optional)" aria-label="Why this change" />
      <p v-for="w in slipWords" :key="w" class="caution" role="alert">{{ w }}</p>
      <div class="acts">
        <BButton variant="primary" :disabled="!applicable" @click="apply">Done, it is on</BButton>
        <BButton variant="plain" @click="day.clearPending">Cancel</BButton>
      </div>
    </div>
    <template v-for="u in units" :key="u.id">
      <h3 class="unit"><EndMark :end="u.end" /> {{ u.end === 'front' ? 'Front' : 'Rear' }}, {{ u.name }}</h3>
      <template v-for="a in u.adjusters" :key="a.id">
        <ClickRail
          :end="u.end"
          :adjuster="a"
          :value="day.positions.get(a.id) ?? null"
          :known="day.held.get(a.id)?.known ?? null"
          :locked="day.past"
          :target="day.pending[a.id]"
          :ghost="ghostFor(a)"
          :bracket="bracketFor(a)"
          :detail="u.assumed.includes(a.id) ? 'range assumed' : undefined"
          @choose="(v) => day.choose(a.id, v)"
          @apply="applicable && apply()"
          @drop="day.clearPending"
        />
        <p v-if="airOf.get(a.id)" class="soft small air">{{ airOf.get(a.id) }}</p>
      </template>
      <p v-if="u.adjusters.length === 0" class="soft small">Nothing to turn on this unit.</p>
    </template>
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
.unit {
  margin: 0.7rem 0 0.1rem;
}
.pending {
  background: var(--card);
  border: 2px solid var(--sun);
  border-radius: 10px;
  padding: 0.6rem 0.7rem;
  margin-top: 0.6rem;
  display: grid;
  gap: 0.45rem;
}
.air {
  margin: 0;
}
.note {
  border-left: 3px solid var(--sun);
  padding-left: 0.5rem;
}
.pending p {
  margin: 0;
}
.words {
  font-weight: 650;
}
.undo {
  text-align: left;
}
.linked {
  display: flex;
  gap: 0.5rem;
  font-size: 0.9rem;
}
.acts {
  display: flex;
  gap: 0.5rem;
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
