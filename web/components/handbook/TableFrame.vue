<script setup lang="ts">
/** A table of the handbook, in a frame that scrolls sideways where it does not fit. */
</script>

<template>
  <div class="scroll" tabindex="0" role="group" aria-label="Table, scrolls sideways">
    <table>
      <slot />
    </table>
  </div>
</template>

<style scoped>
.scroll {
  overflow-x: auto;
}
table {
  border-collapse: collapse;
  width: 100%;
}
table :deep(th),
table :deep(td) {
  text-align: left;
  vertical-align: top;
  padding: 0.45rem 1rem 0.45rem 0;
  border-bottom: 1px solid var(--line);
}
</style>
