<script setup lang="ts">
/** Hollow: the one it is laid beside. Filled: the chosen one. */
defineProps<{ sign: 'first' | 'second' }>()
</script>

<template><i :class="sign" aria-hidden="true"></i></template>

<style scoped>
i {
  width: 15px;
  height: 15px;
  margin-top: 0.3rem;
  border: 3px solid var(--ink);
  border-radius: 50%;
  flex: none;
}
.second {
  background: var(--ink);
}
</style>
