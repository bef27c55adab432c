<script setup lang="ts">
import { computed, ref } from 'vue'
import { endpoints } from '#contract/endpoints'
import { access } from '../../api/door.ts'
import { ApiError, call } from '../../api/client.ts'
import { deviceName, keepDeviceName } from '../../support/deviceName.ts'
import DoorField from './DoorField.vue'
import RecoveryCodeCard from './RecoveryCodeCard.vue'

/** Before anything else: sign in, lock the door the first time, or open it with the recovery code. */
const unset = computed(() => access.value?.door === 'unset')
const recovering = ref(false)
const code = ref('')
const passphrase = ref('')
const device = ref(deviceName())
const seen = ref(false)
const fault = ref<string | null>(null)
const busy = ref(false)
/** A new recovery code, until it is on paper. */
const given = ref<string | null>(null)

// Everything is read afresh by whoever is in: a page that was shut out holds half of nothing.
const go = () => location.reload()

async function submit() {
  if (busy.value) return
  busy.value = true
  fault.value = null
  const who = { passphrase: passphrase.value, device: device.value.trim() || deviceName() }
  keepDeviceName(who.device)
  try {
    if (unset.value)
      given.value = (await call(endpoints.setLock, {}, { ...who, setupCode: code.value })).recoveryCode
    else if (recovering.value)
      given.value = (await call(endpoints.recover, {}, { ...who, recoveryCode: code.value })).recoveryCode
    else {
      await call(endpoints.signIn, {}, who)
      go()
    }
  } catch (e) {
    fault.value = e instanceof ApiError ? e.message : 'That did not work; try again.'
  } finally {
    busy.value = false
  }
}
function recover() {
  recovering.value = !recovering.value
  fault.value = null
  passphrase.value = ''
}
const title = computed(() =>
  unset.value
    ? 'Lock this door first'
    : recovering.value
      ? 'Open it with the recovery code'
      : 'This door is locked',
)
</script>

<template>
  <div class="page door">
    <RecoveryCodeCard v-if="given" :code="given" @kept="go" />
    <form v-else class="card-paper" novalidate @submit.prevent="submit">
      <h1>{{ title }}</h1>
      <p v-if="unset">
        Other devices can reach this server. The owner sets a passphrase; the code stands where the server was
        started.
      </p>
      <p v-else-if="recovering">
        It stands on the paper that was printed when the door was locked. Every device is signed out.
      </p>
      <p v-else>The owner signs in here. Everybody else comes in by a link that the owner gives.</p>
      <DoorField
        v-if="unset || recovering"
        v-model="code"
        plain
        :label="unset ? 'Code from where the server was started' : 'Recovery code'"
        autocomplete="off"
      />
      <DoorField
        v-model="passphrase"
        v-model:seen="seen"
        :label="unset || recovering ? 'New passphrase' : 'Passphrase'"
        :autocomplete="unset || recovering ? 'new-password' : 'current-password'"
        :hint="
          unset || recovering ? 'At least 12 letters; four words that do not belong together are good.' : ''
        "
        :fault="fault"
      />
      <label class="see"><input v-model="seen" type="checkbox" /> Show what I type</label>
      <DoorField
        v-model="device"
        plain
        label="This device"
        autocomplete="off"
        hint="By this name it stands in the list of devices."
      />
      <p class="acts">
        <BButton type="submit" variant="primary" :disabled="busy">{{
          unset ? 'Lock it and go in' : recovering ? 'Set it and go in' : 'Go in'
        }}</BButton>
        <button v-if="!unset" type="button" class="btn btn-link" @click="recover">
          {{ recovering ? 'I know the passphrase' : 'The passphrase is lost' }}
        </button>
      </p>
    </form>
  </div>
</template>

<style scoped>
.door {
  max-width: 34rem;
}
form {
  padding: 1.3rem 1.4rem 1rem;
  display: grid;
  gap: 0.8rem;
}
form > p {
  margin: 0;
}
.see {
  display: inline-flex;
  gap: 0.5rem;
  align-items: center;
  min-height: var(--touch);
  justify-self: start;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 0.6rem;
}
</style>
