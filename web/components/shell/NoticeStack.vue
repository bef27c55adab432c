<script setup lang="ts">
import IconX from '~icons/lucide/x'
import { useNotices, type Notice } from '../../stores/notices.ts'

const notices = useNotices()
async function undo(n: Notice) {
  notices.dismiss(n.id)
  await notices.attempt(n.undo!)
}
</script>

<template>
  <div class="stack" aria-live="polite">
    <div
      v-for="n in notices.list"
      :key="n.id"
      class="note"
      :class="n.kind"
      :role="n.kind === 'error' ? 'alert' : 'status'"
    >
      <span>{{ n.text }}</span>
      <button v-if="n.undo" type="button" class="undo" @click="undo(n)">Undo</button>
      <button type="button" class="close" aria-label="Dismiss" @click="notices.dismiss(n.id)">
        <IconX aria-hidden="true" />
      </button>
    </div>
  </div>
</template>

<style scoped>
.stack {
  position: fixed;
  /* Above what stands at the foot of the page. */
  inset: auto 1rem calc(1rem + var(--foot, 0px)) auto;
  z-index: 1100;
  display: grid;
  gap: 0.5rem;
  max-width: min(440px, calc(100vw - 2rem));
}
.note {
  display: flex;
  align-items: center;
  gap: 0.7rem;
  background: #1b2723;
  color: #f6f3ea;
  border-radius: 10px;
  padding: 0.4rem 0.4rem 0.4rem 0.9rem;
  border-left: 6px solid #a8cb74;
}
.note.error {
  border-left-color: #ee9678;
}
.note span {
  flex: 1;
}
button {
  min-height: var(--touch);
  min-width: var(--touch);
  border: 0;
  background: none;
  color: inherit;
  border-radius: 8px;
}
.undo {
  color: #f5d894;
  font-weight: 650;
}
@media (max-width: 720px) {
  .stack {
    /* At the top: the thumb works at the foot. */
    inset: calc(60px + env(safe-area-inset-top)) 0.5rem auto;
  }
}
</style>
