<script setup lang="ts">
import { computed, defineAsyncComponent } from 'vue'
import { readBehind } from '../../api/cache.ts'
import { outOfReachSince } from '../../api/reach.ts'
import { newerIsHere, takeNewer } from '../../offline/newVersion.ts'
import { useOutbox } from '../../stores/outbox.ts'
import { clockWords } from '../../support/dates.ts'
import { letterWords } from '../../support/letterWords.ts'

// Seldom wanted: fetched when there is something to choose.
const ChangedElsewhere = defineAsyncComponent(() => import('./ChangedElsewhere.vue'))

/** What has not reached the server, and why: one honest line, only while there is something to say. */
const outbox = useOutbox()
const waiting = computed(() => outbox.waiting.length)
const since = computed(() =>
  outbox.state.unreachableSince === null ? '' : clockWords(outbox.state.unreachableSince),
)
const words = computed(() => {
  const n = `${waiting.value} ${waiting.value === 1 ? 'entry waits' : 'entries wait'}`
  if (outbox.saving === 'kept-here')
    return `The server cannot be reached since ${since.value}. ${n} on this device and will be sent.`
  if (outbox.saving === 'not-kept')
    return `The server cannot be reached since ${since.value}, and this browser keeps nothing: ${n} in this window only. Leave it open.`
  if (outOfReachSince.value !== null)
    return `The server cannot be reached since ${clockWords(outOfReachSince.value)}. What you see is as it was then; what you enter waits on this device.`
  return ''
})
function tryNow() {
  void outbox.flush()
  readBehind()
}
const blocked = computed(() =>
  !outbox.state.durable && !words.value
    ? 'This browser keeps nothing on the device; everything is sent at once, so leave the window open until it says saved.'
    : '',
)
</script>

<template>
  <div
    v-if="words || blocked || newerIsHere || outbox.refused.length || outbox.conflicts.length"
    class="outbox"
  >
    <p v-if="newerIsHere" role="status">
      A newer Wild Spring is here. Take it when nobody is on a run.
      <button type="button" class="btn btn-sm btn-plain" @click="takeNewer()">Take it</button>
    </p>
    <p v-if="words" role="status">
      {{ words }}
      <button type="button" class="btn btn-sm btn-plain" @click="tryNow">Try now</button>
    </p>
    <p v-else-if="blocked" role="status">{{ blocked }}</p>
    <p v-for="l in outbox.refused" :key="l.id" class="refused" role="alert">
      <span>{{ `Not saved: ${letterWords(l)}. ${l.problem?.detail ?? ''}` }}</span>
      <button type="button" class="btn btn-sm btn-plain" @click="outbox.again(l.id)">Try again</button>
      <button type="button" class="btn btn-sm" @click="outbox.drop([l.id])">Remove</button>
    </p>
    <ChangedElsewhere v-if="outbox.conflicts.length" />
  </div>
</template>

<style scoped>
.outbox {
  background: var(--sun-soft);
  color: #1b2723;
  border-bottom: 1px solid var(--line);
  padding: 0.3rem 1rem;
}
p {
  margin: 0.1rem 0;
  display: flex;
  flex-wrap: wrap;
  gap: 0.6rem;
  align-items: center;
}
.refused {
  border-left: 5px solid #a8452b;
  padding-left: 0.6rem;
}
.outbox .btn {
  color: #1b2723;
}
</style>
