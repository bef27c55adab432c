<script setup lang="ts">
import { ref } from 'vue'
import { endpoints } from '#contract/endpoints'
import { ApiError, call } from '../api/client.ts'
import DoorField from '../components/access/DoorField.vue'
import { usePageTitle } from '../composables/usePageTitle.ts'
import { deviceName, keepDeviceName } from '../support/deviceName.ts'

/** A way in for one other device. It is used up by a press, not by opening the link: a messenger opens links too. */
const props = defineProps<{ token: string }>()
usePageTitle(() => 'Come in')
const device = ref(deviceName())
const fault = ref<string | null>(null)
const busy = ref(false)
async function enter() {
  busy.value = true
  fault.value = null
  const name = device.value.trim() || deviceName()
  keepDeviceName(name)
  try {
    const a = await call(endpoints.enter, {}, { token: props.token, device: name })
    // A page that never was outside.
    location.replace(a.tentId === null ? '/' : `/tent/${a.tentId}?wall=1`)
  } catch (e) {
    fault.value = e instanceof ApiError ? e.message : 'That did not work; try again.'
    busy.value = false
  }
}
</script>

<template>
  <div class="page enter">
    <form class="card-paper" novalidate @submit.prevent="enter">
      <h1>Come in</h1>
      <p>This link lets one device in, once.</p>
      <DoorField
        v-model="device"
        plain
        label="This device"
        autocomplete="off"
        hint="By this name it stands in the owner’s list."
        :fault="fault"
      />
      <p><BButton type="submit" variant="primary" :disabled="busy">Come in</BButton></p>
    </form>
  </div>
</template>

<style scoped>
.enter {
  max-width: 30rem;
}
form {
  padding: 1.3rem 1.4rem 1rem;
  display: grid;
  gap: 0.8rem;
}
form > p {
  margin: 0;
}
</style>
