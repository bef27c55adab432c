<script setup lang="ts">
import { useClipboard } from '@vueuse/core'
import { computed, ref } from 'vue'
import QrPicture from './QrPicture.vue'

/** An address for another device: its picture for a camera, its letters to be sent. */
const props = defineProps<{
  path: string
  /** Where the server is found; empty: from this very machine only. */
  addresses: readonly string[]
  label: string
}>()
const at = ref(0)
const hosts = computed(() => (props.addresses.length ? props.addresses : [location.origin]))
const address = computed(() => hosts.value[Math.min(at.value, hosts.value.length - 1)] + props.path)
const { copy, copied } = useClipboard({ source: address, legacy: true })
</script>

<template>
  <div class="way">
    <QrPicture :text="address" :label="label" />
    <div>
      <p v-if="addresses.length === 0" class="caution">
        This server answers to this machine alone: no other device can open this yet. “Who comes in” says how.
      </p>
      <p v-if="hosts.length > 1">
        <label
          >Network
          <select v-model="at" class="form-select">
            <option v-for="(h, i) in hosts" :key="h" :value="i">{{ h }}</option>
          </select></label
        >
      </p>
      <p class="address num">{{ address }}</p>
      <p>
        <button type="button" class="btn btn-plain" @click="copy()">
          {{ copied ? 'Copied' : 'Copy the link' }}
        </button>
      </p>
      <slot />
    </div>
  </div>
</template>

<style scoped>
.way {
  display: grid;
  grid-template-columns: 15rem minmax(0, 1fr);
  gap: 1.2rem;
  margin-top: 0.6rem;
}
p {
  margin: 0 0 0.6rem;
}
.address {
  overflow-wrap: anywhere;
}
@media (max-width: 720px) {
  .way {
    grid-template-columns: 1fr;
  }
}
</style>
