<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import type { Adjuster, CountBase } from '#contract/adjuster'
import type { SuspensionUnit } from '#contract/unit'
import { countBaseWords, toCount } from '#core/adjusters/count'
import { recounted } from '#core/adjusters/recount'
import { adjusterName, effectWord } from '#core/adjusters/words'
import { InputError } from '#core/errors'
import { useGarage } from '../../stores/garage.ts'
import { useNotices } from '../../stores/notices.ts'
import CautionList from '../bench/CautionList.vue'
import ChoiceRow from '../bench/ChoiceRow.vue'
import NumberField from '../shell/NumberField.vue'
import DialogFrame from '../shell/DialogFrame.vue'

type Dial = Extract<Adjuster, { kind: 'click' }>

/** The counting ritual: close it counting, open it counting, put it back; then the dial keeps what was counted. */
const props = defineProps<{ unit: SuspensionUnit; dial: Dial }>()
const open = defineModel<boolean>('open', { required: true })
const emit = defineEmits<{ counted: [stoodAt: number] }>()
const garage = useGarage()
const notices = useNotices()

const at = ref(0)
const closing = ref<number | null>(null)
const all = ref<number | null>(null)
const halves = ref<'whole' | 'half'>('whole')
const base = ref<CountBase>('closed-0')
const fault = ref<string | null>(null)
const busy = ref(false)
watch(
  open,
  (is) => {
    if (!is) return
    at.value = 0
    closing.value = all.value = fault.value = null
    halves.value = props.dial.step === 0.5 ? 'half' : 'whole'
    base.value = props.dial.countBase
  },
  { immediate: true },
)
const result = computed(() => {
  if (closing.value === null || all.value === null) return null
  try {
    return recounted(props.dial, {
      closingClicks: closing.value,
      allClicks: all.value,
      step: halves.value === 'half' ? 0.5 : 1,
      countBase: base.value,
    })
  } catch (e) {
    if (e instanceof InputError) return null
    throw e
  }
})
const name = computed(() => adjusterName(props.dial).toLowerCase())
const closedEffect = computed(() => effectWord(props.dial, 1, 0))
const openEffect = computed(() => effectWord(props.dial, 0, 1))
const bases = [
  { value: 'closed-0', text: 'from closed, the stop is 0' },
  { value: 'closed-1', text: 'from closed, the stop is 1' },
  { value: 'open', text: 'from open' },
] as const

function next() {
  fault.value = null
  if (at.value === 1 && (closing.value === null || !(closing.value >= 0))) {
    fault.value = 'Enter how many clicks it took to close; 0 if it was closed.'
    return
  }
  if (at.value === 2) {
    try {
      recounted(props.dial, {
        closingClicks: closing.value ?? NaN,
        allClicks: all.value ?? NaN,
        step: halves.value === 'half' ? 0.5 : 1,
        countBase: base.value,
      })
    } catch (e) {
      if (!(e instanceof InputError)) throw e
      fault.value = e.message
      return
    }
  }
  at.value += 1
}
async function keep() {
  const r = result.value
  if (!r) return
  busy.value = true
  const unit = garage.unit(props.unit.id) ?? props.unit
  const ok = await notices.attempt(() =>
    garage.saveUnit({ ...unit, adjusters: unit.adjusters.map((a) => (a.id === r.dial.id ? r.dial : a)) }),
  )
  busy.value = false
  if (!ok) return
  emit('counted', r.stoodAt)
  open.value = false
}
</script>

<template>
  <DialogFrame v-model:open="open" :title="`Recount: ${unit.end} ${name}`">
    <CautionList :of="['stop']" />
    <form class="ritual" @submit.prevent="at < 3 ? next() : keep()">
      <template v-if="at === 0">
        <ChoiceRow
          v-model="halves"
          label="Does it rest between clicks, too?"
          :options="[
            { value: 'whole', text: 'whole clicks' },
            { value: 'half', text: 'half-clicks' },
          ]"
        />
        <ChoiceRow v-model="base" label="How its maker counts" :options="bases" handbook="differ/count" />
        <BButton type="submit" variant="primary">Begin</BButton>
      </template>
      <template v-else-if="at === 1">
        <p class="say">
          Close it: turn clockwise <b>↻</b> ({{ closedEffect }}) to the stop, gently, counting the clicks.
          That is where it was.
        </p>
        <NumberField v-model="closing" label="Clicks to the closed stop" :fault="fault" />
        <BButton type="submit" variant="primary">It is closed</BButton>
      </template>
      <template v-else-if="at === 2">
        <p class="say">
          Open it: turn counter-clockwise <b>↺</b> ({{ openEffect }}) all the way, counting every click to the
          other stop.
        </p>
        <NumberField v-model="all" label="Clicks from stop to stop" :fault="fault" />
        <BButton type="submit" variant="primary">It is open</BButton>
      </template>
      <template v-else-if="result">
        <p class="say num">
          {{
            `${result.dial.clicks} clicks from stop to stop. Now close it again by ${result.dial.clicks - result.stoodAt}: then it stands where it was.`
          }}
        </p>
        <p class="num">
          {{
            `From now on that place reads “${toCount(result.dial, result.stoodAt)} ${countBaseWords(result.dial)}” everywhere: on the rails, in the log, in every instruction. Closed reads ${toCount(result.dial, 0)}, open reads ${toCount(result.dial, result.dial.clicks)}.`
          }}
        </p>
        <p
          v-if="dial.countBase === 'open' && base === 'open' && dial.clicks !== result.dial.clicks"
          class="soft num"
        >
          {{ `The dial was taken to have ${dial.clicks}. Earlier counts from open stay what was counted.` }}
        </p>
        <BButton type="submit" variant="primary" :disabled="busy">Keep this count</BButton>
      </template>
      <BButton v-if="at > 0" variant="plain" @click="at -= 1">Back</BButton>
    </form>
  </DialogFrame>
</template>

<style scoped>
.ritual {
  display: grid;
  gap: 0.8rem;
  justify-items: start;
}
.say {
  font-size: 1.25rem;
  margin: 0;
  text-wrap: pretty;
}
p {
  margin: 0;
}
</style>
