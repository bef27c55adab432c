<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { v7 as uuid } from 'uuid'
import { Run } from '#contract/run'
import { useUnits } from '../../composables/useUnits.ts'
import { keepDraft, readDraft } from '../../support/drafts.ts'
import { mindWords, optionsOf, runKindWords, surfaceWords } from '../../support/words.ts'
import NumberField from '../shell/NumberField.vue'

const props = defineProps<{
  dayId: string
  setupId: string
  number: number
  previous: Run | null
  editing: Run | null
  hasRear: boolean
  frontStrokeMm: number | null
  rearStrokeMm: number | null
  save: (run: Run) => Promise<boolean>
}>()
const open = defineModel<boolean>('open', { required: true })

const draftKey = computed(() => `run:${props.editing?.id ?? props.dayId}`)
const form = ref<Run>(fresh())
const fault = ref<{ path: string; message: string } | null>(null)
const busy = ref(false)
const kinds = optionsOf(runKindWords)
const minds = optionsOf(mindWords)
const grounds = [{ value: null, text: 'as on the rest of the day' }, ...optionsOf(surfaceWords)]
const voidWords = ['crash', 'stopped', 'puncture', 'held up', 'wrong line']

function fresh(): Run {
  if (props.editing) return { ...props.editing }
  return {
    id: uuid(),
    version: 0,
    dayId: props.dayId,
    setupId: props.setupId,
    startedAt: new Date().toISOString(),
    kind: props.number === 1 ? 'warm-up' : 'counted',
    voidReason: null,
    durationS: null,
    mind: 'normal',
    ringFrontMm: null,
    ringRearMm: null,
    tyreFrontPsi: props.previous?.tyreFrontPsi ?? null,
    tyreRearPsi: props.previous?.tyreRearPsi ?? null,
    surface: props.previous?.surface ?? null,
    note: '',
  }
}
watch(open, (is) => {
  if (!is) return
  const draft = readDraft<Run>(draftKey.value)
  form.value =
    draft && draft.version === (props.editing?.version ?? 0)
      ? { ...draft, setupId: props.editing?.setupId ?? props.setupId }
      : fresh()
  fault.value = null
})
watch(form, (f) => open.value && keepDraft(draftKey.value, f), { deep: true })

const { say } = useUnits()
async function submit() {
  const clean: Run = { ...form.value, voidReason: form.value.kind === 'void' ? form.value.voidReason : null }
  const result = Run.safeParse(clean)
  if (!result.success) {
    const issue = result.error.issues[0]
    fault.value = { path: issue.path.join('.'), message: issue.message }
    return
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
const faultOf = (path: string) => (fault.value?.path === path ? fault.value.message : null)
</script>

<template>
  <BModal
    v-model="open"
    lazy
    unmount-lazy
    no-animation
    :title="editing ? `Run ${number}` : `Log run ${number}`"
    no-footer
    size="lg"
  >
    <form class="field-grid" @submit.prevent="submit">
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
      <NumberField
        v-model="form.ringFrontMm"
        label="Front ring, deepest"
        quantity="length"
        :fault="faultOf('ringFrontMm')"
        hint="wiper to ring edge, after the run"
      />
      <NumberField
        v-if="hasRear"
        v-model="form.ringRearMm"
        label="Rear ring, deepest"
        quantity="length"
        :fault="faultOf('ringRearMm')"
        hint="on the shock shaft"
      />
      <NumberField v-model="form.durationS" label="Time" unit="s" :fault="faultOf('durationS')" />
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
      <div>
        <label class="form-label" for="run-ground">Ground</label>
        <BFormSelect id="run-ground" v-model="form.surface" :options="grounds" />
      </div>
      <div class="wide">
        <label class="form-label" for="run-note">Mistakes, weather, other changes</label>
        <BFormTextarea id="run-note" v-model="form.note" rows="2" />
      </div>
      <p v-if="fault && !fault.path" class="fault wide" role="alert">{{ fault.message }}</p>
      <div class="wide acts">
        <BButton type="submit" variant="primary" :disabled="busy">{{
          editing ? 'Save the run' : `Log run ${number}`
        }}</BButton>
        <BButton variant="plain" @click="open = false">Not now</BButton>
      </div>
    </form>
  </BModal>
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
.pills legend {
  flex-basis: 100%;
}
.pills label {
  border: 1px solid var(--line);
  border-radius: 10px;
  min-height: var(--touch);
  padding: 0 0.9rem;
  display: inline-flex;
  align-items: center;
  cursor: pointer;
}
.pills label.on {
  background: #23483c;
  border-color: #23483c;
  color: #fdfaf2;
  font-weight: 600;
}
.pills label:focus-within {
  outline: 3px solid var(--sun);
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
