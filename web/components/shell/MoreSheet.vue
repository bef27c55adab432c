<script setup lang="ts">
import { places } from '../../support/places.ts'
import DialogFrame from './DialogFrame.vue'

/** What a phone's main bar has no room for. */
const open = defineModel<boolean>('open', { required: true })
defineProps<{ dusk: boolean }>()
const emit = defineEmits<{ units: []; dusk: []; keys: [] }>()
const more = places.filter((p) => p.underMore)
function then(what: 'units' | 'keys') {
  open.value = false
  if (what === 'units') emit('units')
  else emit('keys')
}
</script>

<template>
  <DialogFrame v-model:open="open" title="More">
    <div class="sheet">
      <RouterLink
        v-for="p in more"
        :key="p.screen"
        class="btn btn-plain"
        :to="{ name: p.screen }"
        @click="open = false"
        >{{ p.words }}</RouterLink
      >
      <button type="button" class="btn btn-plain" @click="then('units')">Units, and whose hands</button>
      <button type="button" class="btn btn-plain" @click="emit('dusk')">
        {{ dusk ? 'Day colours' : 'Dusk colours' }}
      </button>
      <RouterLink class="btn btn-plain" :to="{ name: 'data' }" @click="open = false"
        >What is kept, and its safe copies</RouterLink
      >
      <RouterLink class="btn btn-plain" :to="{ name: 'access' }" @click="open = false"
        >Who comes in</RouterLink
      >
      <button type="button" class="btn btn-plain" @click="then('keys')">Keys</button>
    </div>
  </DialogFrame>
</template>

<style scoped>
.sheet {
  display: grid;
  gap: 0.6rem;
}
</style>
