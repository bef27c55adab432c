<script setup lang="ts">
import { computed } from 'vue'
import { vRoving } from '../../support/roving.ts'

/** The rating in two rows of keys for gloves, the half as a key of its own. No key of a number ever erases. */
const props = defineProps<{ rating: number | null }>()
const emit = defineEmits<{ rate: [rating: number | null] }>()

const steps = Array.from({ length: 10 }, (_, i) => i + 1)
const whole = computed(() => Math.floor(props.rating ?? 0))
const half = computed(() => props.rating !== null && props.rating !== whole.value)
const words = computed(() =>
  props.rating === null ? 'not rated yet' : `${whole.value}${half.value ? '½' : ''} of 10`,
)
/** A number keeps nothing of the half: who taps 7 means 7. */
const rate = (n: number) => props.rating !== n && emit('rate', n)
function toggleHalf() {
  if (props.rating === null || whole.value === 10) return
  emit('rate', half.value ? whole.value : whole.value + 0.5)
}
/** Digits rate, 0 is ten; a point or a comma is the half. */
function key(e: KeyboardEvent) {
  if (e.ctrlKey || e.metaKey || e.altKey) return
  if (/^\d$/.test(e.key)) rate(e.key === '0' ? 10 : Number(e.key))
  else if (e.key === '.' || e.key === ',' || e.key === '½') toggleHalf()
  else return
  e.preventDefault()
  e.stopPropagation()
}
</script>

<template>
  <div v-roving class="rating" role="group" aria-label="Rating, 1 poor to 10 superb" @keydown="key">
    <button
      v-for="n in steps"
      :key="n"
      type="button"
      class="num"
      :class="{ full: rating !== null && rating >= n, now: whole === n }"
      :aria-pressed="whole === n"
      @click="rate(n)"
    >
      {{ n }}
    </button>
    <button
      type="button"
      class="half num"
      aria-label="and a half"
      :aria-pressed="half"
      :disabled="rating === null || whole === 10"
      @click="toggleHalf"
    >
      ½
    </button>
    <b class="said num" role="status">{{ words }}</b>
    <button v-if="rating !== null" type="button" class="none" @click="emit('rate', null)">
      Remove the rating
    </button>
  </div>
</template>

<style scoped>
.rating {
  display: grid;
  grid-template-columns: repeat(5, minmax(56px, 72px)) 56px minmax(0, 1fr);
  grid-template-rows: 56px 56px;
  gap: 8px;
  align-items: center;
}
button {
  min-height: 56px;
  padding: 0;
  border: 1px solid var(--line);
  border-radius: 10px;
  background: var(--paper-deep);
  color: var(--ink);
  font-size: 1.15rem;
  font-weight: 650;
}
.full {
  background: var(--front-soft);
}
.now,
.half[aria-pressed='true'] {
  background: #23483c;
  color: #fdfaf2;
}
.half {
  grid-column: 6;
  grid-row: 1 / 3;
  height: 100%;
}
.half:disabled {
  color: var(--ink-soft);
  background: none;
}
.said {
  grid-column: 7;
  grid-row: 1;
  font-size: 1.05rem;
}
.none {
  grid-column: 7;
  grid-row: 2;
  justify-self: start;
  min-height: var(--touch);
  border: 0;
  background: none;
  color: var(--ink-soft);
  font-size: 0.9rem;
  font-weight: 400;
  text-decoration: underline;
}
@media (max-width: 480px) {
  .rating {
    grid-template-columns: repeat(5, minmax(56px, 1fr));
    grid-template-rows: 56px 56px 56px;
    /* The keys reach the card's edges: they must not get narrower than a glove. */
    margin: 0 -0.6rem;
  }
  .half {
    grid-column: 1;
    grid-row: 3;
  }
  .said {
    grid-column: 2 / 4;
    grid-row: 3;
  }
  .none {
    grid-column: 4 / 6;
    grid-row: 3;
    justify-self: end;
  }
}
</style>
