<script setup lang="ts">
/** Of one run two devices said something else: what that is, and a person chooses. */
defineProps<{ differences: readonly string[] }>()
const emit = defineEmits<{ settle: [which: 'mine' | 'theirs'] }>()
</script>

<template>
  <div class="caution" role="alert">
    <p>On another device this run was said to be otherwise. All else is kept, whichever you choose.</p>
    <ul>
      <li v-for="d in differences" :key="d">{{ d }}</li>
    </ul>
    <div class="key-row">
      <button type="button" class="btn btn-plain" @click="emit('settle', 'mine')">Keep what I typed</button>
      <button type="button" class="btn btn-plain" @click="emit('settle', 'theirs')">Use theirs</button>
    </div>
  </div>
</template>

<style scoped>
.caution {
  display: block;
}
p,
ul {
  margin-bottom: 0.4rem;
}
</style>
