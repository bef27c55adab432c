<script setup lang="ts">
import type { RouteLocationRaw } from 'vue-router'
import { onReachAgain } from '../../api/reach.ts'

/** What stands where a record of the address should: it is gone, or nobody can reach it now. */
const { back = { to: '/', text: 'Back to today' } } = defineProps<{
  title: string
  back?: { to: RouteLocationRaw; text: string }
}>()
const emit = defineEmits<{ again: [] }>()
onReachAgain(() => emit('again'))
</script>

<template>
  <div class="page">
    <h1>{{ title }}</h1>
    <p>It may have been removed, the address may not be whole, or the server is out of reach.</p>
    <p class="key-row">
      <RouterLink class="btn btn-primary" :to="back.to">{{ back.text }}</RouterLink>
      <button type="button" class="btn btn-plain" @click="emit('again')">Try again</button>
    </p>
  </div>
</template>
