<script setup lang="ts">
import { nextTick, ref, watch } from 'vue'
import type { BenchStep } from '#contract/bench'
import type { StepState } from '#core/bench/states'
import { stepWords } from '#core/bench/stepWords'

/** The steps as posts along a path: filled = done, hollow = open, torn = stale, crossed = skipped. */
const props = defineProps<{ states: readonly StepState[]; at: BenchStep }>()
const emit = defineEmits<{ go: [step: BenchStep] }>()
const list = ref<HTMLElement>()
// On a phone the path is a strip: the present post stays in sight.
watch(
  () => props.at,
  () =>
    void nextTick(() => {
      const post = list.value?.querySelector<HTMLElement>('.at')
      if (post && list.value)
        list.value.scrollLeft = post.offsetLeft - list.value.clientWidth / 2 + post.offsetWidth / 2
    }),
  { immediate: true },
)
const stateWords = {
  open: '',
  done: 'done',
  skipped: 'skipped',
  out: 'out, left so',
  stale: 'check again',
} as const
</script>

<template>
  <ol ref="list" class="path" aria-label="Steps of the bench">
    <li v-for="(s, i) in states" :key="s.step" :class="[s.state, { at: s.step === at }]">
      <button type="button" :aria-current="s.step === at ? 'step' : undefined" @click="emit('go', s.step)">
        <span class="post num" aria-hidden="true">{{
          s.state === 'done' ? '✓' : s.state === 'stale' ? '!' : s.state === 'out' ? '≠' : i + 1
        }}</span>
        <span class="text"
          ><span class="words">{{ stepWords[s.step] }}</span
          ><small v-if="stateWords[s.state]">{{ stateWords[s.state] }}</small></span
        >
      </button>
    </li>
  </ol>
</template>

<style scoped>
.path {
  list-style: none;
  margin: 0;
  padding: 0;
}
li {
  position: relative;
}
li:not(:last-child)::before {
  content: '';
  position: absolute;
  left: 21px;
  top: 40px;
  bottom: -4px;
  border-left: 2px dashed var(--ink-soft);
}
button {
  display: grid;
  grid-template-columns: 30px 1fr;
  gap: 0 0.7rem;
  align-items: center;
  width: 100%;
  min-height: 48px;
  padding: 0.2rem 0.4rem;
  border: 0;
  border-radius: 10px;
  background: none;
  color: inherit;
  text-align: left;
}
.at button {
  background: var(--card);
  box-shadow: inset 0 0 0 1px var(--line);
}
.at .words {
  font-weight: 650;
}
.post {
  position: relative;
  display: grid;
  place-items: center;
  width: 30px;
  height: 30px;
  border: 2px solid var(--ink-soft);
  border-radius: 9px 9px 4px 4px;
  background: var(--paper);
  font-size: 0.9rem;
}
.done .post {
  background: var(--moss);
  border-color: var(--moss);
  color: var(--card);
}
.out .post {
  border-color: var(--rust);
  color: var(--rust);
  font-weight: 700;
}
.stale .post {
  background: var(--sun);
  border-color: var(--rust);
  color: #1b2723;
  font-weight: 700;
}
.skipped .words {
  text-decoration: line-through;
  color: var(--ink-soft);
}
small {
  display: block;
  color: var(--ink-soft);
}
.stale small {
  color: var(--rust);
  font-weight: 650;
}
@media (max-width: 860px) {
  .path {
    display: flex;
    position: relative;
    overflow-x: auto;
    gap: 0.2rem;
    padding: 0.2rem 0;
  }
  li {
    flex: none;
  }
  li:not(:last-child)::before {
    display: none;
  }
  button {
    grid-template-columns: 30px;
  }
  .at button {
    grid-template-columns: 30px auto;
  }
  li:not(.at) .words,
  small {
    position: absolute;
    width: 1px;
    height: 1px;
    overflow: hidden;
    clip-path: inset(50%);
  }
  .words {
    white-space: nowrap;
  }
}
</style>
