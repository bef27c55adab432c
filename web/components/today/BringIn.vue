<script setup lang="ts">
import { defineAsyncComponent, ref } from 'vue'
import DialogFrame from '../shell/DialogFrame.vue'

/** Ways in for what somebody has already; each ends where such data belongs. */
const open = defineModel<boolean>('open', { required: true })
const BringCard = defineAsyncComponent(() => import('../setups/BringCard.vue'))
const cardOpen = ref(false)
function card() {
  open.value = false
  cardOpen.value = true
}
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
      <button type="button" class="way" @click="card">
        <b>A setup card</b>
        <span>Take a picture of the code on the card, or choose the file that came with it.</span>
      </button>
    </div>
  </DialogFrame>
  <BringCard v-if="cardOpen" v-model:open="cardOpen" />
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
  background: none;
  color: inherit;
  text-align: left;
  text-decoration: none;
}
</style>
