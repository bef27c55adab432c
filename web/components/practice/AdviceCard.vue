<script setup lang="ts">
import { computed } from 'vue'
import type { Proposal } from '#contract/proposal'

/** What the adviser would do now, for whoever wants to look; to follow it is a tap. */
const props = defineProps<{ proposal: Proposal; judging: boolean }>()
const emit = defineEmits<{ do: []; ask: []; read: []; look: [] }>()
const reasons = computed(() => props.proposal.speaksFor.slice(0, 3))
const turns = computed(() => props.proposal.moves.length > 0 || props.proposal.setupId !== null)
</script>

<template>
  <section class="card-paper advice" aria-labelledby="advice-title" :aria-busy="judging">
    <p class="soft small">The adviser would</p>
    <h2 id="advice-title">{{ proposal.headline }}</h2>
    <ul v-if="reasons.length">
      <li v-for="r in reasons" :key="r.topic + r.text">{{ r.text }}</li>
    </ul>
    <p v-if="proposal.watchFor" class="soft">{{ proposal.watchFor }}</p>
    <div class="acts">
      <BButton v-if="proposal.question" variant="primary" @click="emit('ask')">Ask it</BButton>
      <BButton v-else-if="proposal.lookAt.length" variant="primary" @click="emit('look')">Read it</BButton>
      <BButton v-else-if="proposal.readEnd" variant="primary" @click="emit('read')">Read it</BButton>
      <BButton v-else-if="turns" variant="primary" @click="emit('do')">Turn it like that</BButton>
    </div>
  </section>
</template>

<style scoped>
.card-paper {
  padding: 0.8rem 1rem;
}
p {
  margin: 0;
}
ul {
  margin: 0.3rem 0;
  padding-left: 1.1rem;
}
.acts {
  margin-top: 0.5rem;
}
</style>
