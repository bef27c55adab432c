<script setup lang="ts">
import { v7 as uuid } from 'uuid'
import { TentHour, type Tent } from '#contract/tent'
import { useForm } from '../../composables/useForm.ts'
import { useNotices } from '../../stores/notices.ts'
import { useOutbox } from '../../stores/outbox.ts'
import { nothingSaid } from '../../support/hourWords.ts'
import RecordForm from '../garage/RecordForm.vue'
import HourFields from '../hours/HourFields.vue'
import HoursBefore from '../hours/HoursBefore.vue'

/** A line of a tent's log by the hour, and the lines before it. */
const props = defineProps<{ tent: Tent; hours: readonly TentHour[] }>()
const open = defineModel<boolean>('open', { required: true })
const outbox = useOutbox()
const notices = useNotices()
const { form, busy, submit, faultOf, otherFault } = useForm<TentHour>({
  schema: TentHour,
  key: () => `tent-hour:${props.tent.id}`,
  fresh: () => ({ id: uuid(), version: 0, tentId: props.tent.id, ...nothingSaid(props.tent.date) }),
  open,
  save: (h, opened) => outbox.save('tentHour', h, opened),
})
async function remove(id: string) {
  if (await notices.attempt(() => outbox.remove('tentHour', id)))
    notices.show('The line was removed.', 'done', () => outbox.restore('tentHour', id))
}
</script>

<template>
  <RecordForm
    v-model:open="open"
    title="How it is now, for all who ride here"
    save-label="Note it"
    :busy="busy"
    :fault="otherFault(['at', 'airTempC', 'altitudeM'])"
    @submit="submit"
  >
    <HourFields v-model="form" :date="tent.date" :fault-of="faultOf" />
    <HoursBefore :hours="hours" @remove="(h) => remove(h.id)" />
  </RecordForm>
</template>
