<script setup lang="ts">
import { computed } from 'vue'
import { faultWords, type FaultName } from '#core/devices/faults'
import IconAlert from '~icons/lucide/triangle-alert'

/** A fault by its name, what it means, and the way out of it. */
const props = defineProps<{ fault: FaultName }>()
const words = computed(() => faultWords[props.fault])
</script>

<template>
  <section class="fault-card" role="alert">
    <h3><IconAlert aria-hidden="true" /> {{ words.title }}</h3>
    <p>{{ words.means }}</p>
    <ol>
      <li v-for="t in words.todo" :key="t">{{ t }}</li>
    </ol>
  </section>
</template>

<style scoped>
.fault-card {
  border: 1.5px solid var(--rust);
  border-left-width: 8px;
  border-radius: 10px;
  background: var(--card);
  padding: 0.7rem 0.9rem;
}
h3 {
  display: flex;
  gap: 0.5rem;
  align-items: center;
  color: var(--rust);
}
p {
  margin: 0.3rem 0;
}
ol {
  margin: 0;
  padding-left: 1.3rem;
}
</style>
