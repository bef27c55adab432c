<script setup lang="ts">
import { v7 as uuid } from 'uuid'
import { computed } from 'vue'
import { VueDraggable } from 'vue-draggable-plus'
import { SectionKind, type TrailSection } from '#contract/trail'
import IconUp from '~icons/lucide/arrow-up'
import IconDown from '~icons/lucide/arrow-down'
import IconGrip from '~icons/lucide/grip-vertical'
import IconX from '~icons/lucide/x'
import { sectionWords } from '../../support/words.ts'
import GroundSketch from './GroundSketch.vue'

/** A trail put together from kinds of ground: dragged from the palette or added by a tap, in the order they are ridden. */
const sections = defineModel<TrailSection[]>({ required: true })

const made = (kind: SectionKind): TrailSection => {
  const word = sectionWords[kind]
  const alike = sections.value.filter((s) => s.kind === kind).length
  const name = word[0].toUpperCase() + word.slice(1) + (alike ? ` ${alike + 1}` : '')
  return { id: uuid(), name, kind, lengthM: null, severity: 1 }
}
const palette = SectionKind.options.map((kind) => ({ kind, text: sectionWords[kind] }))
const paletteGroup = { name: 'ground', pull: 'clone' as const, put: false }
const listGroup = { name: 'ground', pull: false, put: true }
const clone = (item: { kind: SectionKind }) => made(item.kind)

const add = (kind: SectionKind) => (sections.value = [...sections.value, made(kind)])
const remove = (i: number) => (sections.value = sections.value.filter((_, k) => k !== i))
function move(i: number, by: 1 | -1) {
  const list = [...sections.value]
  const [s] = list.splice(i, 1)
  list.splice(i + by, 0, s)
  sections.value = list
}
const set = (i: number, change: Partial<TrailSection>) =>
  (sections.value = sections.value.map((s, k) => (k === i ? { ...s, ...change } : s)))
const severityWords = (v: number) => (v < 0.7 ? 'gentle' : v <= 1.3 ? 'usual' : v <= 1.9 ? 'harsh' : 'brutal')
const total = computed(() => {
  const said = sections.value.filter((s) => s.lengthM !== null)
  const unsaid = sections.value.length - said.length
  const metres = said.reduce((t, s) => t + (s.lengthM ?? 0), 0)
  const count = `${sections.value.length} ${sections.value.length === 1 ? 'section' : 'sections'}`
  if (said.length === 0) return count
  return `${count}, ${Math.round(metres)} m${unsaid > 0 ? `, ${unsaid} without a length` : ''}`
})
const number = (e: Event) => Number((e.target as HTMLInputElement).value)
/** An empty field says nothing. */
const numberOrNone = (e: Event) => ((e.target as HTMLInputElement).value === '' ? null : number(e))
const text = (e: Event) => (e.target as HTMLInputElement).value
</script>

<template>
  <div class="builder">
    <div>
      <span class="form-label">Kinds of ground</span>
      <p class="soft small">Drag one into the trail, or tap it to add it at the end.</p>
      <VueDraggable :model-value="palette" :group="paletteGroup" :sort="false" :clone="clone" class="palette">
        <button v-for="p in palette" :key="p.kind" type="button" class="tile" @click="add(p.kind)">
          <GroundSketch :kind="p.kind" :severity="1" />
          <span>{{ p.text }}</span>
        </button>
      </VueDraggable>
    </div>
    <div>
      <span class="form-label">The trail, from the top</span>
      <p class="soft small num">
        {{ total }}. One to four minutes in all, with what is being tuned in it. A length that nobody has
        measured stays empty.
      </p>
      <VueDraggable
        v-model="sections"
        :group="listGroup"
        handle=".grip"
        :animation="120"
        class="list"
        aria-label="Sections from the top"
        role="list"
      >
        <div v-for="(s, i) in sections" :key="s.id" class="section" role="listitem">
          <span class="grip" title="Drag to move"><IconGrip aria-hidden="true" /></span>
          <div class="what">
            <input
              :value="s.name"
              class="form-control"
              :aria-label="`Section ${i + 1}, name`"
              @input="(e) => set(i, { name: text(e) })"
            />
            <GroundSketch :kind="s.kind" :severity="s.severity" class="sketch" />
            <span class="small soft">{{ sectionWords[s.kind] }}</span>
          </div>
          <div class="metres">
            <input
              :value="s.lengthM ?? ''"
              type="number"
              min="1"
              class="form-control num"
              :aria-label="`Section ${i + 1}, length in m`"
              @input="(e) => set(i, { lengthM: numberOrNone(e) })"
            /><span class="soft">m</span>
          </div>
          <label class="severity">
            <input
              type="range"
              min="0.2"
              max="2.5"
              step="0.1"
              :value="s.severity"
              :aria-label="`Section ${i + 1}, severity`"
              :aria-valuetext="`${s.severity}, ${severityWords(s.severity)}`"
              @input="(e) => set(i, { severity: number(e) })"
            />
            <span class="small num">{{ `${s.severity.toFixed(1)} ${severityWords(s.severity)}` }}</span>
          </label>
          <div class="acts">
            <button
              type="button"
              :disabled="i === 0"
              :aria-label="`Move section ${i + 1} up`"
              @click="move(i, -1)"
            >
              <IconUp aria-hidden="true" />
            </button>
            <button
              type="button"
              :disabled="i === sections.length - 1"
              :aria-label="`Move section ${i + 1} down`"
              @click="move(i, 1)"
            >
              <IconDown aria-hidden="true" />
            </button>
            <button type="button" :aria-label="`Remove section ${i + 1}`" @click="remove(i)">
              <IconX aria-hidden="true" />
            </button>
          </div>
        </div>
      </VueDraggable>
    </div>
  </div>
</template>

<style scoped>
.builder {
  display: grid;
  grid-template-columns: 270px minmax(0, 1fr);
  gap: 1.2rem;
}
p {
  margin: 0 0 0.4rem;
}
.palette {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 0.4rem;
}
.tile {
  display: grid;
  border: 1px solid var(--line);
  border-radius: 8px;
  background: var(--paper);
  color: var(--ink);
  padding: 0.2rem 0.5rem 0.3rem;
  cursor: grab;
  text-align: left;
}
.list {
  min-height: 80px;
  border: 1px dashed var(--line);
  border-radius: 10px;
  padding: 0.3rem;
}
.section {
  display: grid;
  grid-template-columns: 24px minmax(0, 1fr) 104px 112px auto;
  gap: 0.5rem;
  align-items: center;
  padding: 0.35rem 0.2rem;
  border-bottom: 1px solid var(--line);
}
/* What is dragged in from the palette, before it lands. */
.list > .tile {
  margin: 0.3rem;
}
.grip {
  cursor: grab;
  color: var(--ink-soft);
}
.what {
  display: grid;
  grid-template-columns: minmax(0, 1.3fr) minmax(60px, 1fr);
  gap: 0 0.6rem;
  align-items: center;
}
.what > .small {
  grid-column: 2;
  line-height: 1;
}
.what .form-control {
  grid-row: span 2;
}
.metres {
  display: flex;
  align-items: center;
  gap: 0.3rem;
}
.severity {
  display: grid;
}
.severity input {
  accent-color: var(--pine);
  min-height: 28px;
}
.acts {
  display: flex;
}
.acts button {
  border: 0;
  background: none;
  color: var(--ink);
  width: 34px;
  min-height: var(--touch);
}
.acts button:disabled {
  opacity: 0.3;
}
@media (max-width: 760px) {
  .builder {
    grid-template-columns: 1fr;
  }
  .palette {
    grid-template-columns: repeat(3, 1fr);
  }
  .section {
    grid-template-columns: 24px 1fr 1fr;
  }
  .what,
  .acts {
    grid-column: 2 / -1;
  }
}
</style>
