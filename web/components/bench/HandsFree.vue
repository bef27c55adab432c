<script setup lang="ts">
import { useIntervalFn } from '@vueuse/core'
import { useKept } from '../../composables/useKept.ts'
import { computed, onUnmounted, ref } from 'vue'

/** Counts a person with full hands through timed steps, in big type and, if wished, aloud. */
const props = defineProps<{
  title: string
  steps: readonly { words: string; seconds: number; count?: number }[]
}>()
const emit = defineEmits<{ finished: [] }>()

const aloud = useKept('wild-spring:aloud', false)
const canSpeak = typeof speechSynthesis !== 'undefined'
const at = ref(-1)
const left = ref(0)
const step = computed(() => props.steps[at.value])
/** Cycle in hand, for steps that are counted. */
const cycle = computed(() => {
  const s = step.value
  if (!s?.count) return null
  const each = s.seconds / s.count
  return Math.min(s.count, Math.floor((s.seconds - left.value) / each) + 1)
})
const { pause, resume, isActive } = useIntervalFn(tick, 1000, { immediate: false })

function say(words: string) {
  if (!aloud.value || !canSpeak) return
  speechSynthesis.cancel()
  speechSynthesis.speak(new SpeechSynthesisUtterance(words))
}
function go(i: number) {
  at.value = i
  if (i >= props.steps.length) {
    stop()
    say('Done')
    emit('finished')
    return
  }
  left.value = props.steps[i].seconds
  say(props.steps[i].words)
}
function start() {
  go(0)
  resume()
}
function stop() {
  pause()
  at.value = -1
}
function tick() {
  const before = cycle.value
  left.value -= 1
  if (left.value <= 0) go(at.value + 1)
  else if (cycle.value !== null && cycle.value !== before) say(String(cycle.value))
}
onUnmounted(() => {
  pause()
  if (canSpeak) speechSynthesis.cancel()
})
</script>

<template>
  <div class="timer">
    <div v-if="at < 0" class="idle">
      <BButton variant="plain" @click="start">{{ title }}</BButton>
      <label v-if="canSpeak" class="check"
        ><input v-model="aloud" type="checkbox" class="form-check-input" /> say it aloud</label
      >
    </div>
    <div v-else class="running" role="timer" aria-live="polite">
      <p class="words">{{ step?.words }}</p>
      <p class="big num">{{ cycle === null ? left : `${cycle} of ${step?.count}` }}</p>
      <div class="acts">
        <BButton variant="plain" @click="isActive ? pause() : resume()">{{
          isActive ? 'Wait' : 'Go on'
        }}</BButton>
        <BButton variant="plain" @click="go(at + 1)">Next</BButton>
        <BButton variant="plain" @click="stop">Stop</BButton>
      </div>
    </div>
  </div>
</template>

<style scoped>
.idle {
  display: flex;
  flex-wrap: wrap;
  gap: 0.4rem 1rem;
  align-items: center;
}
.check {
  display: flex;
  gap: 0.5rem;
  align-items: center;
  min-height: var(--touch);
}
.running {
  background: var(--pine);
  color: var(--pine-ink);
  border-radius: var(--radius);
  padding: 1rem 1.2rem;
  text-align: center;
}
.words {
  font-size: 1.5rem;
  margin: 0;
  text-wrap: balance;
}
.big {
  font: 700 4.2rem/1.1 var(--head-font);
  margin: 0.2rem 0 0.6rem;
}
.acts {
  display: flex;
  gap: 0.5rem;
  justify-content: center;
}
</style>
