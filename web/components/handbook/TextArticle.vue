<script setup lang="ts">
import CautionList from '../bench/CautionList.vue'
import type { TextPage } from '../../handbook/page.ts'
import SeeAlso from './SeeAlso.vue'

/** A page of text, with its lists and cautions. */
defineProps<{ page: TextPage }>()
</script>

<template>
  <article class="with-side">
    <div>
      <h1>{{ page.title }}</h1>
      <p v-for="(t, i) in page.text" :key="i" :class="{ lead: i === 0 }">{{ t }}</p>
      <section v-for="l in page.lists ?? []" :key="l.title">
        <h2>{{ l.title }}</h2>
        <ul>
          <li v-for="x in l.items" :key="x">{{ x }}</li>
        </ul>
      </section>
    </div>
    <aside aria-label="Cautions, and further pages">
      <CautionList v-if="page.cautions?.length" :of="page.cautions" />
      <SeeAlso :pages="page.see ?? []" />
    </aside>
  </article>
</template>

<style scoped>
.lead {
  font-size: 1.08rem;
}
p {
  max-width: 62ch;
}
section {
  margin-top: 1rem;
}
ul {
  padding-left: 1.1rem;
}
</style>
