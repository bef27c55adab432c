<script setup lang="ts">
import { computed } from 'vue'
import { useRoute, type RouteLocationRaw } from 'vue-router'
import type { Bench } from '#contract/bench'
import type { Feel } from '#contract/run'
import type { Setup } from '#contract/setup'
import type { Letter } from '../../api/letters.ts'
import { runInDay } from '../../api/mail.ts'
import { mineOver } from '../../api/settling.ts'
import { useDifferenceWords } from '../../composables/useDifferenceWords.ts'
import { useDay } from '../../stores/day.ts'
import { useOutbox } from '../../stores/outbox.ts'
import { differencesOf } from '../../support/bothVersions.ts'
import { letterWords } from '../../support/letterWords.ts'

/**
 * What was written here and changed elsewhere before it arrived, wherever one is: a person chooses, and until then neither
 * is thrown away. Where a screen shows both versions itself, the way there.
 */
const outbox = useOutbox()
const day = useDay()
const route = useRoute()
const differenceWords = useDifferenceWords()

interface Clash {
  letter: Letter
  words: string
  /** Where both are looked at; null: they are chosen between right here. */
  to: RouteLocationRaw | null
  /** The screen that is open shows it. */
  isShown: boolean
  /** Turns were thought for the bike as it stood then: without the day that shows both they can only be given up. */
  canKeep: boolean
  differences: string[]
}
function clashOf(letter: Letter): Clash {
  const words = `${letterWords(letter)} was changed elsewhere before it arrived`
  const canKeep = letter.kind !== 'setup'
  const theirs = letter.problem?.current
  const as = (to: RouteLocationRaw | null, isShown: boolean): Clash => ({
    letter,
    words,
    to,
    isShown,
    canKeep,
    differences:
      to || !canKeep || !theirs ? [] : differencesOf(mineOver(letter) as object, theirs).map(differenceWords),
  })
  if (letter.kind === 'feel') {
    const at = runInDay((letter.body as Feel).runId)
    const isOpen = route.name === 'day' && day.selectedRun?.id === (letter.body as Feel).runId
    const query = { run: at?.number, part: 'feel' }
    return as(at && { name: 'day', params: { id: at.dayId }, query }, isOpen)
  }
  if (letter.kind === 'setup') {
    const { dayId } = letter.body as Setup
    const isOpen = route.name === 'day' && day.overtaken?.letter.key === letter.key
    return as(dayId === null ? null : { name: 'day', params: { id: dayId }, query: { part: 'bike' } }, isOpen)
  }
  if (letter.kind === 'bench') {
    const { bikeId } = letter.body as Bench
    const isOpen = route.name === 'bench' && route.params.bikeId === bikeId
    return as({ name: 'bench', params: { bikeId } }, isOpen)
  }
  return as(null, false)
}
const clashes = computed(() => outbox.conflicts.map(clashOf).filter((c) => !c.isShown))
</script>

<template>
  <div v-for="c in clashes" :key="c.letter.id" class="clash" role="alert">
    <span>{{ `Not saved: ${c.words}.` }}</span>
    <RouterLink v-if="c.to" class="btn btn-sm btn-plain" :to="c.to">Look at both</RouterLink>
    <template v-else>
      <ul v-if="c.differences.length">
        <li v-for="d in c.differences" :key="d">{{ d }}</li>
      </ul>
      <button
        v-if="c.canKeep"
        type="button"
        class="btn btn-sm btn-plain"
        @click="outbox.settle(c.letter.id, 'mine')"
      >
        Use mine
      </button>
      <button type="button" class="btn btn-sm btn-plain" @click="outbox.settle(c.letter.id, 'theirs')">
        {{ c.canKeep ? 'Use theirs' : 'Drop mine' }}
      </button>
    </template>
  </div>
</template>

<style scoped>
.clash {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 0.3rem 0.6rem;
  margin: 0.1rem 0;
  border-left: 5px solid #a8452b;
  padding-left: 0.6rem;
}
ul {
  margin: 0;
  padding-left: 1.1rem;
}
@media (max-width: 720px) {
  ul {
    flex-basis: 100%;
  }
}
.btn {
  color: #1b2723;
}
</style>
