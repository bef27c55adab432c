<script setup lang="ts">
import type { School } from '#core/bench/schools'

/** A question on which good mechanics differ. */
defineProps<{ school: School }>()
</script>

<template>
  <article>
    <h1>{{ school.question }}</h1>
    <p class="soft">
      All of these work in good hands. Ours is where the tool begins; where it applies it can be switched at
      its step.
    </p>
    <dl>
      <template v-for="a in school.answers" :key="a.name">
        <dt>{{ a.name }}</dt>
        <dd>{{ a.text }}</dd>
      </template>
    </dl>
    <p class="ours"><b>Ours:</b> {{ school.ours }}</p>
  </article>
</template>

<style scoped>
dl {
  margin: 0.8rem 0;
}
dt {
  font-weight: 650;
}
dd {
  margin: 0 0 0.5rem;
  max-width: 62ch;
}
.ours {
  border-left: 4px solid var(--sun);
  padding-left: 0.9rem;
  max-width: 62ch;
}
</style>
