<script setup lang="ts">
import { computed } from 'vue'
import { v7 as uuid } from 'uuid'
import { TentHour, TrackChange } from '#contract/tent'
import type { Surface } from '#contract/day'
import { useForm } from '../../composables/useForm.ts'
import { useUnits } from '../../composables/useUnits.ts'
import { useNotices } from '../../stores/notices.ts'
import { useOutbox } from '../../stores/outbox.ts'
import { clockWords } from '../../support/dates.ts'
import { hourWords, trackWords } from '../../support/tentWords.ts'
import { optionsOf, surfaceWords } from '../../support/words.ts'
import RecordForm from '../garage/RecordForm.vue'
import NumberField from '../shell/NumberField.vue'

/** A line of the log by the hour, and the lines before it. What is left empty is not noted. */
const props = defineProps<{ tentId: string; hours: readonly TentHour[] }>()
const open = defineModel<boolean>('open', { required: true })
const outbox = useOutbox()
const notices = useNotices()
const { units } = useUnits()
const { form, busy, submit, faultOf, otherFault } = useForm<TentHour>({
  schema: TentHour,
  key: () => `tent-hour:${props.tentId}`,
  fresh: () => ({
    id: uuid(),
    version: 0,
    tentId: props.tentId,
    at: new Date().toISOString(),
    airTempC: null,
    altitudeM: null,
    surface: null,
    track: [],
    note: '',
  }),
  open,
  save: (h) => outbox.save('tentHour', h),
})
const surfaces: { value: Surface | null; text: string }[] = [
  { value: null, text: 'not noted' },
  ...optionsOf(surfaceWords),
]
const toggle = (t: TrackChange) =>
  (form.value.track = form.value.track.includes(t)
    ? form.value.track.filter((x) => x !== t)
    : [...form.value.track, t])
const before = computed(() =>
  [...props.hours]
    .reverse()
    .map((h) => ({ h, words: `${clockWords(Date.parse(h.at))}: ${hourWords(h, units.value)}` })),
)
async function remove(h: TentHour) {
  if (await notices.attempt(() => outbox.remove('tentHour', h.id)))
    notices.show('The line was removed.', 'done', () => outbox.restore('tentHour', h.id))
}
</script>

<template>
  <RecordForm
    v-model:open="open"
    title="How it is now, for all who ride here"
    save-label="Note it"
    :busy="busy"
    :fault="otherFault(['airTempC', 'altitudeM'])"
    @submit="submit"
  >
    <NumberField v-model="form.airTempC" label="Air" quantity="temperature" :fault="faultOf('airTempC')" />
    <NumberField
      v-model="form.altitudeM"
      label="Altitude"
      quantity="altitude"
      :fault="faultOf('altitudeM')"
    />
    <div>
      <label class="form-label" for="hour-surface">Ground</label>
      <BFormSelect id="hour-surface" v-model="form.surface" :options="surfaces" />
    </div>
    <fieldset class="wide">
      <legend class="form-label">The track is</legend>
      <button
        v-for="t in TrackChange.options"
        :key="t"
        type="button"
        class="btn btn-plain"
        :aria-pressed="form.track.includes(t)"
        @click="toggle(t)"
      >
        {{ trackWords[t] }}
      </button>
    </fieldset>
    <div class="wide">
      <label class="form-label" for="hour-note">Note</label>
      <BFormInput id="hour-note" v-model="form.note" autocomplete="off" />
    </div>
    <ul v-if="before.length" class="wide num" aria-label="Noted before">
      <li v-for="b in before" :key="b.h.id">
        <span>{{ b.words }}</span>
        <button type="button" class="btn btn-sm soft" @click="remove(b.h)">Remove</button>
      </li>
    </ul>
  </RecordForm>
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
ul {
  list-style: none;
  margin: 0;
  padding: 0;
  max-height: 220px;
  overflow-y: auto;
}
li {
  display: flex;
  justify-content: space-between;
  align-items: center;
  border-bottom: 1px solid var(--line);
}
</style>
