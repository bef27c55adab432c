<script setup lang="ts">
import { computed, useTemplateRef, watch } from 'vue'
import { completions } from '#core/command/complete'
import { parseCommand, type Command } from '#core/command/parse'
import { nearestReadings } from '#core/command/readings'
import { turnSign } from '#core/adjusters/words'
import { bigMoveWords, isBigMove } from '#core/setup/bigMove'
import type { Move } from '#core/setup/diff'
import { useCommandText } from '../../composables/useCommandText.ts'
import { useUnits } from '../../composables/useUnits.ts'
import { useDay } from '../../stores/day.ts'
import type { Done } from '../../stores/day/turns.ts'
import { useGarage } from '../../stores/garage.ts'
import { useNotices } from '../../stores/notices.ts'
import { wayBack } from '../../support/goBack.ts'
import { vRoving } from '../../support/roving.ts'
import DialogFrame from '../shell/DialogFrame.vue'

const open = defineModel<boolean>('open', { required: true })
/** A sentence that something else on the screen says; taken up when the dialog opens. */
const say = defineModel<string>('say', { default: '' })
const emit = defineEmits<{ done: [done: Done]; undo: [] }>()
const day = useDay()
const garage = useGarage()
const notices = useNotices()
const { moveWords, units } = useUnits()
/** What was typed stays until it is done: Escape, a look at the rail, and it is still there. */
const { line, asked } = useCommandText(() => day.bundle?.day.id ?? '')
const box = useTemplateRef<HTMLInputElement>('box')
watch(
  open,
  (is) => {
    if (!is) return
    asked.value = ''
    if (say.value) line.value = say.value
    say.value = ''
    if (!garage.loaded) void notices.attempt(garage.load)
  },
  { immediate: true },
)
const people = computed(() => {
  const rider = day.bundle?.rider.name ?? ''
  return { rider, others: garage.riders.map((r) => r.name).filter((n) => n !== rider) }
})
const turnWords = (m: Move) => `${moveWords(m)} ${turnSign(m.adjuster, m.from, m.to) ?? ''}`.trim()
const parsed = computed(() => {
  try {
    return { command: parseCommand(line.value, day.space, day.positions, people.value), fault: null }
  } catch (e) {
    return { command: null, fault: e instanceof Error ? e.message : String(e) }
  }
})
/** The settings of an earlier run that a line asks for, with the turns to them. */
const goingBack = computed(() => {
  const c = parsed.value.command
  const b = day.bundle
  const now = day.currentSetup
  if (c?.kind !== 'back-to' || !b || !now) return null
  return wayBack(b, now, c.run)
})
/** The same where it can be gone. */
const way = computed(() => (goingBack.value && !('fault' in goingBack.value) ? goingBack.value : null))
const fault = computed(
  () => parsed.value.fault ?? (goingBack.value && 'fault' in goingBack.value ? goingBack.value.fault : null),
)
const wordsOf = (c: Command): string[] => {
  if (c.kind === 'back-to')
    return way.value ? [`Back to run ${way.value.number}:`, ...way.value.moves.map(turnWords)] : []
  return c.kind === 'undo'
    ? [
        day.undo
          ? `Undo: ${day.undo.moves.map((m) => moveWords(m)).join('; ')}`
          : 'There is no change of today to undo.',
      ]
    : c.moves.map(turnWords)
}
const preview = computed(() => (parsed.value.command ? wordsOf(parsed.value.command) : []))
const readings = computed(() =>
  parsed.value.command
    ? []
    : nearestReadings(line.value, day.space, day.positions, people.value).map((r) => ({
        line: r.line,
        words: wordsOf(r.command).join('; '),
      })),
)
const hints = computed(() => completions(line.value, day.space).slice(0, 6))
function complete(word: string) {
  line.value = line.value.replace(/\S*$/, word) + ' '
  box.value?.focus()
}
function take(reading: string) {
  line.value = reading
  box.value?.focus()
}
const tab = (e: KeyboardEvent) => {
  if (!hints.value[0] || e.shiftKey) return
  e.preventDefault()
  complete(hints.value[0])
}
const slips = computed(() => {
  const c = parsed.value.command
  return c?.kind === 'change' ? c.moves.filter(isBigMove) : []
})
async function submit() {
  const c = parsed.value.command
  if (!c || fault.value) return
  if (slips.value.length > 0 && asked.value !== line.value) {
    asked.value = line.value
    return
  }
  const ok = await notices.attempt(async () => {
    if (c.kind === 'undo') emit('undo')
    else if (c.kind === 'back-to') {
      if (way.value) emit('done', await day.backTo(way.value.setup.id, `Back to run ${way.value.number}`))
    } else {
      for (const m of c.moves) day.choose(m.adjuster.id, m.to)
      emit('done', await day.applyPending(`typed: ${line.value}`, c.moves.length > 1))
    }
  })
  if (!ok) return
  line.value = ''
  open.value = false
}
</script>

<template>
  <DialogFrame v-model:open="open" title="Change in one line">
    <form class="line" @submit.prevent="submit">
      <input
        ref="box"
        v-model="line"
        data-first
        class="form-control num"
        placeholder="rear reb slower 1"
        autocomplete="off"
        autocapitalize="off"
        spellcheck="false"
        enterkeyhint="done"
        aria-label="Change"
        @keydown.tab="tab"
      />
      <div v-roving class="hints" role="group" aria-label="Words that fit">
        <button v-for="h in hints" :key="h" type="button" @click="complete(h)">{{ h }}</button>
      </div>
      <div role="status">
        <p v-for="p in preview" :key="p" class="will">{{ p }}</p>
        <p v-if="fault" class="soft">{{ fault }}</p>
      </div>
      <div v-if="readings.length" v-roving class="readings" role="group" aria-label="Did you mean">
        <button v-for="r in readings" :key="r.line" type="button" @click="take(r.line)">{{ r.words }}</button>
      </div>
      <template v-if="asked === line">
        <p v-for="m in slips" :key="m.adjuster.id" class="caution" role="alert">
          {{ bigMoveWords(m, units) }}
        </p>
      </template>
      <BButton type="submit" variant="primary" :disabled="!parsed.command || fault !== null"
        >Done, it is on</BButton
      >
      <p class="soft small">
        Say it as you would at the trailhead: <code>slow the shock down one</code> ·
        <code>fork +2 psi</code> · <code>lsc 9</code> · <code>shock lever firm</code> · <code>undo</code> ·
        <code>back to run 3</code> ·
        <code>back to the last good one</code>
      </p>
    </form>
  </DialogFrame>
</template>

<style scoped>
.line {
  display: grid;
  gap: 0.6rem;
}
.line input {
  font-size: 1.2rem;
}
.hints {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  /* Kept free while there is none: what stands below must not jump under a finger. */
  min-height: var(--touch);
}
.hints button {
  border: 1px solid var(--line);
  border-radius: 8px;
  background: var(--paper);
  color: var(--ink);
  min-height: var(--touch);
  min-width: var(--touch);
}
.will {
  font-weight: 650;
  font-size: 1.1rem;
  margin: 0;
}
p {
  margin: 0;
}
.readings {
  display: grid;
  gap: 8px;
}
.readings button {
  min-height: var(--touch);
  text-align: left;
  padding: 0.3rem 0.8rem;
  border: 1px dashed var(--ink-soft);
  border-radius: 10px;
  background: none;
  color: var(--ink);
}
</style>
