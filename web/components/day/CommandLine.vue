<script setup lang="ts">
import { computed, nextTick, ref, watch } from 'vue'
import { completions, parseCommand } from '#core/command/parse'
import { turnSign } from '#core/adjusters/words'
import { bigMoveWords, isBigMove } from '#core/setup/bigMove'
import { useDay } from '../../stores/day.ts'
import type { Done } from '../../stores/day/turns.ts'
import { useNotices } from '../../stores/notices.ts'
import { useUnits } from '../../composables/useUnits.ts'
import DialogFrame from '../shell/DialogFrame.vue'

const open = defineModel<boolean>('open', { required: true })
const emit = defineEmits<{ done: [done: Done]; undo: [] }>()
const day = useDay()
const notices = useNotices()
const { moveWords, units } = useUnits()
const line = ref('')
const box = ref<HTMLInputElement>()
watch(open, async (is) => {
  if (!is) return
  line.value = ''
  await nextTick()
  setTimeout(() => box.value?.focus(), 60)
})
const parsed = computed(() => {
  try {
    return { command: parseCommand(line.value, day.space, day.positions), fault: null }
  } catch (e) {
    return { command: null, fault: e instanceof Error ? e.message : String(e) }
  }
})
const preview = computed(() => {
  const c = parsed.value.command
  if (!c) return []
  return c.kind === 'undo'
    ? [
        day.undo
          ? `Undo: ${day.undo.moves.map((m) => moveWords(m)).join('; ')}`
          : 'There is no change of today to undo.',
      ]
    : c.moves.map((m) => `${moveWords(m)} ${turnSign(m.adjuster, m.from, m.to) ?? ''}`)
})
const hints = computed(() => completions(line.value, day.space).slice(0, 6))
function complete(word: string) {
  line.value = line.value.replace(/\S*$/, word) + ' '
  box.value?.focus()
}
const tab = (e: KeyboardEvent) => {
  if (!hints.value[0]) return
  e.preventDefault()
  complete(hints.value[0])
}
/** The line that was asked about: moves far beyond a usual step are most likely slips. */
const asked = ref('')
const slips = computed(() => {
  const c = parsed.value.command
  return c && c.kind !== 'undo' ? c.moves.filter(isBigMove) : []
})
async function submit() {
  const c = parsed.value.command
  if (!c) return
  if (slips.value.length > 0 && asked.value !== line.value) {
    asked.value = line.value
    return
  }
  const ok = await notices.attempt(async () => {
    if (c.kind === 'undo') emit('undo')
    else {
      for (const m of c.moves) day.choose(m.adjuster.id, m.to)
      emit('done', await day.applyPending(`typed: ${line.value}`, c.moves.length > 1))
    }
  })
  if (ok) open.value = false
}
</script>

<template>
  <DialogFrame v-model:open="open" title="Change in one line">
    <form class="line" @submit.prevent="submit">
      <input
        ref="box"
        v-model="line"
        class="form-control num"
        placeholder="rear reb slower 1"
        autocomplete="off"
        autocapitalize="off"
        spellcheck="false"
        aria-label="Change"
        @keydown.tab="tab"
      />
      <div class="hints">
        <button v-for="h in hints" :key="h" type="button" @click="complete(h)">{{ h }}</button>
      </div>
      <p v-for="p in preview" :key="p" class="will">{{ p }}</p>
      <p v-if="parsed.fault" class="soft" role="status">{{ parsed.fault }}</p>
      <template v-if="asked === line">
        <p v-for="m in slips" :key="m.adjuster.id" class="caution" role="alert">
          {{ bigMoveWords(m, units) }}
        </p>
      </template>
      <BButton type="submit" variant="primary" :disabled="!parsed.command">Done, it is on</BButton>
      <p class="soft small">
        Also: <code>f psi +2</code> · <code>shock lsc 9</code> · <code>fork spacer +1 psi -4</code> (one
        linked change) · <code>undo</code>
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
  gap: 0.3rem;
}
.hints button {
  border: 1px solid var(--line);
  border-radius: 8px;
  background: var(--paper);
  color: var(--ink);
  min-height: 36px;
}
.will {
  font-weight: 650;
  font-size: 1.1rem;
  margin: 0;
}
p {
  margin: 0;
}
</style>
