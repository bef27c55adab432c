<script setup lang="ts">
import { computed, ref } from 'vue'
import type { RoomTaken } from '#contract/data'
import { sizeWords, some } from '../../support/dataWords.ts'

/** What sensor files take, and what of it can go; that it goes for good is asked about. */
const props = defineProps<{ room: RoomTaken; busy: boolean }>()
const emit = defineEmits<{ free: [removed: number] }>()
const isAsked = ref(false)
/** Empty room that is worth writing the whole file anew for. */
const worthwhileBytes = 5e6
const canFree = computed(() => props.room.removedBytes + props.room.emptyBytes)
const isWorthwhile = computed(() => props.room.removed > 0 || props.room.emptyBytes > worthwhileBytes)
const removed = computed(() => some(props.room.removed, 'removed recording'))
function answer() {
  isAsked.value = false
  emit('free', props.room.removed)
}
</script>

<template>
  <div class="room">
    <p v-if="room.sparedBytes > 0" class="soft small">
      {{
        `${some(room.files, 'sensor file')}, each kept once however many runs it is on; that spares ${sizeWords(room.sparedBytes)}.`
      }}
    </p>
    <template v-if="isWorthwhile">
      <p v-if="room.removed">
        {{
          `${removed} still ${room.removed === 1 ? 'takes' : 'take'} ${sizeWords(room.removedBytes)}, so that ${room.removed === 1 ? 'it' : 'they'} can be brought back.`
        }}
      </p>
      <div v-if="isAsked" class="sure" role="group" aria-label="Free room in the data file">
        <p v-if="room.removed">
          {{
            `${removed} ${room.removed === 1 ? 'is' : 'are'} then gone for good, with ${room.removed === 1 ? 'its sensor file' : 'their sensor files'}: nobody can bring ${room.removed === 1 ? 'it' : 'them'} back, except from a safe copy. Removed runs and days stay on the shelf, without ${room.removed === 1 ? 'it' : 'them'}.`
          }}
        </p>
        <p v-else>Nothing is lost: the data file is written anew without its empty room.</p>
        <BButton :variant="room.removed ? 'danger' : 'primary'" :disabled="busy" @click="answer">{{
          `Free ${sizeWords(canFree)}`
        }}</BButton>
        <button type="button" class="btn btn-plain" @click="isAsked = false">Keep all as it is</button>
      </div>
      <button v-else type="button" class="btn btn-plain" :disabled="busy" @click="isAsked = true">
        {{ `Free ${sizeWords(canFree)} …` }}
      </button>
    </template>
  </div>
</template>

<style scoped>
.room {
  margin-top: 0.7rem;
}
.room > p {
  margin: 0 0 0.4rem;
}
.sure {
  display: flex;
  flex-wrap: wrap;
  gap: 0.5rem;
  padding: 0.6rem 0.8rem;
  border-left: 4px solid var(--rust);
}
.sure p {
  flex-basis: 100%;
  margin: 0;
}
</style>
