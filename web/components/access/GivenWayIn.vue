<script setup lang="ts">
import { computed } from 'vue'
import type { GivenPass } from '#contract/access'
import { clockWords } from '../../support/dates.ts'
import { roleWords } from '../../support/accessWords.ts'
import LinkAndPicture from '../shell/LinkAndPicture.vue'

/** A link that was just made; it is shown this once. */
const props = defineProps<{ given: GivenPass; addresses: readonly string[] }>()
const emit = defineEmits<{ done: [] }>()
const path = computed(() => `/enter/${props.given.token}`)
const ends = computed(() => clockWords(props.given.pass.expiresAt))
</script>

<template>
  <section class="card-paper">
    <h2>{{ `A link for ${given.pass.name} (${roleWords[given.pass.role].toLowerCase()})` }}</h2>
    <LinkAndPicture :path="path" :addresses="addresses" :label="`Link for ${given.pass.name}`">
      <p>{{ `It lets one device in, once, until ${ends}.` }}</p>
      <p><button type="button" class="btn btn-plain" @click="emit('done')">Done</button></p>
    </LinkAndPicture>
  </section>
</template>

<style scoped>
section {
  padding: 1rem 1.2rem;
}
</style>
