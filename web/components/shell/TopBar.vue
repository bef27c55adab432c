<script setup lang="ts">
import { useKept } from '../../composables/useKept.ts'
import { ref, watchEffect } from 'vue'
import IconRuler from '~icons/lucide/ruler'
import IconMoon from '~icons/lucide/sunset'
import ContourLines from './ContourLines.vue'
import UnitChooser from './UnitChooser.vue'

const dusk = useKept('wild-spring:dusk', false)
watchEffect(() => document.documentElement.setAttribute('data-bs-theme', dusk.value ? 'dark' : 'light'))
const unitsOpen = ref(false)
const toggleDusk = () => (dusk.value = !dusk.value)
</script>

<template>
  <header class="bar">
    <ContourLines />
    <RouterLink class="brand" to="/" aria-label="Wild Spring, today">
      <img src="/mark.svg" alt="" width="30" height="30" />
      <span>Wild Spring</span>
    </RouterLink>
    <!-- The screen below puts what it is about in here. -->
    <div id="bar-about" class="about"></div>
    <nav aria-label="Screens">
      <RouterLink to="/" class="wide">Today</RouterLink>
      <RouterLink to="/garage">Garage</RouterLink>
      <RouterLink to="/handbook">Handbook</RouterLink>
      <button type="button" class="dusk" aria-label="Units" @click="unitsOpen = true">
        <IconRuler aria-hidden="true" />
      </button>
      <button type="button" class="dusk" :aria-pressed="dusk" aria-label="Dusk colours" @click="toggleDusk">
        <IconMoon aria-hidden="true" />
      </button>
    </nav>
    <div id="bar-acts" class="acts"></div>
    <UnitChooser v-model:open="unitsOpen" />
  </header>
</template>

<style scoped>
.bar {
  position: sticky;
  top: 0;
  z-index: 10;
  display: flex;
  align-items: center;
  gap: 0.5rem 1.1rem;
  min-height: 56px;
  padding: 0.3rem 1.1rem;
  background: var(--pine);
  color: var(--pine-ink);
  isolation: isolate;
}
.brand {
  display: flex;
  align-items: center;
  gap: 0.55rem;
  color: inherit;
  text-decoration: none;
  font: 640 1.12rem var(--head-font);
  white-space: nowrap;
}
.about {
  flex: 1;
  min-width: 0;
  display: flex;
  gap: 0.2rem 0.75rem;
  font-size: 0.95rem;
  align-items: baseline;
  overflow: hidden;
  white-space: nowrap;
}
nav {
  display: flex;
  gap: 0.1rem;
}
nav a,
.dusk {
  color: inherit;
  opacity: 0.92;
  text-decoration: none;
  padding: 0 0.45rem;
  min-height: var(--touch);
  display: inline-flex;
  align-items: center;
  border-radius: 8px;
  background: none;
  border: 0;
}
nav a:hover,
.dusk:hover {
  background: rgb(255 255 255 / 12%);
}
nav a.router-link-exact-active {
  text-decoration: underline;
  text-underline-offset: 5px;
  text-decoration-thickness: 2px;
  text-decoration-color: #edb33f;
}
.acts {
  display: flex;
  gap: 0.5rem;
}
@media (max-width: 720px) {
  .bar {
    flex-wrap: wrap;
    padding: 0.25rem 0.7rem;
    gap: 0 0.4rem;
  }
  .brand span,
  .wide {
    display: none;
  }
  .about {
    order: 5;
    flex-basis: 100%;
    font-size: 0.88rem;
    padding-bottom: 0.35rem;
  }
  .about:empty {
    display: none;
  }
  nav {
    flex: 1;
  }
  nav a,
  .dusk {
    padding: 0 0.45rem;
  }
}
</style>
