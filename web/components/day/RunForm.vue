<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { Run, type Effort } from '#contract/run'
import { useUnits } from '../../composables/useUnits.ts'
import { toFault } from '../../support/toFault.ts'
import { keepDraft, readDraft } from '../../support/drafts.ts'
import { effortWords, mindWords, optionsOf, runKindWords, surfaceWords } from '../../support/words.ts'
import NumberField from '../shell/NumberField.vue'
import DialogFrame from '../shell/DialogFrame.vue'

const props = defineProps<{
  number: number
  previous: Run | null
  /** The bike's own tyre pressures, psi. */
  tyresPsi: { front: number | null; rear: number | null }
  /** Air and height as they were noted last. */
  air: { airTempC: number | null; altitudeM: number | null }
  run: Run
  hasRear: boolean
  frontStrokeMm: number | null
  rearStrokeMm: number | null
  save: (run: Run) => Promise<boolean>
}>()
const open = defineModel<boolean>('open', { required: true })

const draftKey = computed(() => `run:${props.run.id}`)
const form = ref<Run>({ ...props.run })
const fault = ref<{ path: string; message: string } | null>(null)
const busy = ref(false)
const kinds = optionsOf(runKindWords)
const minds = optionsOf(mindWords)
const efforts = optionsOf(effortWords)
const grounds = [{ value: null, text: 'as on the rest of the day' }, ...optionsOf(surfaceWords)]
const voidWords = ['crash', 'stopped', 'puncture', 'held up', 'wrong line']

watch(
  open,
  (is) => {
    if (!is) return
    const draft = readDraft<Run>(draftKey.value)
    form.value = draft && draft.version === props.run.version ? draft : { ...props.run }
    fault.value = null
  },
  { immediate: true },
)
/** A run that was only just logged is confirmed while its form is open: the same run under a newer version. */
const content = (r: Run) => JSON.stringify({ ...r, version: 0 })
watch(
  () => props.run,
  (now, before) => {
    if (open.value && now.id === before.id && content(now) === content(before))
      form.value = { ...form.value, version: now.version }
  },
)
watch(form, (f) => open.value && keepDraft(draftKey.value, f), { deep: true })

const { say } = useUnits()
/** What was read before, or belongs to the bike: told, and taken over only by a tap. */
const tyreSource = computed(() => {
  const { previous: p, tyresPsi: own } = props
  if (p && (p.tyreFrontPsi !== null || p.tyreRearPsi !== null))
    return { front: p.tyreFrontPsi, rear: p.tyreRearPsi, what: 'as on the run before' }
  return own.front !== null || own.rear !== null ? { ...own, what: 'the bike’s own' } : null
})
const tyreWords = computed(() => {
  const t = tyreSource.value
  const each = (psi: number | null) => (psi === null ? '?' : say('pressure', psi))
  return t ? `Measured: ${t.what}, ${each(t.front)} / ${each(t.rear)}` : ''
})
function takeTyres() {
  const t = tyreSource.value
  if (t) form.value = { ...form.value, tyreFrontPsi: t.front, tyreRearPsi: t.rear }
}
const airHint = computed(() =>
  props.air.airTempC === null ? '' : `so far ${say('temperature', props.air.airTempC)}`,
)
const heightHint = computed(() =>
  props.air.altitudeM === null ? '' : `so far ${say('altitude', props.air.altitudeM)}`,
)
const pushed = (e: Effort) => (form.value.effort = form.value.effort === e ? null : e)
async function submit() {
  const clean: Run = { ...form.value, voidReason: form.value.kind === 'void' ? form.value.voidReason : null }
  const result = Run.safeParse(clean)
  if (!result.success) {
    const issue = result.error.issues[0]
    fault.value = { path: issue.path.join('.'), message: issue.message }
    return toFault(document.querySelector('.modal.show form') ?? document)
  }
  for (const [path, mm, stroke] of [
    ['ringFrontMm', clean.ringFrontMm, props.frontStrokeMm],
    ['ringRearMm', clean.ringRearMm, props.rearStrokeMm],
  ] as const) {
    if (mm !== null && stroke !== null && mm > stroke) {
      fault.value = {
        path,
        message: `${say('length', mm)} is longer than the ${say('length', stroke)} this unit has; measure from wiper to ring.`,
      }
      return
    }
  }
  fault.value = null
  busy.value = true
  const ok = await props.save(result.data)
  busy.value = false
  if (ok) {
    keepDraft(draftKey.value, null)
    open.value = false
  }
}
/** Enter on a choice chooses; it never saves a form that nobody has finished. */
function notOnChoice(e: KeyboardEvent) {
  if (e.target instanceof HTMLInputElement && (e.target.type === 'radio' || e.target.type === 'checkbox'))
    e.preventDefault()
}
const faultOf = (path: string) => (fault.value?.path === path ? fault.value.message : null)
</script>

<template>
  <DialogFrame v-model:open="open" :title="`Run ${number}`" size="lg">
    <form class="field-grid" @submit.prevent="submit" @keydown.enter="notOnChoice">
      <fieldset class="wide pills">
        <legend class="form-label">What kind of run</legend>
        <label v-for="k in kinds" :key="k.value" :class="{ on: form.kind === k.value }"
          ><input v-model="form.kind" type="radio" class="visually-hidden" :value="k.value" />{{
            k.text
          }}</label
        >
        <span class="soft small">{{
          form.kind === 'warm-up'
            ? 'For nerves and lines; nobody judges it.'
            : form.kind === 'void'
              ? 'Kept, but never counts.'
              : 'Counts for every comparison.'
        }}</span>
      </fieldset>
      <div v-if="form.kind === 'void'" class="wide">
        <label class="form-label" for="void-why">Why</label>
        <BFormInput
          id="void-why"
          v-model="form.voidReason"
          list="void-words"
          placeholder="crash, puncture …"
          :state="faultOf('voidReason') ? false : null"
        />
        <datalist id="void-words"><option v-for="w in voidWords" :key="w" :value="w" /></datalist>
        <p v-if="faultOf('voidReason')" class="fault" role="alert">{{ faultOf('voidReason') }}</p>
      </div>
      <fieldset class="wide pills">
        <legend class="form-label">State of mind</legend>
        <label v-for="m in minds" :key="m.value" :class="{ on: form.mind === m.value }"
          ><input v-model="form.mind" type="radio" class="visually-hidden" :value="m.value" />{{
            m.text
          }}</label
        >
      </fieldset>
      <div class="wide pills" role="group" aria-labelledby="run-effort">
        <span id="run-effort" class="form-label">How hard it was ridden</span>
        <button
          v-for="e in efforts"
          :key="e.value"
          type="button"
          :class="{ on: form.effort === e.value }"
          :aria-pressed="form.effort === e.value"
          @click="pushed(e.value)"
        >
          {{ e.text }}
        </button>
        <span class="soft small">A ring at full travel means more on a careful run than all out.</span>
      </div>
      <NumberField
        v-model="form.ringFrontMm"
        label="Front ring, deepest"
        quantity="length"
        :fault="faultOf('ringFrontMm')"
        hint="wiper to ring edge"
      />
      <NumberField
        v-if="hasRear"
        v-model="form.ringRearMm"
        label="Rear ring, deepest"
        quantity="length"
        :fault="faultOf('ringRearMm')"
        hint="on the shock shaft"
      />
      <NumberField
        v-model="form.heardBottomsFront"
        label="Bottomed, front"
        :fault="faultOf('heardBottomsFront')"
        hint="times, by ear; 0 if none was heard"
      />
      <NumberField
        v-if="hasRear"
        v-model="form.heardBottomsRear"
        label="Bottomed, rear"
        :fault="faultOf('heardBottomsRear')"
        hint="times; empty if nobody counted"
      />
      <NumberField
        v-model="form.tyreFrontPsi"
        label="Front tyre"
        quantity="pressure"
        :fault="faultOf('tyreFrontPsi')"
      />
      <NumberField
        v-model="form.tyreRearPsi"
        label="Rear tyre"
        quantity="pressure"
        :fault="faultOf('tyreRearPsi')"
      />
      <div v-if="tyreWords" class="fill">
        <button type="button" class="btn btn-plain" @click="takeTyres">{{ tyreWords }}</button>
      </div>
      <NumberField v-model="form.durationS" label="Time" unit="s" :fault="faultOf('durationS')" />
      <NumberField
        v-model="form.airTempC"
        label="Air at this run"
        quantity="temperature"
        :fault="faultOf('airTempC')"
        :hint="airHint"
      />
      <NumberField
        v-model="form.altitudeM"
        label="Altitude at this run"
        quantity="altitude"
        :fault="faultOf('altitudeM')"
        :hint="heightHint"
      />
      <div>
        <label class="form-label" for="run-ground">Surface</label>
        <BFormSelect id="run-ground" v-model="form.surface" :options="grounds" />
      </div>
      <div class="wide">
        <label class="form-label" for="run-note">Mistakes, weather, other changes</label>
        <BFormTextarea id="run-note" v-model="form.note" rows="2" />
      </div>
      <p v-if="fault && !fault.path" class="fault wide" role="alert">{{ fault.message }}</p>
      <div class="wide acts">
        <BButton type="submit" variant="primary" :disabled="busy">Save the run</BButton>
        <BButton variant="plain" @click="open = false">Cancel</BButton>
      </div>
    </form>
  </DialogFrame>
</template>

<style scoped>
fieldset {
  border: 0;
  padding: 0;
  margin: 0;
}
.pills {
  display: flex;
  flex-wrap: wrap;
  gap: 0.4rem;
  align-items: center;
}
.pills legend,
.pills .form-label {
  font: inherit;
  font-weight: 600;
  margin: 0;
  flex-basis: 100%;
}
.pills button,
.pills label {
  background: none;
  color: inherit;
  border: 1px solid var(--line);
  border-radius: 10px;
  min-height: var(--touch);
  padding: 0 0.9rem;
  display: inline-flex;
  align-items: center;
  cursor: pointer;
}
.pills button.on,
.pills label.on {
  background: #23483c;
  border-color: #23483c;
  color: #fdfaf2;
  font-weight: 600;
}
.pills label:focus-within {
  outline: 3px solid var(--sun);
}
.field-grid {
  grid-template-columns: repeat(auto-fill, minmax(150px, 1fr));
}
.fill {
  grid-column: span 2;
  align-self: end;
}
@media (max-width: 720px) {
  .fill {
    grid-column: 1 / -1;
  }
}
.acts {
  display: flex;
  gap: 0.5rem;
}
.fault {
  color: var(--rust);
  margin: 0.2rem 0 0;
  font-weight: 600;
}
</style>
