<script setup lang="ts">
import { useIntervalFn } from '@vueuse/core'
import { computed, ref } from 'vue'
import type { CalibrationStep } from '#core/devices/calibrationStep'
import { isHeldDepth } from '#core/devices/heldDepthSteps'
import IconCheck from '~icons/lucide/check'
import type { Logger } from '../../composables/useLogger.ts'
import { useNotices } from '../../stores/notices.ts'
import RingFields from './RingFields.vue'

/** Calibration as steps that say why, each with its hold, a timer, and whether it can be used. */
const props = defineProps<{ logger: Logger }>()
const notices = useNotices()
const holding = ref<CalibrationStep['key'] | null>(null)
const left = ref(0)
const { pause, resume } = useIntervalFn(() => (left.value = Math.max(0, left.value - 1)), 1000, {
  immediate: false,
})

const rows = computed(() => {
  let open = true
  return props.logger.steps.value.map((s, i) => {
    const done = props.logger.isDone(s)
    const current = open && !done
    if (!done) open = false
    return { s, number: i + 1, done, current, verdict: props.logger.verdicts.value[s.key] }
  })
})

async function hold(s: CalibrationStep) {
  holding.value = s.key
  left.value = s.holdSeconds
  resume()
  await notices.attempt(() => props.logger.hold(s))
  pause()
  holding.value = null
}
const tick = (s: CalibrationStep) => notices.attempt(() => props.logger.tick(s))
const holdWords = (s: CalibrationStep) => `Hold now, ${s.holdSeconds} s`
const leftWords = computed(() => `keep still … ${left.value} s`)
</script>

<template>
  <ol class="steps">
    <li v-for="r in rows" :key="r.s.key" :class="{ done: r.done, current: r.current }">
      <span class="no num" aria-hidden="true"
        ><IconCheck v-if="r.done" /><template v-else>{{ r.number }}</template></span
      >
      <div>
        <b>{{ r.s.title }}</b>
        <template v-if="r.current || holding === r.s.key">
          <p>{{ r.s.how }}</p>
          <p class="soft small">Why: {{ r.s.why }}</p>
        </template>
        <RingFields
          v-if="isHeldDepth(r.s.key) && logger.held.value[r.s.key] && holding !== r.s.key"
          :logger="logger"
          :step="r.s"
        />
        <p v-if="r.verdict" class="num small" :class="{ fault: !r.verdict.ok }">{{ r.verdict.words }}</p>
      </div>
      <span v-if="holding === r.s.key" class="num holding" role="timer">{{ leftWords }}</span>
      <button
        v-else-if="r.s.holdSeconds > 0"
        type="button"
        class="btn"
        :class="r.current && !r.verdict ? 'btn-primary' : 'btn-plain'"
        :disabled="holding !== null || (!r.current && !r.done)"
        @click="hold(r.s)"
      >
        {{ r.done || r.verdict ? 'Hold again' : holdWords(r.s) }}
      </button>
      <button
        v-else-if="!r.done"
        type="button"
        class="btn"
        :class="r.current ? 'btn-primary' : 'btn-plain'"
        :disabled="!r.current || holding !== null"
        @click="tick(r.s)"
      >
        That is done
      </button>
    </li>
  </ol>
</template>

<style scoped>
.steps {
  list-style: none;
  margin: 0;
  padding: 0;
}
li {
  display: grid;
  grid-template-columns: 30px minmax(0, 1fr) auto;
  gap: 0.2rem 0.7rem;
  align-items: start;
  padding: 0.5rem 0;
  border-bottom: 1px solid var(--line);
}
li:not(.current, .done) b {
  color: var(--ink-soft);
  font-weight: 500;
}
.no {
  width: 28px;
  height: 28px;
  border-radius: 50%;
  border: 2px solid var(--ink-soft);
  display: grid;
  place-items: center;
  font-weight: 700;
}
.done .no {
  background: var(--moss);
  border-color: var(--moss);
  color: #fff;
}
.current .no {
  border-color: var(--sun-ink);
  background: var(--sun-soft);
}
p {
  margin: 0.15rem 0;
}
.fault {
  color: var(--rust);
  font-weight: 600;
}
.holding {
  font-weight: 700;
  min-width: 9rem;
  text-align: right;
}
@media (max-width: 560px) {
  li .btn,
  .holding {
    grid-column: 2;
  }
}
</style>
