<script setup lang="ts">
import { computed } from 'vue'
import { v7 as uuid } from 'uuid'
import { z } from 'zod'
import { hourParts, sayAtLeast, saysSomething, type HourLine } from '#contract/hour'
import { useForm } from '../../composables/useForm.ts'
import { useDay } from '../../stores/day.ts'
import { useNotices } from '../../stores/notices.ts'
import { localToday, shortDayWords } from '../../support/dates.ts'
import { nothingSaid } from '../../support/hourWords.ts'
import RecordForm from '../garage/RecordForm.vue'
import HourFields from '../hours/HourFields.vue'
import HoursBefore from '../hours/HoursBefore.vue'

/** A line of this day's own log by the hour, and the lines before it. */
const open = defineModel<boolean>('open', { required: true })
const day = useDay()
const notices = useNotices()
const date = computed(() => day.bundle!.day.date)
const title = computed(() =>
  date.value === localToday() ? 'How it is now' : `How it was, ${shortDayWords(date.value)}`,
)
/** A line is part of its day and has no version of its own. */
const Line = z
  .strictObject({ ...hourParts, version: z.literal(0) })
  .refine(saysSomething, { error: sayAtLeast })
const { form, busy, submit, faultOf, otherFault } = useForm<z.infer<typeof Line>>({
  schema: Line,
  key: () => `day-hour:${day.bundle!.day.id}`,
  fresh: () => ({ id: uuid(), version: 0, ...nothingSaid(date.value) }),
  open,
  save: ({ version: _none, ...line }) => add(line),
})
const add = (line: HourLine) => day.editHours((hours) => [...hours.filter((h) => h.id !== line.id), line])
async function remove(line: HourLine) {
  if (await notices.attempt(() => day.editHours((hours) => hours.filter((h) => h.id !== line.id))))
    notices.show('The line was removed.', 'done', () => add(line), day.bundle!.day.id)
}
</script>

<template>
  <RecordForm
    v-model:open="open"
    :title="title"
    save-label="Note it"
    :busy="busy"
    :fault="otherFault(['at', 'airTempC', 'altitudeM'])"
    @submit="submit"
  >
    <p class="wide soft small hint">
      Holds for every run from then on, until something else is noted here or at a run.
    </p>
    <HourFields v-model="form" :date="date" :fault-of="faultOf" />
    <HoursBefore :hours="day.bundle!.day.hours" @remove="remove" />
  </RecordForm>
</template>

<style scoped>
.hint {
  margin: 0;
}
</style>
