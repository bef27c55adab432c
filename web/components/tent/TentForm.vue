<script setup lang="ts">
import { computed } from 'vue'
import { v7 as uuid } from 'uuid'
import { Tent, type TrackWindow } from '#contract/tent'
import { useForm } from '../../composables/useForm.ts'
import { useGarage } from '../../stores/garage.ts'
import { useOutbox } from '../../stores/outbox.ts'
import { clockWords, localToday } from '../../support/dates.ts'
import { dayFaultAt } from '../../support/dayFault.ts'
import { windowWords } from '../../support/tentWords.ts'
import { optionsOf } from '../../support/words.ts'
import RecordForm from '../garage/RecordForm.vue'
import TypedPicker from '../shell/TypedPicker.vue'

/** A tent: what it is called, when and where, and when the track is open. */
const props = defineProps<{ editing: Tent | null }>()
const open = defineModel<boolean>('open', { required: true })
const emit = defineEmits<{ saved: [tent: Tent] }>()
const garage = useGarage()
const outbox = useOutbox()
const { form, busy, submit, faultOf, otherFault } = useForm<Tent>({
  schema: Tent,
  key: () => `tent:${props.editing?.id ?? 'new'}`,
  fresh: () =>
    props.editing ?? {
      id: uuid(),
      version: 0,
      name: '',
      date: localToday(),
      trailId: garage.trails[0]?.id ?? '',
      schedule: [],
      note: '',
    },
  open,
  save: async (t, opened) => {
    const done = await outbox.save('tent', t, opened)
    emit('saved', done.state === 'saved' ? done.saved : t)
  },
  check: (t) => dayFaultAt('date', t.date, { ahead: 400 }),
})
const trails = computed(() =>
  garage.trails.map((t) => ({ value: t.id, text: t.place ? `${t.name}, ${t.place}` : t.name })),
)
const isDay = (date: string) => /^\d{4}-\d\d-\d\d$/.test(date)
/** A time of the clock on the date of the tent; while that is being typed, on today's. */
const instant = (clock: string) =>
  new Date(`${isDay(form.value.date) ? form.value.date : localToday()}T${clock}:00`).toISOString()
function change(i: number, part: 'from' | 'to', clock: string) {
  if (/^\d\d:\d\d$/.test(clock))
    form.value.schedule = form.value.schedule.map((w, at) =>
      at === i ? { ...w, [part]: instant(clock) } : w,
    )
}
/** On another date the clock says the same. */
function moveTo(date: string) {
  const clocks = form.value.schedule.map((w) => ({
    ...w,
    from: clockWords(Date.parse(w.from)),
    to: clockWords(Date.parse(w.to)),
  }))
  form.value.date = date
  if (isDay(date))
    form.value.schedule = clocks.map((w) => ({ ...w, from: instant(w.from), to: instant(w.to) }))
}
const add = () =>
  form.value.schedule.push({ kind: 'practice', from: instant('09:00'), to: instant('12:00') } as TrackWindow)
const clockAt = (iso: string) => clockWords(Date.parse(iso))
const shown = ['name', 'date', ...Array.from({ length: 16 }, (_, i) => `schedule.${i}.to`)]
</script>

<template>
  <RecordForm
    v-model:open="open"
    :title="editing ? 'About this tent' : 'New tent'"
    save-label="Save the tent"
    :busy="busy"
    :fault="otherFault(shown)"
    @submit="submit"
  >
    <div>
      <label class="form-label" for="tent-name">Name</label>
      <BFormInput id="tent-name" v-model="form.name" placeholder="Saturday practice" autocomplete="off" />
      <p v-if="faultOf('name')" class="fault" role="alert">{{ faultOf('name') }}</p>
    </div>
    <div>
      <label class="form-label" for="tent-date">Date</label>
      <BFormInput
        id="tent-date"
        :model-value="form.date"
        type="date"
        @update:model-value="(v) => moveTo(String(v))"
      />
      <p v-if="faultOf('date')" class="fault" role="alert">
        {{ form.date ? faultOf('date') : 'Give the day.' }}
      </p>
    </div>
    <TypedPicker v-model="form.trailId" class="wide" label="Trail" :options="trails" />
    <fieldset class="wide">
      <legend class="form-label">When the track is open</legend>
      <div v-for="(w, i) in form.schedule" :key="i" class="stretch">
        <label class="form-label"
          >Stretch {{ i + 1 }}<BFormSelect v-model="w.kind" :options="optionsOf(windowWords)"
        /></label>
        <label class="form-label"
          >from<BFormInput
            type="time"
            :model-value="clockAt(w.from)"
            @update:model-value="(v) => change(i, 'from', String(v))"
        /></label>
        <label class="form-label"
          >to<BFormInput
            type="time"
            :model-value="clockAt(w.to)"
            @update:model-value="(v) => change(i, 'to', String(v))"
        /></label>
        <BButton variant="plain" @click="form.schedule.splice(i, 1)">Take it out</BButton>
        <p v-if="faultOf(`schedule.${i}.to`)" class="fault" role="alert">{{ faultOf(`schedule.${i}.to`) }}</p>
      </div>
      <BButton variant="plain" @click="add">Add a stretch</BButton>
    </fieldset>
  </RecordForm>
</template>

<style scoped>
.stretch {
  display: flex;
  flex-wrap: wrap;
  gap: 0.5rem;
  align-items: end;
  margin-bottom: 0.4rem;
}
.stretch label {
  margin: 0;
}
.stretch .fault {
  flex-basis: 100%;
}
</style>
