<script setup lang="ts">
import { computed } from 'vue'

/** How far an upload and its reading are, with the way out. */
const props = defineProps<{ share: number; doing: string }>()
defineEmits<{ cancel: [] }>()
const percent = computed(() => Math.round(100 * props.share))
</script>

<template>
  <div class="upload" role="status">
    <BProgress :value="percent" :max="100" variant="success" class="bar" />
    <span class="num">{{ `${doing}, ${percent} %` }}</span>
    <BButton variant="plain" @click="$emit('cancel')">Cancel</BButton>
  </div>
</template>

<style scoped>
.upload {
  display: flex;
  gap: 0.6rem;
  align-items: center;
}
.bar {
  flex: 1;
}
</style>
