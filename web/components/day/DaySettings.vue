<script setup lang="ts">
import { ref, watch } from 'vue'
import { useRouter } from 'vue-router'
import { TrailDay } from '#contract/day'
import { apiBase } from '../../api/client.ts'
import { useUnits } from '../../composables/useUnits.ts'
import { useDay } from '../../stores/day.ts'
import { useOutbox } from '../../stores/outbox.ts'
import { useNotices } from '../../stores/notices.ts'
import { groundOptions, optionsOf, purposeWords } from '../../support/words.ts'
import NumberField from '../shell/NumberField.vue'
import DialogFrame from '../shell/DialogFrame.vue'

const open = defineModel<boolean>('open', { required: true })
const day = useDay()
const notices = useNotices()
const outbox = useOutbox()
const router = useRouter()
const { say } = useUnits()
type Fields = Pick<TrailDay, 'purpose' | 'blind' | 'changeLimit' | 'conditions'>
const blank = (): Fields => ({
  purpose: 'testing',
  blind: false,
  changeLimit: 8,
  conditions: { airTempC: null, altitudeM: null, surface: null },
})
const form = ref(blank())
/** As it stood when it was opened: only what is typed here is saved, over whatever others changed meanwhile. */
let opened = blank()
const fault = ref('')
const busy = ref(false)

watch(
  open,
  (is) => {
    const d = day.bundle?.day
    if (!is || !d) return
    form.value = {
      purpose: d.purpose,
      blind: d.blind,
      changeLimit: d.changeLimit,
      conditions: { ...d.conditions },
    }
    opened = { ...form.value, conditions: { ...form.value.conditions } }
    fault.value = ''
  },
  { immediate: true },
)
const typedIn = <T extends object>(now: T, before: T): Partial<T> =>
  Object.fromEntries(
    Object.entries(now).filter(([k, v]) => v !== before[k as keyof T]),
  ) as unknown as Partial<T>
/** Away with it, to Today; the notice brings it back. */
async function remove() {
  const id = day.bundle!.day.id
  if (!(await notices.attempt(() => outbox.remove('day', id)))) return
  open.value = false
  await router.push({ name: 'today' })
  notices.show('The day was removed.', 'done', () => outbox.restore('day', id))
}
async function save() {
  const fields = { purpose: true, blind: true, changeLimit: true, conditions: true } as const
  const result = TrailDay.pick(fields).safeParse(form.value)
  if (!result.success) {
    const at = result.error.issues[0].path.at(-1)
    return (fault.value =
      at === 'airTempC'
        ? `Air temperature is a number from ${say('temperature', -30)} to ${say('temperature', 50)}.`
        : at === 'altitudeM'
          ? `Altitude is a number from ${say('altitude', -430)} to ${say('altitude', 6000)}.`
          : 'The limit is a whole number of changes from 1 to 30.')
  }
  const { conditions, ...plain } = result.data
  const { conditions: before, ...plainBefore } = opened
  busy.value = true
  const ok = await notices.attempt(() =>
    day.editDay({
      ...typedIn(plain, plainBefore),
      conditions: { ...day.bundle!.day.conditions, ...typedIn(conditions, before) },
    }),
  )
  busy.value = false
  if (ok) open.value = false
}
/** What is on the server; what waits to be sent is not in them. */
const files = ['runs.csv', 'changes.csv', 'day.json']
</script>

<template>
  <DialogFrame v-model:open="open" title="This day">
    <form class="field-grid" novalidate @submit.prevent="save">
      <div class="wide">
        <label class="form-label" for="day-purpose">What it is for</label>
        <BFormSelect id="day-purpose" v-model="form.purpose" :options="optionsOf(purposeWords)" />
        <p class="soft small">
          On race day nothing new is tried: only heat, cold and a step back to what is known are proposed.
        </p>
      </div>
      <div class="wide">
        <label class="check">
          <input v-model="form.blind" type="checkbox" class="form-check-input" />
          The rider judges blind
        </label>
        <p class="soft small">
          Settings, changes and sensor data stay covered until the feel of the last run is in.
        </p>
      </div>
      <NumberField v-model="form.conditions.airTempC" label="Air when it began" quantity="temperature" />
      <NumberField v-model="form.conditions.altitudeM" label="Altitude" quantity="altitude" />
      <div>
        <label class="form-label" for="day-ground">Surface</label>
        <BFormSelect id="day-ground" v-model="form.conditions.surface" :options="groundOptions" />
      </div>
      <div>
        <label class="form-label" for="day-limit">Changes at most</label>
        <input
          id="day-limit"
          v-model.number="form.changeLimit"
          type="number"
          min="1"
          max="30"
          class="form-control num"
        />
      </div>
      <p v-if="!day.covered" class="wide files">
        <span class="soft small">As files:</span>
        <a
          v-for="f in files"
          :key="f"
          class="btn btn-plain btn-sm"
          :href="`${apiBase}/days/${day.bundle!.day.id}/${f}`"
          download
          >{{ f }}</a
        >
        <RouterLink class="btn btn-plain btn-sm" :to="`/data?of=day:${day.bundle!.day.id}#take-along`"
          >whole, to take along …</RouterLink
        >
      </p>
      <p v-if="fault" class="fault wide" role="alert">{{ fault }}</p>
      <div class="wide acts">
        <BButton type="submit" variant="primary" :disabled="busy">Save</BButton>
        <button type="button" class="btn soft" @click="remove">Remove this day</button>
      </div>
    </form>
  </DialogFrame>
</template>

<style scoped>
.acts {
  display: flex;
  justify-content: space-between;
  gap: 0.6rem;
}
form p.soft {
  margin: 0.3rem 0 0;
}
.files {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 0.5rem;
}
.check {
  display: flex;
  gap: 0.5rem;
  align-items: center;
  min-height: var(--touch);
}
</style>
