<script setup lang="ts">
import { computed } from 'vue'
import { useUnits } from '../../composables/useUnits.ts'
import { kitPieces } from '../../support/firstBike.ts'

/** A rider to be dressed: what is worn is tapped on, and adds up beside it. */
const props = defineProps<{ modelValue: string[] }>()
const emit = defineEmits<{ 'update:modelValue': [kit: string[]] }>()
const { say } = useUnits()
const on = (key: string) => props.modelValue.includes(key)
const toggle = (key: string) =>
  emit('update:modelValue', on(key) ? props.modelValue.filter((k) => k !== key) : [...props.modelValue, key])
const worn = computed(() => Object.fromEntries(kitPieces.map((p) => [p.key, on(p.key)])))
</script>

<template>
  <div class="kit">
    <svg viewBox="0 0 120 200" aria-hidden="true">
      <path d="M60 62 L60 118 M60 72 L34 104 M60 72 L86 104 M60 118 L42 180 M60 118 L78 180" class="body" />
      <circle cx="60" cy="42" r="17" class="head" />
      <path v-if="worn.clothes" d="M42 38 a18 18 0 0 1 36 0 z M46 66 h28 l4 46 h-36 z" class="on" />
      <path v-if="worn.full" d="M44 40 v14 a16 12 0 0 0 32 0 v-14 M62 66 v46" class="strap" />
      <path v-if="worn.pack" d="M76 68 h16 v36 h-14 z" class="on pack" />
      <path v-if="worn.water" d="M80 76 h8 v18 h-8 z" class="water" />
      <path v-if="worn.pads" d="M44 144 h10 v16 h-10 z M66 144 h10 v16 h-10 z" class="on" />
      <path v-if="worn.shoes" d="M28 178 h18 v9 h-18 z M74 178 h18 v9 h-18 z" class="on" />
    </svg>
    <div class="pieces" role="group" aria-label="What is worn on the bike">
      <button
        v-for="p in kitPieces"
        :key="p.key"
        type="button"
        :aria-pressed="on(p.key)"
        @click="toggle(p.key)"
      >
        <b>{{ p.text }}</b><span class="num">{{ `about ${say('mass', p.kg)}` }}</span>
      </button>
    </div>
  </div>
</template>

<style scoped>
.kit {
  display: grid;
  grid-template-columns: 150px minmax(0, 1fr);
  gap: 1rem;
  align-items: center;
}
.body {
  fill: none;
  stroke: var(--ink-soft);
  stroke-width: 12;
  stroke-linecap: round;
  stroke-linejoin: round;
}
.head {
  fill: var(--ink-soft);
}
.on {
  fill: var(--front);
  stroke: var(--card);
  stroke-width: 2;
}
.pack {
  fill: var(--rear);
}
.water {
  fill: var(--sky);
  stroke: var(--card);
}
.strap {
  fill: none;
  stroke: var(--rear);
  stroke-width: 6;
}
.pieces {
  display: grid;
  gap: 0.5rem;
}
.pieces button {
  display: flex;
  justify-content: space-between;
  gap: 0.6rem;
  align-items: center;
  min-height: 48px;
  padding: 0 0.9rem;
  border: 1px solid var(--line);
  border-radius: 10px;
  background: var(--card);
  color: var(--ink);
  text-align: left;
}
.pieces button[aria-pressed='true'] {
  background: var(--sun-soft);
  color: var(--sun-ink);
  border-color: var(--sun-ink);
}
@media (max-width: 480px) {
  .kit {
    grid-template-columns: 84px minmax(0, 1fr);
  }
}
</style>
