<script setup lang="ts">
import IconCaution from '~icons/lucide/triangle-alert'
import { cautions, type CautionKey } from '../../support/cautions.ts'

defineProps<{ of: readonly CautionKey[] }>()
</script>

<template>
  <p v-for="c in of" :key="c" class="caution">
    <IconCaution aria-hidden="true" /><span>{{ cautions[c] }}</span>
  </p>
</template>

<style scoped>
.caution {
  margin: 0 0 0.4rem;
}
</style>
