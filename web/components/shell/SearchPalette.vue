<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { computed, nextTick, ref, useTemplateRef, watch } from 'vue'
import { useRouter } from 'vue-router'
import { cache, reads } from '../../api/cache.ts'
import { useEntries } from '../../composables/useEntries.ts'
import { useGarage } from '../../stores/garage.ts'
import { useNotices } from '../../stores/notices.ts'
import { findPages } from '../../handbook/find.ts'
import { lookup, mostShown } from '../../support/lookup.ts'
import DialogFrame from './DialogFrame.vue'

/** One field that finds everything: riders, bikes, trails, days, the handbook, commands. */
const open = defineModel<boolean>('open', { required: true })
const garage = useGarage()
const notices = useNotices()
const router = useRouter()
const { data } = useQuery({ ...reads.days(), shallow: true }, cache)
const entries = useEntries(computed(() => data.value ?? []))
const find = computed(() => lookup(entries.value))
const question = ref('')
const at = ref(0)
const list = useTemplateRef<HTMLUListElement>('list')
const found = computed(() => {
  const byId = new Map(entries.value.map((e) => [e.id, e]))
  const ids = find.value(question.value).map((e) => e.id)
  // The handbook answers whole questions, which no record has every word of.
  const pages = findPages(question.value).map((p) => `handbook ${p.chapter}/${p.key}`)
  return [...new Set([...ids, ...pages])].slice(0, mostShown).map((id) => byId.get(id)!)
})

watch(
  open,
  (is) => {
    if (!is) return
    question.value = ''
    if (!garage.loaded) void notices.attempt(garage.load)
  },
  { immediate: true },
)
watch(question, () => (at.value = 0))
function move(by: number) {
  const n = found.value.length
  if (n) at.value = (at.value + by + n) % n
  void nextTick(() => list.value?.children[at.value]?.scrollIntoView({ block: 'nearest' }))
}
function go(i = at.value) {
  const hit = found.value[i]
  if (!hit) return
  open.value = false
  void router.push(hit.to)
}
</script>

<template>
  <DialogFrame v-model:open="open" title="Search everything">
    <input
      v-model="question"
      data-first
      class="form-control"
      type="text"
      role="combobox"
      aria-expanded="true"
      aria-controls="found"
      aria-autocomplete="list"
      aria-label="Rider, bike, trail, day, word or command"
      :aria-activedescendant="found.length ? `found-${at}` : undefined"
      placeholder="rider, bike, trail, day, word …"
      autocomplete="off"
      spellcheck="false"
      @keydown.down.prevent="move(1)"
      @keydown.up.prevent="move(-1)"
      @keydown.enter.prevent="go()"
    />
    <ul id="found" ref="list" class="found" role="listbox" aria-label="Found">
      <li
        v-for="(f, i) in found"
        :id="`found-${i}`"
        :key="f.id"
        role="option"
        :aria-selected="i === at"
        :class="{ at: i === at }"
        @click="go(i)"
      >
        <b>{{ f.title }}</b><span class="kind small">{{ f.kind }}</span>
        <span class="soft small detail">{{ f.detail }}</span>
      </li>
    </ul>
    <p v-if="!found.length" class="soft" role="status">Nothing of that name here.</p>
  </DialogFrame>
</template>

<style scoped>
.found {
  list-style: none;
  margin: 0.7rem 0 0;
  padding: 0;
  max-height: 60vh;
  overflow-y: auto;
}
li {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: 0 0.8rem;
  min-height: 48px;
  align-content: center;
  padding: 0.25rem 0.6rem;
  border-radius: 9px;
  cursor: pointer;
}
.at {
  background: var(--sun-soft);
  color: var(--sun-ink);
}
.at .soft {
  color: inherit;
}
.kind {
  align-self: center;
}
.detail {
  grid-column: 1 / -1;
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
}
</style>
