<script setup lang="ts">
import { computed } from 'vue'
import type { LoggerFaults } from '#contract/logger'
import type { Logger } from '../../composables/useLogger.ts'
import { useNotices } from '../../stores/notices.ts'

/** What only a stand-in has: faults that it can be told to show. */
const props = defineProps<{ logger: Logger }>()
const notices = useNotices()
const names: { key: keyof LoggerFaults; text: string }[] = [
  { key: 'leakingAdapter', text: 'leaking adapter' },
  { key: 'dropOuts', text: 'drop-outs' },
  { key: 'clockJump', text: 'clock jump' },
  { key: 'flatBattery', text: 'flat battery' },
  { key: 'wrongRange', text: 'range too small' },
]
const faults = computed(() => props.logger.standIn.value?.faults ?? null)
const pace = computed(() => props.logger.standIn.value?.pace ?? 1)
const toggle = (key: keyof LoggerFaults) =>
  notices.attempt(async () => {
    const now = faults.value
    if (now) await props.logger.showFault(key, !now[key])
    props.logger.watchAnew()
  })
</script>

<template>
  <section v-if="faults" class="card-paper panel" aria-labelledby="stand-in-title">
    <h2 id="stand-in-title">This is a stand-in</h2>
    <p class="soft small">
      {{
        `It rides your trail in a simulation, ${pace} times as fast as life, with the settings of the run; its hands follow the steps. For practice it can be told to fail:`
      }}
    </p>
    <div class="faults">
      <label v-for="f in names" :key="f.key"
        ><input type="checkbox" class="form-check-input" :checked="faults[f.key]" @change="toggle(f.key)" />
        {{ f.text }}</label
      >
    </div>
  </section>
</template>

<style scoped>
.panel {
  padding: 0.8rem 1rem;
  border-style: dashed;
}
.faults {
  display: grid;
  grid-template-columns: 1fr 1fr;
}
label {
  display: flex;
  gap: 0.5rem;
  align-items: center;
  min-height: var(--touch);
}
</style>
