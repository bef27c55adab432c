<script setup lang="ts">
import { computed } from 'vue'

/** What was chosen on the rails, until somebody says that it is on the bike. */
const props = defineProps<{
  readings?: string[]
  turns: string[]
  /** Asked about before it is taken: moves too big to be meant. */
  slips?: string[]
}>()
const emit = defineEmits<{ apply: []; drop: [] }>()
/** Several turns are one change only where somebody says so. */
const linked = defineModel<boolean>('linked', { required: true })
const why = defineModel<string>('why', { required: true })
const needsLink = computed(() => props.turns.length > 1)
</script>

<template>
  <div class="pending" role="status">
    <p class="small soft">Chosen here, not yet said to be on the bike</p>
    <p v-for="w in readings" :key="w" class="words">{{ `Read: ${w}` }}</p>
    <p v-for="w in turns" :key="w" class="words">{{ w }}</p>
    <label v-if="needsLink" class="linked">
      <input v-model="linked" type="checkbox" class="form-check-input" />
      These belong together and count as one change. Otherwise change one and ride it first.
    </label>
    <BFormInput v-model="why" size="sm" placeholder="Why? (optional)" aria-label="Why this change" />
    <p v-for="w in slips" :key="w" class="caution" role="alert">{{ w }}</p>
    <div class="acts">
      <BButton variant="primary" :disabled="needsLink && !linked" @click="emit('apply')"
        >Done, it is on</BButton
      >
      <BButton variant="plain" @click="emit('drop')">Cancel</BButton>
    </div>
  </div>
</template>

<style scoped>
.pending {
  background: var(--card);
  border: 2px solid var(--sun);
  border-radius: 10px;
  padding: 0.6rem 0.7rem;
  margin-top: 0.6rem;
  display: grid;
  gap: 0.45rem;
}
.pending p {
  margin: 0;
}
.words {
  font-weight: 650;
}
.linked {
  display: flex;
  gap: 0.5rem;
  font-size: 0.9rem;
}
.acts {
  display: flex;
  gap: 0.5rem;
}
</style>
