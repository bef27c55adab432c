<script setup lang="ts">
import { TrackChange, type HourLine } from '#contract/hour'
import { clockWords } from '../../support/dates.ts'
import { trackWords } from '../../support/hourWords.ts'
import { groundOptions } from '../../support/words.ts'
import NumberField from '../shell/NumberField.vue'

/** What a line of the log by the hour may say. What is left empty is not noted. */
const props = defineProps<{
  /** Date that the log is of; its clock is that of this device. */
  date: string
  faultOf: (path: string) => string | null
}>()
const line = defineModel<HourLine>({ required: true })
const toggle = (t: TrackChange) =>
  (line.value.track = line.value.track.includes(t)
    ? line.value.track.filter((x) => x !== t)
    : [...line.value.track, t])
/** A clock that is only half typed says nothing yet. */
const since = (clock: string) =>
  (line.value.at = /^\d\d:\d\d$/.test(clock) ? new Date(`${props.date}T${clock}:00`).toISOString() : '')
</script>

<template>
  <div>
    <label class="form-label" for="hour-since">Since</label>
    <BFormInput
      id="hour-since"
      type="time"
      :model-value="line.at && clockWords(line.at)"
      @update:model-value="(v) => since(String(v))"
    />
    <p v-if="faultOf('at')" class="fault" role="alert">Say since when, for example 12:30.</p>
  </div>
  <NumberField v-model="line.airTempC" label="Air" quantity="temperature" :fault="faultOf('airTempC')" />
  <NumberField v-model="line.altitudeM" label="Altitude" quantity="altitude" :fault="faultOf('altitudeM')" />
  <div>
    <label class="form-label" for="hour-surface">Ground</label>
    <BFormSelect id="hour-surface" v-model="line.surface" :options="groundOptions" />
  </div>
  <fieldset class="wide">
    <legend class="form-label">The track is</legend>
    <button
      v-for="t in TrackChange.options"
      :key="t"
      type="button"
      class="btn btn-plain"
      :aria-pressed="line.track.includes(t)"
      @click="toggle(t)"
    >
      {{ trackWords[t] }}
    </button>
  </fieldset>
  <div class="wide">
    <label class="form-label" for="hour-note">Note</label>
    <BFormInput id="hour-note" v-model="line.note" autocomplete="off" />
  </div>
</template>

<style scoped>
fieldset {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
legend {
  float: none;
}
[aria-pressed='true'] {
  background: var(--pine);
  color: var(--pine-ink);
}
</style>
