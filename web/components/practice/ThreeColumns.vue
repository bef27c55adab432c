<script setup lang="ts">
/** A day of practice: what went by, what is said of it, and the bike. On a phone one below the other. */
defineProps<{
  /** On a phone what went by comes last: it is looked at least. */
  lineLast?: boolean
}>()
</script>

<template>
  <div class="day" :class="{ 'line-last': lineLast }">
    <div class="col line"><slot name="line" /></div>
    <div class="col middle"><slot /></div>
    <div class="col bike"><slot name="bike" /></div>
  </div>
</template>

<style scoped>
.day {
  display: grid;
  grid-template-columns: 292px minmax(0, 1fr) 336px;
  min-height: calc(100vh - var(--bar));
}
.col {
  padding: 0.9rem 1rem 2rem;
}
.line {
  border-right: 1px solid var(--line);
}
.bike {
  border-left: 1px solid var(--line);
  background: color-mix(in srgb, var(--card) 60%, var(--paper));
}
.middle {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 0.9rem;
  align-content: start;
}
.middle :slotted(p) {
  margin: 0.2rem 0 0;
}
@media (max-width: 1100px) {
  .day {
    grid-template-columns: minmax(0, 1fr) 336px;
  }
  .line {
    grid-column: 1 / -1;
    border: 0;
    border-bottom: 1px solid var(--line);
  }
  .line-last .line {
    grid-row: 2;
    border-top: 1px solid var(--line);
    border-bottom: 0;
  }
}
@media (max-width: 720px) {
  .day {
    display: flex;
    flex-direction: column;
    padding-bottom: 72px;
  }
  .line-last .line {
    order: 1;
  }
  .col {
    border: 0 !important;
    padding: 0.7rem;
  }
}
/* Ten keys of a rating in two rows, each wide enough for a glove. */
@media (max-width: 360px) {
  .col {
    padding: 0.7rem 0.3rem;
  }
}
</style>
