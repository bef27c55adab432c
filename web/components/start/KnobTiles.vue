<script setup lang="ts">
import { computed } from 'vue'
import type { End } from '#contract/common'
import type { Part } from '../../support/firstBike.ts'

/** What is seen on a fork or a shock, to be tapped: drawn, with the words beside the drawing. */
const props = defineProps<{ end: End; modelValue: Part[] }>()
const emit = defineEmits<{ 'update:modelValue': [parts: Part[]] }>()

interface Tile {
  part: Part
  title: string
  where: string
  /** Only together with this one. */
  with?: Part
  /** One or the other. */
  not?: Part
}
const tiles = computed<Tile[]>(() => {
  const fork = props.end === 'front'
  const all: Tile[] = [
    {
      part: 'air',
      title: 'Air valve',
      where: fork ? 'under a cap, top of a leg' : 'on the can',
      not: 'coil',
    },
    { part: 'coil', title: 'Steel coil', where: fork ? 'no valve at all' : 'around the body', not: 'air' },
    { part: 'red', title: 'Red knob', where: fork ? 'foot of a leg' : 'by an eyelet' },
    { part: 'blue', title: 'Blue knob', where: fork ? 'top of a leg' : 'on the body' },
    { part: 'lever', title: 'Lever', where: 'two or three places' },
    { part: 'turn', title: 'Dial without clicks', where: 'turns smoothly' },
    { part: 'red-two', title: 'A second red one', where: 'around or beside the first', with: 'red' },
    { part: 'blue-two', title: 'A second blue one', where: 'around or beside the first', with: 'blue' },
  ]
  return all.filter((t) => !t.with || props.modelValue.includes(t.with))
})
function toggle(t: Tile) {
  const has = props.modelValue.includes(t.part)
  const rest = props.modelValue.filter(
    (p) => p !== t.part && p !== t.not && !(has && tiles.value.find((x) => x.part === p)?.with === t.part),
  )
  emit('update:modelValue', has ? rest : [...rest, t.part])
}
</script>

<template>
  <div class="tiles" role="group" :aria-label="end === 'front' ? 'On the fork' : 'On the shock'">
    <button
      v-for="t in tiles"
      :key="t.part"
      type="button"
      class="tile"
      :aria-pressed="modelValue.includes(t.part)"
      @click="toggle(t)"
    >
      <svg viewBox="0 0 60 44" aria-hidden="true">
        <template v-if="t.part === 'air'">
          <rect x="24" y="12" width="12" height="22" rx="2" class="metal" />
          <rect x="21" y="6" width="18" height="9" rx="3" class="dark" />
          <path d="M14 38 h32" class="line" />
        </template>
        <template v-else-if="t.part === 'coil'">
          <path d="M12 12 L48 8 M12 19 L48 15 M12 26 L48 22 M12 33 L48 29 M12 40 L48 36" class="coil" />
        </template>
        <template v-else-if="t.part === 'lever'">
          <circle cx="22" cy="24" r="11" class="metal" />
          <path d="M22 24 L50 12" class="arm" />
        </template>
        <template v-else-if="t.part === 'turn'">
          <circle cx="30" cy="22" r="16" class="metal" />
          <path d="M18 22 A12 12 0 0 1 40 15 m0 -6 v7 h-7" class="line" />
        </template>
        <template v-else>
          <circle v-if="t.with" cx="30" cy="22" r="19" class="knob" :class="t.part" />
          <circle cx="30" cy="22" :r="t.with ? 10 : 15" class="knob inner" :class="t.part" />
          <path v-for="a in 8" :key="a" d="M30 4 v5" class="tooth" :transform="`rotate(${a * 45} 30 22)`" />
        </template>
      </svg>
      <b>{{ t.title }}</b>
      <span class="small">{{ t.where }}</span>
    </button>
  </div>
</template>

<style scoped>
.tiles {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(150px, 1fr));
  gap: 0.7rem;
}
.tile {
  display: grid;
  justify-items: start;
  gap: 0.1rem;
  min-height: 112px;
  padding: 0.6rem 0.8rem;
  border: 2px solid var(--line);
  border-radius: var(--radius);
  background: var(--card);
  color: var(--ink);
  text-align: left;
}
.tile[aria-pressed='true'] {
  border-color: var(--pine);
  box-shadow: inset 0 0 0 2px var(--sun);
  background: var(--sun-soft);
  color: var(--sun-ink);
}
svg {
  width: 60px;
  height: 44px;
}
.metal {
  fill: var(--paper-deep);
  stroke: var(--ink-soft);
  stroke-width: 2;
}
.dark {
  fill: var(--ink-soft);
}
.line,
.coil,
.arm,
.tooth {
  fill: none;
  stroke: var(--ink-soft);
  stroke-width: 2.5;
  stroke-linecap: round;
}
.coil {
  stroke-width: 5;
}
.arm {
  stroke-width: 7;
  stroke: var(--anodised-compression);
}
.knob {
  fill: var(--anodised-rebound);
  stroke: var(--card);
  stroke-width: 2;
}
.blue,
.blue-two {
  fill: var(--anodised-compression);
}
.tooth {
  stroke: var(--card);
  stroke-width: 2;
}
@media (max-width: 420px) {
  .tiles {
    grid-template-columns: 1fr 1fr;
  }
}
</style>
