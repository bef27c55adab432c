<script setup lang="ts">
import type { End } from '#contract/common'

/** Front is a round mark, rear a square one: never colour alone. */
defineProps<{ end: End; small?: boolean }>()
</script>

<template><span class="mark" :class="[end, { small }]" aria-hidden="true"></span></template>

<style scoped>
.mark {
  display: inline-block;
  width: 0.85em;
  height: 0.85em;
  background: var(--front);
  border-radius: 50%;
  vertical-align: -0.06em;
  flex: none;
  margin-right: 0.25em;
}
.mark.rear {
  background: var(--rear);
  border-radius: 2px;
}
.mark.small {
  width: 0.65em;
  height: 0.65em;
}
</style>
