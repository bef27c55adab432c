<script setup lang="ts">
import IconCovered from '~icons/lucide/eye-off'

defineProps<{ what: string; runNumber: number }>()
const emit = defineEmits<{ uncover: [] }>()
</script>

<template>
  <section class="cover card-paper" aria-label="Covered">
    <p class="lead"><IconCovered aria-hidden="true" /> {{ what }}</p>
    <p>{{ `Covered until the feel of run ${runNumber} is in. Who knows what was turned feels it.` }}</p>
    <button type="button" class="btn btn-plain btn-sm" @click="emit('uncover')">
      Uncover for this run (coach)
    </button>
  </section>
</template>

<style scoped>
.cover {
  padding: 1rem;
  border-style: dashed;
}
.lead {
  font-weight: 650;
  margin-bottom: 0.4rem;
}
</style>
