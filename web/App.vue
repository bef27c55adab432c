<script setup lang="ts">
import { defineAsyncComponent } from 'vue'
import { useRoute } from 'vue-router'
import { isWall, shut } from './api/door.ts'
import NoticeStack from './components/shell/NoticeStack.vue'
import OutboxLine from './components/shell/OutboxLine.vue'
import TopBar from './components/shell/TopBar.vue'
import { useMissingParts } from './composables/useMissingParts.ts'

const LockedDoor = defineAsyncComponent(() => import('./components/access/LockedDoor.vue'))
const route = useRoute()
useMissingParts()
</script>

<template>
  <div class="frame">
    <a class="visually-hidden-focusable skip" href="#main">Skip to the content</a>
    <TopBar :bare="shut || isWall" />
    <OutboxLine />
    <main id="main" tabindex="-1">
      <LockedDoor v-if="shut && route.name !== 'enter'" />
      <RouterView v-else />
    </main>
    <NoticeStack />
  </div>
</template>

<style scoped>
.frame {
  min-height: 100%;
  display: flex;
  flex-direction: column;
}
main {
  flex: 1;
  min-height: 0;
  outline: none;
}
.skip {
  position: absolute;
  z-index: 20;
  background: var(--sun);
  color: #1b2723;
  padding: 0.5rem 1rem;
}
</style>
