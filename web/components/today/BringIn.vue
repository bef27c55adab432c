<script setup lang="ts">
import DialogFrame from '../shell/DialogFrame.vue'

/** Ways in for what somebody has already; each ends where such data belongs. */
const open = defineModel<boolean>('open', { required: true })
const ways = [
  {
    title: 'Settings I wrote down',
    text: 'Name the bike and tap what is on it; then type the counts where you are asked to count.',
  },
  {
    title: 'A sensor file or a track',
    text: 'A file belongs to a run. Set up the bike, log the run, then drop the file on its day: CSV, text or GPX.',
  },
]
</script>

<template>
  <DialogFrame v-model:open="open" title="Bring data in">
    <div class="ways">
      <RouterLink v-for="w in ways" :key="w.title" class="way" :to="{ name: 'setup' }" @click="open = false">
        <b>{{ w.title }}</b>
        <span>{{ w.text }}</span>
      </RouterLink>
    </div>
  </DialogFrame>
</template>

<style scoped>
.ways {
  display: grid;
  gap: 0.6rem;
}
.way {
  display: grid;
  padding: 0.7rem 1rem;
  border: 1px solid var(--line);
  border-radius: 10px;
  color: inherit;
  text-decoration: none;
}
</style>
