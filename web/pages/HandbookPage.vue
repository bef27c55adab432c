<script setup lang="ts">
import { computed, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { useMediaQuery } from '@vueuse/core'
import type { FeelWord } from '#contract/run'
import { schools } from '#core/bench/schools'
import CautionList from '../components/bench/CautionList.vue'
import FeelArticle from '../components/handbook/FeelArticle.vue'
import HandbookSide from '../components/handbook/HandbookSide.vue'
import SchoolArticle from '../components/handbook/SchoolArticle.vue'
import TablePage from '../components/handbook/TablePage.vue'
import TextArticle from '../components/handbook/TextArticle.vue'
import WordList from '../components/handbook/WordList.vue'
import { usePageTitle } from '../composables/usePageTitle.ts'
import { carePages } from '../handbook/care.ts'
import { dialPages } from '../handbook/dials.ts'
import { fromHash, handbookPages, pageAt, toAddress, type TableKey } from '../handbook/index.ts'
import { chapters, type Chapter } from '../handbook/page.ts'
import { worksPages } from '../handbook/works.ts'
import { cautions, type CautionKey } from '../support/cautions.ts'

const props = defineProps<{ chapter?: string; page?: string }>()
const route = useRoute()
const router = useRouter()
const cautionKeys = Object.keys(cautions) as CautionKey[]
const isPhone = useMediaQuery('(max-width: 720px)')

// Addresses of the one long page that this was.
watch(
  () => route.hash,
  (hash) => {
    const address = fromHash(hash)
    if (address) void router.replace(pageAt(address) ? toAddress(address) : { name: 'handbook' })
  },
  { immediate: true },
)
const isFront = computed(() => !props.chapter)
const found = computed(() => {
  if (isFront.value) return null
  // A chapter by itself is its first page.
  const first = handbookPages.find((p) => p.chapter === props.chapter)
  return props.page ? (pageAt(`${props.chapter}/${props.page}`) ?? null) : (first ?? null)
})
const openChapter = computed((): Chapter => found.value?.chapter ?? 'feels')
const texts = { dials: dialPages, works: worksPages, care: carePages }
const text = computed(() =>
  found.value && found.value.chapter in texts
    ? texts[found.value.chapter as keyof typeof texts].find((p) => p.key === found.value!.key)
    : undefined,
)
const school = computed(() => schools.find((s) => s.key === found.value?.key))
/** Elsewhere the title says the chapter. */
const crumbs: ReadonlySet<Chapter> = new Set(['feels', 'dials', 'works', 'differ', 'care', 'tables'])
usePageTitle(() => (found.value ? `${found.value.title}, handbook` : 'Handbook'))
</script>

<template>
  <div class="handbook">
    <HandbookSide v-if="!isPhone || isFront" :chapter="openChapter" :page="found?.key ?? ''" />
    <div class="sheet">
      <p v-if="isPhone && !isFront"><RouterLink :to="{ name: 'handbook' }">All pages</RouterLink></p>
      <p v-if="found && crumbs.has(found.chapter)" class="soft small crumb">{{ chapters[found.chapter] }}</p>
      <article v-if="isFront">
        <h1>What does this word or dial mean</h1>
        <p class="lead">{{ cautions.manuals }}</p>
        <p>
          Find a word as a rider says it, a dial as it is printed, or anything a screen here calls by a name.
          Every page says what to look at by hand before something is turned.
        </p>
        <CautionList :of="['rebound', 'oneChange', 'testRuns']" />
      </article>
      <article v-else-if="!found">
        <h1>There is no such page</h1>
        <p>
          Find it by its name in the list, or
          <RouterLink :to="{ name: 'handbook' }">begin at the front</RouterLink>.
        </p>
      </article>
      <FeelArticle v-else-if="found.chapter === 'feels'" :word="found.key as FeelWord" />
      <TextArticle v-else-if="text" :page="text" />
      <SchoolArticle v-else-if="found.chapter === 'differ' && school" :school="school" />
      <WordList v-else-if="found.chapter === 'words'" :at="page ?? ''" />
      <TablePage v-else-if="found.chapter === 'tables'" :table="found.key as TableKey" />
      <article v-else>
        <h1>Before anything is turned</h1>
        <CautionList :of="cautionKeys" />
      </article>
    </div>
  </div>
</template>

<style scoped>
.handbook {
  display: grid;
  grid-template-columns: 268px minmax(0, 1fr);
  min-height: calc(100vh - var(--bar));
}
.sheet {
  padding: 1.1rem 1.9rem 3rem;
  max-width: 1080px;
}
.crumb {
  margin: 0 0 0.2rem;
}
.lead {
  font-size: 1.08rem;
  max-width: 62ch;
}
.sheet :deep(.with-side) {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 290px;
  gap: 0 2rem;
}
.sheet :deep(aside) {
  display: grid;
  gap: 1rem;
  align-content: start;
}
.sheet :deep(h2) {
  font-size: 1.1rem;
}
@media (max-width: 1000px) {
  .sheet :deep(.with-side) {
    grid-template-columns: 1fr;
  }
}
@media (max-width: 720px) {
  .handbook {
    grid-template-columns: 1fr;
  }
  .sheet {
    padding: 0.7rem 1rem 1.5rem;
    order: -1;
  }
}
@media print {
  .handbook {
    display: block;
  }
}
</style>
