<script setup lang="ts">
import { computed } from 'vue'
import { pageAt, toAddress } from '../../handbook/index.ts'

/** Links to further pages, by chapter/key. */
const { pages } = defineProps<{ pages: readonly string[] }>()
const links = computed(() => pages.map((address) => ({ address, title: pageAt(address)?.title ?? address })))
</script>

<template>
  <section v-if="links.length" aria-labelledby="see-also">
    <h2 id="see-also">See also</h2>
    <ul>
      <li v-for="l in links" :key="l.address">
        <RouterLink :to="toAddress(l.address)">{{ l.title }}</RouterLink>
      </li>
    </ul>
  </section>
</template>

<style scoped>
ul {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
}
a {
  display: inline-flex;
  align-items: center;
  min-height: 40px;
}
</style>
