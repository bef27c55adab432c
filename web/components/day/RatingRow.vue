<script setup lang="ts">
import { computed } from 'vue'

const props = defineProps<{ rating: number | null }>()
const emit = defineEmits<{ rate: [rating: number | null] }>()

const steps = Array.from({ length: 10 }, (_, i) => i + 1)
const words = computed(() =>
  props.rating === null ? 'rate the run: tap a number, tap again for a half' : `${props.rating} of 10`,
)
/** First tap: the number. Second: and a half. Third: none. */
function tap(n: number) {
  if (props.rating === n && n < 10) emit('rate', n + 0.5)
  else if (props.rating === n + 0.5 || (props.rating === n && n === 10)) emit('rate', null)
  else emit('rate', n)
}
const filled = (n: number) => (props.rating === null ? '' : props.rating >= n ? 'full' : '')
const half = (n: number) => props.rating === n + 0.5
</script>

<template>
  <div class="rating" role="group" aria-label="Rating, 1 poor to 10 superb">
    <div class="ladder">
      <button
        v-for="n in steps"
        :key="n"
        type="button"
        class="num"
        :class="[filled(n), { now: Math.floor(rating ?? 0) === n }]"
        :aria-pressed="Math.floor(rating ?? 0) === n"
        @click="tap(n)"
      >
        {{ half(n) ? `${n}½` : n }}
      </button>
    </div>
    <b class="said num">{{ words }}</b>
  </div>
</template>

<style scoped>
.rating {
  display: flex;
  align-items: center;
  gap: 0.3rem 0.9rem;
  flex-wrap: wrap;
}
.ladder {
  display: grid;
  grid-template-columns: repeat(10, minmax(30px, 44px));
  gap: 2px;
}
button {
  min-height: var(--touch);
  padding: 0;
  border: 0;
  background: var(--paper-deep);
  color: var(--ink);
  font-weight: 600;
}
button:first-child {
  border-radius: 9px 0 0 9px;
}
button:last-child {
  border-radius: 0 9px 9px 0;
}
.full {
  background: var(--front-soft);
}
.now {
  background: #23483c;
  color: #fdfaf2;
}
.said {
  font-size: 0.95rem;
}
</style>
