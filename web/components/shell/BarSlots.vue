<script setup lang="ts">
/** What a screen puts into the top bar: what it is about, and its main acts. */
</script>

<template>
  <Teleport defer to="#bar-about"><slot name="about" /></Teleport>
  <Teleport defer to="#bar-acts"><slot name="acts" /></Teleport>
</template>
