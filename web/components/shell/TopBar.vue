<script setup lang="ts">
import { computed, defineAsyncComponent, ref, watchEffect } from 'vue'
import { onKeyStroke } from '@vueuse/core'
import { useRoute, useRouter } from 'vue-router'
import IconKept from '~icons/lucide/archive'
import IconLock from '~icons/lucide/lock-keyhole'
import IconKeyboard from '~icons/lucide/keyboard'
import IconRuler from '~icons/lucide/ruler'
import IconSearch from '~icons/lucide/search'
import IconMoon from '~icons/lucide/sunset'
import { useKept } from '../../composables/useKept.ts'
import { useShortcuts } from '../../composables/useShortcuts.ts'
import { places } from '../../support/places.ts'
import ContourLines from './ContourLines.vue'
import MoreSheet from './MoreSheet.vue'
import PhoneBar from './PhoneBar.vue'
import ShortcutHelp from './ShortcutHelp.vue'
import UnitChooser from './UnitChooser.vue'

/** Nothing to go to: the door is shut, or this is a screen for everybody. */
const { bare } = defineProps<{ bare: boolean }>()

// Asked for by few, with an index of its own.
const SearchPalette = defineAsyncComponent(() => import('./SearchPalette.vue'))

const router = useRouter()
const route = useRoute()
const dusk = useKept('wild-spring:dusk', false)
watchEffect(() => document.documentElement.setAttribute('data-bs-theme', dusk.value ? 'dark' : 'light'))
const unitsOpen = ref(false)
const helpOpen = ref(false)
const moreOpen = ref(false)
const searchOpen = ref(false)
const searched = ref(false)
const toggleDusk = () => (dusk.value = !dusk.value)
function search() {
  searched.value = true
  searchOpen.value = true
}
/** Screens that put their own into the bar have no room for what is asked for once a week. */
const crowded = computed(() =>
  ['day', 'trace', 'compare', 'logger', 'tent', 'bench', 'practice'].includes(String(route.name)),
)
/** A day has a bar of its own at the bottom of a phone. */
const hasPhoneBar = computed(() => !bare && route.name !== 'day')
const here = (holds: readonly string[]) => holds.includes(String(route.name))
onKeyStroke(
  (e) => e.key.toLowerCase() === 'k' && (e.ctrlKey || e.metaKey),
  (e) => {
    e.preventDefault()
    search()
  },
)
useShortcuts([
  { key: '/', does: 'search everything', act: search },
  { key: 't', does: 'to Today', act: () => void router.push({ name: 'today' }) },
  { key: 'g', does: 'to the garage', act: () => void router.push({ name: 'garage' }) },
  { key: 's', does: 'to the setups', act: () => void router.push({ name: 'setups' }) },
  { key: 'h', does: 'to the handbook', act: () => void router.push({ name: 'handbook' }) },
  { key: '?', does: 'these keys', act: () => (helpOpen.value = true) },
])
</script>

<template>
  <header class="bar" :class="{ crowded, 'no-phone-bar': !hasPhoneBar }">
    <ContourLines />
    <RouterLink class="brand" to="/" aria-label="Wild Spring, today">
      <img src="/mark.svg" alt="" width="30" height="30" />
      <span class="name">Wild Spring</span><span class="home">Today</span>
    </RouterLink>
    <!-- The screen below puts what it is about in here. -->
    <div id="bar-about" class="about"></div>
    <nav v-if="!bare" class="places" aria-label="Screens">
      <RouterLink
        v-for="p in places"
        :key="p.screen"
        :to="{ name: p.screen }"
        :class="{ here: here(p.holds) }"
        :aria-current="here(p.holds) ? 'page' : undefined"
        >{{ p.words }}</RouterLink
      >
    </nav>
    <div class="tools">
      <button
        v-if="!bare"
        type="button"
        class="tool"
        :class="{ wide: route.name === 'day' }"
        aria-label="Search everything"
        title="Search (Ctrl K)"
        @click="search"
      >
        <IconSearch aria-hidden="true" />
      </button>
      <button type="button" class="tool wide" aria-label="Units" title="Units" @click="unitsOpen = true">
        <IconRuler aria-hidden="true" />
      </button>
      <button
        type="button"
        class="tool wide"
        :aria-pressed="dusk"
        aria-label="Dusk colours"
        title="Dusk colours"
        @click="toggleDusk"
      >
        <IconMoon aria-hidden="true" />
      </button>
      <RouterLink
        v-if="!bare && !crowded"
        class="tool wide"
        :to="{ name: 'data' }"
        aria-label="What is kept"
        title="What is kept, and its safe copies"
      >
        <IconKept aria-hidden="true" />
      </RouterLink>
      <RouterLink
        v-if="!bare && !crowded"
        class="tool wide"
        :to="{ name: 'access' }"
        aria-label="Who comes in"
        title="Who comes in"
      >
        <IconLock aria-hidden="true" />
      </RouterLink>
      <button type="button" class="tool wide" aria-label="Keys" title="Keys (?)" @click="helpOpen = true">
        <IconKeyboard aria-hidden="true" />
      </button>
    </div>
    <div id="bar-acts" class="acts"></div>
    <UnitChooser v-model:open="unitsOpen" />
    <ShortcutHelp v-model:open="helpOpen" />
    <MoreSheet
      v-model:open="moreOpen"
      :dusk="dusk"
      @units="unitsOpen = true"
      @keys="helpOpen = true"
      @dusk="toggleDusk"
    />
    <SearchPalette v-if="searched" v-model:open="searchOpen" />
  </header>
  <PhoneBar v-if="hasPhoneBar" @search="search" @more="moreOpen = true" />
</template>

<style scoped>
.bar {
  --focus: #f5c460;
  position: sticky;
  top: 0;
  z-index: 10;
  display: flex;
  align-items: center;
  gap: 0.3rem 0.9rem;
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
  min-height: var(--touch);
  color: inherit;
  text-decoration: none;
  font: 640 1.12rem var(--head-font);
  white-space: nowrap;
}
.home {
  display: none;
}
.about {
  flex: 1;
  min-width: 0;
  display: flex;
  align-items: center;
  gap: 0.1rem 0.75rem;
  font-size: 0.95rem;
  container: bar-about / inline-size;
}
.places,
.tools {
  display: flex;
  gap: 0.1rem;
}
.places a,
.tool {
  color: inherit;
  opacity: 0.95;
  text-decoration: none;
  padding: 0 0.5rem;
  min-height: var(--touch);
  min-width: var(--touch);
  display: inline-flex;
  align-items: center;
  justify-content: center;
  border-radius: 8px;
  background: none;
  border: 0;
}
.places a:hover,
.tool:hover {
  background: rgb(255 255 255 / 12%);
}
.places .here {
  text-decoration: underline;
  text-underline-offset: 5px;
  text-decoration-thickness: 2px;
  text-decoration-color: #edb33f;
}
.acts {
  display: flex;
  gap: 0.5rem;
}
.crowded .places a {
  padding: 0 0.3rem;
}
/* A tablet: what the screen is about keeps its room, the places go into a second row. */
@media (max-width: 1240px) {
  .bar {
    flex-wrap: wrap;
  }
  .crowded .about {
    flex-basis: 17rem;
  }
  .places {
    order: 1;
  }
  .tools {
    order: 2;
    margin-left: auto;
  }
}
@media (max-width: 720px) {
  .bar {
    flex-wrap: wrap;
    padding: 0.25rem 0.7rem;
    gap: 0 0.5rem;
  }
  .crowded .brand .name,
  .places,
  .wide {
    display: none;
  }
  .tools {
    order: 0;
    margin-left: 0;
  }
  .crowded.no-phone-bar .home {
    display: inline;
  }
  .bar .about {
    flex-basis: 0;
    min-width: 0;
    font-size: 0.92rem;
  }
}
</style>
