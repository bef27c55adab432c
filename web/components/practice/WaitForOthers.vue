<script setup lang="ts">
/** How far the other players are, and the way not to wait for them. */
defineProps<{ progress: string; failed: string }>()
const emit = defineEmits<{ cancel: [] }>()
</script>

<template>
  <p v-if="progress" role="status" class="soft small progressing">
    {{ progress }}
    <button type="button" class="btn btn-plain btn-sm" @click="emit('cancel')">Don’t wait</button>
  </p>
  <p v-if="failed" class="caution" role="alert">{{ failed }}</p>
</template>

<style scoped>
.progressing {
  display: flex;
  align-items: center;
  gap: 0.8rem;
}
</style>
