<script setup lang="ts">
import type { Pass, Session } from '#contract/access'
import { dateTimeWords } from '../../support/dates.ts'
import { roleWords } from '../../support/accessWords.ts'

/** Devices that are signed in, and ways in that nobody has used yet. */
defineProps<{ sessions: readonly Session[]; passes: readonly Pass[] }>()
const emit = defineEmits<{ end: [id: string]; takeBack: [id: string] }>()
</script>

<template>
  <ul class="devices" aria-label="Signed in">
    <li v-for="s in sessions" :key="s.id">
      <span
        ><b>{{ s.device }}</b> <span v-if="s.here" class="soft">this device</span></span
      >
      <span>{{ roleWords[s.role] }}</span>
      <span class="soft small num">{{
        `since ${dateTimeWords(s.createdAt)}, seen ${dateTimeWords(s.lastSeenAt)}`
      }}</span>
      <button
        v-if="!s.here"
        type="button"
        class="btn btn-sm btn-plain"
        :aria-label="`Sign ${s.device} out`"
        @click="emit('end', s.id)"
      >
        Sign out
      </button>
      <span v-else></span>
    </li>
    <li v-for="p in passes" :key="p.id">
      <span
        ><b>{{ p.name }}</b> <span class="soft">not come yet</span></span
      >
      <span>{{ roleWords[p.role] }}</span>
      <span class="soft small num">{{ `its link ends ${dateTimeWords(p.expiresAt)}` }}</span>
      <button
        type="button"
        class="btn btn-sm btn-plain"
        :aria-label="`Take back the link of ${p.name}`"
        @click="emit('takeBack', p.id)"
      >
        Take back
      </button>
    </li>
  </ul>
</template>

<style scoped>
.devices {
  list-style: none;
  margin: 0.4rem 0 0;
  padding: 0;
}
li {
  display: grid;
  grid-template-columns: minmax(8rem, 2fr) minmax(7rem, 1fr) minmax(10rem, 3fr) 6.5rem;
  gap: 0.2rem 1rem;
  align-items: center;
  min-height: 50px;
  border-bottom: 1px solid var(--line);
}
@media (max-width: 720px) {
  li {
    grid-template-columns: 1fr auto;
    padding: 0.4rem 0;
  }
}
</style>
