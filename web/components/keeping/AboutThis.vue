<script setup lang="ts">
import { computed, ref, shallowRef } from 'vue'
import { endpoints } from '#contract/endpoints'
import { call, reach } from '../../api/client.ts'
import { useNotices } from '../../stores/notices.ts'
import { some } from '../../support/dataWords.ts'

/** Which Wild Spring this is, and what it stands on. */
interface Licence {
  name: string
  version: string
  licence: string
  text: string
}
const notices = useNotices()
const version = ref('')
void call(endpoints.health, {}).then(
  (h) => (version.value = h.version),
  () => undefined,
)
const licences = shallowRef<Licence[]>([])
async function load(e: Event) {
  if (!(e.target as HTMLDetailsElement).open || licences.value.length > 0) return
  await notices.attempt(
    async () => (licences.value = (await (await reach('/licences.json')).json()) as Licence[]),
  )
}
const kinds = computed(() => {
  const counts = new Map<string, number>()
  for (const l of licences.value) counts.set(l.licence, (counts.get(l.licence) ?? 0) + 1)
  return [...counts]
    .sort((a, b) => b[1] - a[1])
    .map(([name, n]) => `${name} ${n}`)
    .join(' · ')
})
</script>

<template>
  <section class="card-paper" aria-labelledby="about-title">
    <h2 id="about-title">This Wild Spring</h2>
    <p>{{ version ? `Version ${version}, MIT licence.` : 'The server does not say which version it is.' }}</p>
    <details @toggle="load">
      <summary>What it stands on, and under which licences</summary>
      <p v-if="licences.length" class="soft small">{{ `${some(licences.length, 'work')}: ${kinds}` }}</p>
      <ul>
        <li v-for="l in licences" :key="`${l.name} ${l.version}`">
          <details>
            <summary>
              <b>{{ l.name }}</b>
              <span class="soft small">{{ [l.version, l.licence].filter(Boolean).join(', ') }}</span>
            </summary>
            <pre>{{ l.text || 'Its text is not in the package; the name of the licence is.' }}</pre>
          </details>
        </li>
      </ul>
    </details>
  </section>
</template>

<style scoped>
section {
  padding: 1rem 1.2rem;
}
section > p,
details p {
  margin: 0.5rem 0 0;
}
summary {
  min-height: var(--touch);
  display: flex;
  gap: 0.6rem;
  align-items: center;
  cursor: pointer;
}
ul {
  list-style: none;
  margin: 0;
  padding: 0;
}
li {
  border-bottom: 1px solid var(--line);
}
pre {
  white-space: pre-wrap;
  font-size: 0.8rem;
}
</style>
