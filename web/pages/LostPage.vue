<script setup lang="ts">
import { usePageTitle } from '../composables/usePageTitle.ts'
usePageTitle(() => 'No such screen')
</script>

<template>
  <div class="page">
    <h1>There is no such screen</h1>
    <p><RouterLink to="/">Back to today</RouterLink></p>
  </div>
</template>
