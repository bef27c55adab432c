<script setup lang="ts">
/** What of a record is only typical or guessed, with the way to say that it was looked at. */
defineProps<{ of: readonly string[] }>()
const emit = defineEmits<{ right: [] }>()
</script>

<template>
  <p v-if="of.length" class="caution wide">
    <span>{{ `Assumed, not measured: ${of.join(', ')}. What you change here counts as looked at.` }}</span>
    <button type="button" class="btn btn-sm btn-plain" @click="emit('right')">I looked: it is right</button>
  </p>
</template>
