<script setup lang="ts">
import { computed, ref } from 'vue'
import { findPages } from '../../handbook/find.ts'
import { handbookPages, toPage } from '../../handbook/index.ts'
import { chapters, type Chapter } from '../../handbook/page.ts'

/** Finds pages, and lists them by chapter. The A–Z is one entry here: its words are found by typing. */
const props = defineProps<{ chapter: Chapter; page: string }>()
const typed = ref('')
const mostFound = 30
const listed = computed(() => {
  const found = typed.value.trim() ? findPages(typed.value).slice(0, mostFound) : null
  return (Object.keys(chapters) as Chapter[]).flatMap((chapter) => {
    const pages = (found ?? handbookPages).filter((p) => p.chapter === chapter)
    const shown = !found && chapter === 'words' ? [{ ...pages[0], title: 'All words' }] : pages
    return shown.length ? [{ chapter, title: chapters[chapter], pages: shown }] : []
  })
})
const isHere = (p: { chapter: Chapter; key: string }) =>
  p.chapter === props.chapter && (p.key === props.page || (!typed.value && p.chapter === 'words'))
</script>

<template>
  <nav class="side" aria-label="Handbook">
    <label class="visually-hidden" for="handbook-find">Find in the handbook</label>
    <BFormInput id="handbook-find" v-model="typed" type="search" placeholder="Find a word or a dial" />
    <p v-if="!listed.length" role="status">Nothing of that name here.</p>
    <section v-for="c in listed" :key="c.chapter">
      <h2>{{ c.title }}</h2>
      <ul>
        <li v-for="p in c.pages" :key="p.key">
          <RouterLink :to="toPage(p.chapter, p.key)" :aria-current="isHere(p) ? 'page' : undefined">{{
            p.title
          }}</RouterLink>
        </li>
      </ul>
    </section>
  </nav>
</template>

<style scoped>
.side {
  padding: 1rem 0.6rem 2rem 1.1rem;
  border-right: 1px solid var(--line);
}
h2 {
  font-size: 0.95rem;
  color: var(--ink-soft);
  margin: 1rem 0 0.2rem;
}
ul {
  list-style: none;
  margin: 0;
  padding: 0;
}
a {
  display: flex;
  align-items: center;
  min-height: 36px;
  padding: 0.1rem 0.6rem;
  color: inherit;
  text-decoration: none;
  border-left: 4px solid transparent;
  line-height: 1.2;
}
a:hover {
  text-decoration: underline;
}
a[aria-current] {
  border-color: var(--sun);
  background: var(--card);
  font-weight: 650;
}
@media (pointer: coarse) {
  a {
    min-height: var(--touch);
  }
}
@media print {
  .side {
    display: none;
  }
}
</style>
