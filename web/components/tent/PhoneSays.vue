<script setup lang="ts">
import { computed } from 'vue'
import type { DayBundle } from '#contract/endpoints'
import type { KeptPadReport } from '#contract/pad'
import { runBefore } from '#core/setup/runBefore'
import { joinedFeel } from '#core/tent/padFeel'
import { apiBase } from '../../api/client.ts'
import { clockWords } from '../../support/dates.ts'
import { againstWords, reportWords } from '#core/tent/padWords'

/** What a rider said on the phone and nobody has said yet of which run; both versions where they contradict. */
const props = defineProps<{
  report: KeptPadReport
  /** How many more wait. */
  more: number
  day: DayBundle
}>()
const emit = defineEmits<{ take: [runId: string | null, phoneIsRight: boolean]; log: [] }>()
const number = (runId: string) => props.day.runs.findIndex((r) => r.id === runId) + 1
/** The run it was said of, or the last. */
const run = computed(
  () => props.day.runs.find((r) => r.id === props.report.report.runId) ?? props.day.runs.at(-1) ?? null,
)
const differs = computed(() => {
  if (!run.value) return null
  const held = props.day.feels.find((f) => f.runId === run.value!.id) ?? null
  const before = runBefore(props.day.runs, run.value.id)?.id ?? null
  const joined = joinedFeel(held, props.report.report, run.value.id, before, () => '')
  return 'differs' in joined ? joined.differs : null
})
const heldWords = computed(() => differs.value && againstWords[differs.value.held as 0])
</script>

<template>
  <div class="says" role="group" aria-label="The rider’s phone">
    <p>
      <b>{{ `The phone, ${clockWords(report.saidAt)}:` }}</b> {{ reportWords(report.report, day.trail) }}
      <span v-if="more" class="soft">{{ `and ${more} more` }}</span>
    </p>
    <audio
      v-if="report.report.voiceId"
      controls
      preload="none"
      :src="`${apiBase}/voices/${report.report.voiceId}`"
    ></audio>
    <p v-if="differs" class="differs">{{ `The tent has ${heldWords} for run ${number(run!.id)}.` }}</p>
    <span class="keys">
      <button v-if="run && !differs" type="button" class="btn btn-plain" @click="emit('take', run.id, false)">
        {{ `It is run ${number(run.id)}` }}
      </button>
      <button v-if="run && differs" type="button" class="btn btn-plain" @click="emit('take', run.id, true)">
        The phone is right
      </button>
      <button type="button" class="btn btn-plain" @click="emit('log')">
        {{ `Log run ${day.runs.length + 1} with it` }}
      </button>
      <button type="button" class="btn btn-plain" @click="emit('take', null, false)">Set it aside</button>
    </span>
  </div>
</template>

<style scoped>
.says {
  flex: 1 0 100%;
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 0.2rem 0.9rem;
  min-height: 44px;
  border-left: 6px solid var(--sky);
  padding-left: 0.7rem;
}
p {
  margin: 0;
}
.differs {
  color: var(--rust);
  font-weight: 650;
}
.keys {
  display: inline-flex;
  flex-wrap: wrap;
  gap: 8px;
}
audio {
  height: 40px;
  max-width: 16rem;
}
</style>
