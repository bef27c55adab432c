<script setup lang="ts">
import DialSigns from './DialSigns.vue'
import { glossary } from '../../handbook/glossary.ts'
import { pageAt, toAddress } from '../../handbook/index.ts'
import { entryId, keyOf } from '../../handbook/page.ts'

/** All words, A to Z; the one of the address is marked; the router brings it into view. */
defineProps<{ at: string }>()
const sorted = [...glossary].sort((a, b) => a.name.localeCompare(b.name, 'en', { sensitivity: 'base' }))
const letters = [...new Set(sorted.map((g) => g.name[0].toUpperCase()))].map((letter) => ({
  letter,
  words: sorted.filter((g) => g.name[0].toUpperCase() === letter),
}))
</script>

<template>
  <article>
    <h1>Words A–Z</h1>
    <section v-for="l in letters" :key="l.letter" :aria-labelledby="`letter-${l.letter}`">
      <h2 :id="`letter-${l.letter}`">{{ l.letter }}</h2>
      <dl>
        <div
          v-for="g in l.words"
          :id="entryId(keyOf(g.name))"
          :key="g.name"
          :aria-current="keyOf(g.name) === at ? 'true' : undefined"
        >
          <dt>{{ g.name }}</dt>
          <dd>
            {{ g.text }}
            <RouterLink v-if="g.see && pageAt(g.see)" :to="toAddress(g.see)">{{
              pageAt(g.see)!.title
            }}</RouterLink>
            <DialSigns v-if="g.signs" :of="g.signs" />
          </dd>
        </div>
      </dl>
    </section>
  </article>
</template>

<style scoped>
section {
  display: grid;
  grid-template-columns: 40px 1fr;
  border-top: 1px solid var(--line);
  padding: 0.4rem 0;
}
dl {
  margin: 0;
}
dl > div {
  display: grid;
  grid-template-columns: 180px 1fr;
  gap: 0 1rem;
  padding: 0.25rem 0.4rem;
}
dl > div[aria-current] {
  background: var(--sun-soft);
  border-radius: 6px;
}
dt {
  font-weight: 650;
}
dd {
  margin: 0;
  max-width: 62ch;
}
@media (max-width: 720px) {
  section,
  dl > div {
    grid-template-columns: 1fr;
  }
}
</style>
