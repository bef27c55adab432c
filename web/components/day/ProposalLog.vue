<script setup lang="ts">
import { computed } from 'vue'
import type { DayBundle } from '#contract/endpoints'
import type { ProposalRecord } from '#contract/proposal'
import { diffSetups } from '#core/setup/diff'
import { useUnits } from '../../composables/useUnits.ts'

const props = defineProps<{ bundle: DayBundle }>()
const { moveWords } = useUnits()
const decisionWords: Record<ProposalRecord['decision'], string> = {
  open: 'still open',
  done: 'done',
  'something-else': 'something else',
  repeat: 'ridden again as it was',
  happy: 'happy as it is',
}
/** What the hands did on the strength of a card, or in its stead. */
function doneInstead(r: ProposalRecord): string[] {
  const setup = props.bundle.setups.find((s) => s.reason.proposalId === r.id)
  const before = setup && props.bundle.setups.find((s) => s.id === setup.parentId)
  return setup && before && r.decision === 'something-else'
    ? diffSetups(before, setup, props.bundle.units).map((m) => moveWords(m))
    : []
}
const rows = computed(() =>
  props.bundle.proposals.map((r) => {
    const after = props.bundle.runs.findIndex((x) => x.id === r.afterRunId)
    return {
      id: r.id,
      after: after < 0 ? 'Before the first run' : `After run ${after + 1}`,
      headline: r.proposal.headline,
      decision: decisionWords[r.decision],
      instead: doneInstead(r),
      // A plan stands until something else is done.
      plan: r.decision === 'done' ? r.proposal.plan : [],
    }
  }),
)
</script>

<template>
  <details v-if="rows.length" class="log">
    <summary>{{ `What was proposed, ${rows.length}` }}</summary>
    <ol>
      <li v-for="r in rows" :key="r.id">
        <span class="soft small">{{ r.after }}</span>
        <b>{{ r.headline }}</b>
        <span>{{ r.decision }}</span>
        <span v-for="s in r.plan" :key="s.when" class="soft small">{{ `If ${s.when}: ${s.does}` }}</span>
        <span v-for="i in r.instead" :key="i" class="small">{{ i }}</span>
      </li>
    </ol>
  </details>
</template>

<style scoped>
.log summary {
  cursor: pointer;
  min-height: var(--touch);
  display: flex;
  align-items: center;
}
ol {
  list-style: none;
  padding: 0;
  margin: 0;
}
li {
  display: grid;
  padding: 0.35rem 0;
  border-top: 1px solid var(--line);
}
</style>
