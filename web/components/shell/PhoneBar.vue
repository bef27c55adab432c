<script setup lang="ts">
import { useRoute } from 'vue-router'
import IconMore from '~icons/lucide/ellipsis'
import IconSearch from '~icons/lucide/search'
import { places } from '../../support/places.ts'

/** The main bar of a phone, at the foot, in words. The trail day has its own there. */
const emit = defineEmits<{ search: []; more: [] }>()
const route = useRoute()
const shown = places.filter((p) => !p.underMore)
const here = (holds: readonly string[]) => holds.includes(String(route.name))
</script>

<template>
  <nav class="phonebar" aria-label="Screens">
    <RouterLink
      v-for="p in shown"
      :key="p.screen"
      :to="{ name: p.screen }"
      :class="{ here: here(p.holds) }"
      :aria-current="here(p.holds) ? 'page' : undefined"
    >
      <component :is="p.icon" aria-hidden="true" />{{ p.words }}
    </RouterLink>
    <button type="button" @click="emit('search')"><IconSearch aria-hidden="true" />Search</button>
    <button type="button" @click="emit('more')"><IconMore aria-hidden="true" />More</button>
  </nav>
</template>

<style scoped>
.phonebar {
  display: none;
}
@media (max-width: 720px) {
  .phonebar {
    display: grid;
    grid-auto-flow: column;
    grid-auto-columns: 1fr;
    position: fixed;
    inset: auto 0 0;
    background: var(--card);
    border-top: 1px solid var(--line);
    z-index: 9;
    padding-bottom: env(safe-area-inset-bottom);
  }
  a,
  button {
    display: grid;
    justify-items: center;
    align-content: center;
    gap: 0.1rem;
    min-height: 56px;
    border: 0;
    border-top: 4px solid transparent;
    background: none;
    color: var(--ink);
    font-size: 0.8rem;
    text-decoration: none;
    padding: 0;
  }
  .here {
    font-weight: 700;
    border-top-color: var(--sun);
    background: var(--paper-deep);
  }
}
</style>
