<script setup lang="ts">
import { ref } from 'vue'

/** The recovery code, shown this once: to be printed or written down before going on. */
defineProps<{ code: string }>()
const emit = defineEmits<{ kept: [] }>()
const kept = ref(false)
const print = () => window.print()
</script>

<template>
  <section class="code card-paper" aria-labelledby="code-title">
    <h2 id="code-title">The recovery code</h2>
    <p>
      It opens this door when the passphrase is lost, and is shown this once. Put it where the van’s papers
      are, not on this device.
    </p>
    <p class="letters num" aria-label="Recovery code">{{ code }}</p>
    <p class="acts">
      <button type="button" class="btn btn-plain" @click="print">Print it</button>
      <label><input v-model="kept" type="checkbox" /> I have it on paper</label>
      <BButton variant="primary" :disabled="!kept" @click="emit('kept')">Go on</BButton>
    </p>
  </section>
</template>

<style scoped>
.code {
  padding: 1.1rem 1.3rem;
}
.code > p {
  margin: 0.6rem 0 0;
}
.letters {
  font: 640 1.5rem/1.5 var(--head-font);
  letter-spacing: 0.06em;
  overflow-wrap: anywhere;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 0.6rem 1rem;
  align-items: center;
}
.acts label {
  display: inline-flex;
  align-items: center;
  gap: 0.5rem;
  min-height: var(--touch);
}
</style>
