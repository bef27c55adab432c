<script setup lang="ts">
import { ref } from 'vue'
import { endpoints } from '#contract/endpoints'
import { ApiError, call } from '../../api/client.ts'
import DoorField from './DoorField.vue'
import RecoveryCodeCard from './RecoveryCodeCard.vue'

/** Another passphrase brings another recovery code, and signs the other devices out. */
const emit = defineEmits<{ changed: [] }>()
const before = ref('')
const passphrase = ref('')
const seen = ref(false)
const fault = ref<{ path: string; message: string } | null>(null)
const busy = ref(false)
const given = ref<string | null>(null)
async function submit() {
  busy.value = true
  fault.value = null
  try {
    given.value = (
      await call(endpoints.changePassphrase, {}, { before: before.value, passphrase: passphrase.value })
    ).recoveryCode
    before.value = passphrase.value = ''
  } catch (e) {
    fault.value =
      e instanceof ApiError
        ? { path: e.problem?.path ?? '', message: e.message }
        : { path: '', message: 'That did not work; try again.' }
  } finally {
    busy.value = false
  }
}
function kept() {
  given.value = null
  emit('changed')
}
</script>

<template>
  <RecoveryCodeCard v-if="given" :code="given" @kept="kept" />
  <form v-else novalidate @submit.prevent="submit">
    <DoorField
      v-model="before"
      v-model:seen="seen"
      label="Passphrase now"
      autocomplete="current-password"
      :fault="fault?.path === 'before' ? fault.message : null"
    />
    <DoorField
      v-model="passphrase"
      v-model:seen="seen"
      label="New passphrase"
      autocomplete="new-password"
      hint="Every other device is signed out, and the recovery code is a new one."
      :fault="fault && fault.path !== 'before' ? fault.message : null"
    />
    <label class="see"><input v-model="seen" type="checkbox" /> Show what I type</label>
    <p><button type="submit" class="btn btn-plain" :disabled="busy">Change it</button></p>
  </form>
</template>

<style scoped>
form {
  display: grid;
  gap: 0.7rem;
  margin-top: 0.5rem;
}
form > p {
  margin: 0;
}
.see {
  display: inline-flex;
  gap: 0.5rem;
  align-items: center;
  min-height: var(--touch);
}
</style>
