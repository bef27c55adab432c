<script setup lang="ts">
import type { Component } from 'vue'
import IconTurn from '~icons/lucide/rotate-cw'
import IconOpen from '~icons/lucide/lock-open'
import IconShut from '~icons/lucide/lock'
import IconMinus from '~icons/lucide/minus'
import IconPlus from '~icons/lucide/plus'
import IconHare from '~icons/lucide/rabbit'
import IconTortoise from '~icons/lucide/turtle'
import { signs, type Sign } from '../../handbook/signs.ts'

/** Signs as they stand on a dial, drawn, each with its name and what it mostly means. */
defineProps<{ of: readonly Sign[] }>()
/** A colour is its own sign. */
const drawn: Record<Sign, Component | null> = {
  tortoise: IconTortoise,
  hare: IconHare,
  plus: IconPlus,
  minus: IconMinus,
  clockwise: IconTurn,
  shut: IconShut,
  open: IconOpen,
  red: null,
  blue: null,
}
</script>

<template>
  <ul class="signs">
    <li v-for="s in of" :key="s">
      <span class="knob" :class="s"><component :is="drawn[s]" v-if="drawn[s]" aria-hidden="true" /></span>
      <span
        ><b>{{ signs[s].name }}</b
        >: {{ signs[s].means }}.</span
      >
    </li>
  </ul>
</template>

<style scoped>
.signs {
  list-style: none;
  margin: 0.3rem 0;
  padding: 0;
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(min(100%, 280px), 1fr));
  gap: 0.5rem 1.2rem;
}
li {
  display: grid;
  grid-template-columns: 44px 1fr;
  align-items: center;
  gap: 0.6rem;
}
.knob {
  display: grid;
  place-items: center;
  width: 44px;
  height: 44px;
  border: 2px solid var(--ink);
  border-radius: 50%;
  background: var(--paper-deep);
  font-size: 1.4rem;
}
/* The colour is the sign itself; its name stands beside it. */
.knob.red {
  background: #b3372b;
}
.knob.blue {
  background: #2c5d96;
}
</style>
