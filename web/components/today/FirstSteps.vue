<script setup lang="ts">
import IconBike from '~icons/lucide/bike'
import IconFile from '~icons/lucide/file-up'
import IconLesson from '~icons/lucide/graduation-cap'
import IconFootprints from '~icons/lucide/footprints'

/** An empty start: ways in, a tap each, over a picture of what a day of testing gives. */
const emit = defineEmits<{ demo: []; bring: [] }>()
</script>

<template>
  <section class="first" aria-labelledby="first-title">
    <div>
      <h2 id="first-title">Begin</h2>
      <div class="ways">
        <RouterLink class="way main" :to="{ name: 'setup' }">
          <IconBike aria-hidden="true" /><b>Set up my bike</b>
          <span>Two minutes, one question a screen. No manual needed.</span>
        </RouterLink>
        <button type="button" class="way" @click="emit('demo')">
          <IconFootprints aria-hidden="true" /><b>Try it with an invented rider</b>
          <span>A half-way day to play with. It can be removed again.</span>
        </button>
        <RouterLink class="way" :to="{ name: 'practice', params: { drill: 'first-lesson', seed: 1 } }">
          <IconLesson aria-hidden="true" /><b>First lesson, three minutes</b>
          <span>One dial, four runs, an invented rider. Nothing of it is kept.</span>
        </RouterLink>
        <button type="button" class="way" @click="emit('bring')">
          <IconFile aria-hidden="true" /><b>Bring data in</b>
          <span>Settings you wrote down, or a sensor file.</span>
        </button>
      </div>
    </div>
    <!-- What the product does, drawn: ride, change one thing, ride again, keep what is better. -->
    <svg
      class="shown"
      viewBox="0 0 360 300"
      role="img"
      aria-label="A day as a trail: run 1 rated 6, rear rebound one click slower, counted from open, run 2 rated 7 and better, run 3 the same again, settled"
    >
      <path d="M60 24 C30 70 95 90 62 128 C34 170 92 190 62 236 C52 256 60 268 60 284" class="trail" />
      <path d="M60 24 C30 70 95 90 62 128 C34 170 92 190 62 236 C52 256 60 268 60 284" class="dots" />
      <g class="stop">
        <circle cx="58" cy="40" r="17" />
        <text x="58" y="46">1</text>
      </g>
      <text x="96" y="46" class="say">baseline, rated 6</text>
      <rect x="96" y="66" width="214" height="44" rx="8" class="tag" />
      <text x="108" y="85" class="say b">Rear rebound 7 → 8</text>
      <text x="108" y="102" class="say s">from open, 1 click slower</text>
      <g class="stop two">
        <circle cx="63" cy="134" r="17" />
        <text x="63" y="140">2</text>
      </g>
      <text x="96" y="140" class="say">rated 7, ▲ better</text>
      <g class="stop two">
        <circle cx="64" cy="192" r="17" />
        <text x="64" y="198">3</text>
      </g>
      <text x="96" y="198" class="say">the same again: it holds</text>
      <rect x="96" y="226" width="176" height="34" rx="8" class="done" />
      <text x="108" y="248" class="say b">◆ settled: stop here</text>
    </svg>
  </section>
</template>

<style scoped>
.first {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 360px;
  gap: 1.5rem;
  align-items: center;
}
.ways {
  display: grid;
  gap: 0.7rem;
  margin-top: 0.6rem;
}
.way {
  display: grid;
  grid-template-columns: 40px 1fr;
  gap: 0 0.6rem;
  align-items: center;
  text-align: left;
  padding: 0.8rem 1rem;
  border: 1px solid var(--line);
  border-left: 6px solid var(--line);
  border-radius: var(--radius);
  background: var(--card);
  color: inherit;
  text-decoration: none;
}
.way svg {
  grid-row: 1 / 3;
  width: 28px;
  height: 28px;
}
.way b {
  font: 640 1.12rem var(--head-font);
}
.main {
  border-left-color: var(--sun);
  background: var(--sun-soft);
  color: var(--sun-ink);
}
.shown {
  width: 100%;
}
.trail {
  fill: none;
  stroke: var(--paper-deep);
  stroke-width: 14;
  stroke-linecap: round;
}
.dots {
  fill: none;
  stroke: var(--ink-soft);
  stroke-width: 1.6;
  stroke-dasharray: 1.5 5;
}
.stop circle {
  fill: #23483c;
}
.stop.two circle {
  fill: #33617f;
}
.stop text {
  fill: #fdfaf2;
  text-anchor: middle;
  font: 700 16px var(--body-font);
}
.say {
  fill: var(--ink);
  font: 15px var(--body-font);
}
.say.b {
  font-weight: 700;
}
.say.s {
  fill: var(--ink-soft);
  font-size: 13px;
}
.tag {
  fill: var(--card);
  stroke: var(--rear);
}
.done {
  fill: var(--front-soft);
}
[data-bs-theme='dark'] .done + .say {
  fill: var(--ink);
}
@media (max-width: 720px) {
  .first {
    grid-template-columns: 1fr;
  }
  .shown {
    max-width: 320px;
  }
}
</style>
