<script setup lang="ts">
const open = defineModel<boolean>('open', { required: true })
const keys = [
  ['c', 'change in one line'],
  ['r', 'log a run'],
  ['f', 'go to the feel'],
  ['j / k', 'next or previous run'],
  ['x', 'compare with the run before'],
  ['← →', 'on a rail: one step'],
  ['0–9', 'on a rail: set this count'],
]
</script>

<template>
  <BModal v-model="open" lazy unmount-lazy no-animation title="Keys" no-footer>
    <dl>
      <template v-for="[k, what] in keys" :key="k">
        <dt>{{ k }}</dt>
        <dd>{{ what }}</dd>
      </template>
    </dl>
  </BModal>
</template>

<style scoped>
dl {
  display: grid;
  grid-template-columns: 5rem 1fr;
  gap: 0.3rem;
  margin: 0;
}
dd {
  margin: 0;
}
</style>
