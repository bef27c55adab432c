<script setup lang="ts">
import { computed, useTemplateRef, watch } from 'vue'
import { completions } from '#core/command/complete'
import { useCommand } from '../../composables/useCommand.ts'
import { useCommandText } from '../../composables/useCommandText.ts'
import { useDay } from '../../stores/day.ts'
import type { Done } from '../../stores/day/turns.ts'
import { useGarage } from '../../stores/garage.ts'
import { useNotices } from '../../stores/notices.ts'
import { oneAtATime } from '../../support/oneAtATime.ts'
import { vRoving } from '../../support/roving.ts'
import DialogFrame from '../shell/DialogFrame.vue'

const open = defineModel<boolean>('open', { required: true })
/** A sentence that something else on the screen says; taken up when the dialog opens. */
const say = defineModel<string>('say', { default: '' })
const emit = defineEmits<{ done: [done: Done]; undo: []; planned: [] }>()
const day = useDay()
const garage = useGarage()
const notices = useNotices()
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
const { preview, fault, readings, slipWords, ready, isPlan, act } = useCommand(line, asked)
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
const submit = oneAtATime(() =>
  notices.attempt(async () => {
    const typed = line.value
    const done = await act()
    if (done === null) return
    if (done === 'undo') emit('undo')
    else if (done === 'planned') emit('planned')
    else emit('done', done)
    // What was typed meanwhile is another line.
    if (line.value !== typed) return
    line.value = ''
    open.value = false
  }),
)
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
      <p v-for="w in slipWords" :key="w" class="caution" role="alert">{{ w }}</p>
      <BButton type="submit" variant="primary" :disabled="!ready">{{
        isPlan ? 'Keep the plan' : 'Done, it is on'
      }}</BButton>
      <p class="soft small">
        Say it as you would at the trailhead: <code>slow the shock down one</code> ·
        <code>fork +2 psi</code> · <code>both ends slower 1</code> · <code>lsc 9</code> ·
        <code>fork psi from 78 to 82</code> · <code>shock lever firm</code> · <code>read shock reb 8</code> ·
        <code>undo</code> · <code>back to run 3</code> · <code>back to the last good one</code> ·
        <code>if worse, shock reb faster 1</code>
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
