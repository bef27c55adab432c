<script setup lang="ts">
import { computed } from 'vue'
import { v7 as uuid } from 'uuid'
import type { Adjuster } from '#contract/adjuster'
import type { Bike } from '#contract/bike'
import type { Setup } from '#contract/setup'
import IconCaution from '~icons/lucide/triangle-alert'
import { adjusterName } from '#core/adjusters/words'
import { readBy } from '#core/setup/known'
import { useReadOff } from '../../composables/useReadOff.ts'
import { useWho } from '../../composables/useWho.ts'
import { useUnits } from '../../composables/useUnits.ts'
import { useGarage } from '../../stores/garage.ts'
import { useNotices } from '../../stores/notices.ts'
import { dateTimeWords } from '../../support/dates.ts'
import { oneAtATime } from '../../support/oneAtATime.ts'
import { pressureFault } from '../../support/pressureFault.ts'
import ClickRail from '../day/ClickRail.vue'
import EndMark from '../shell/EndMark.vue'
import NumberField from '../shell/NumberField.vue'
import DialogFrame from '../shell/DialogFrame.vue'

const props = defineProps<{ bike: Bike }>()
const open = defineModel<boolean>('open', { required: true })
const garage = useGarage()
const notices = useNotices()
const { say, units: choice } = useUnits()
const { who } = useWho()
const units = computed(() => garage.unitsOf(props.bike))

const held = computed(() => garage.currentSetup(props.bike.id))
const { read, overtaken, choose, takeBack, clear } = useReadOff(open, () => ({
  bikeId: props.bike.id,
  positions: held.value?.positions ?? [],
}))
const at = (a: Adjuster) => held.value?.positions.find((p) => p.adjusterId === a.id)
/** What is read here and now, as it will be written down. */
const readNow = (id: string) => {
  const now = read.value.get(id)
  return now ? readBy({ at: now.at, by: who.value }, 'read off the bike') : null
}
/** As read now, else as it is known; null = nobody has read it. */
const valueOf = (a: Adjuster) => read.value.get(a.id)?.value ?? at(a)?.value ?? null
/** What is typed and cannot be; a part that was not touched is not looked at. */
const faultOf = (a: Adjuster) =>
  a.kind === 'pressure' && read.value.has(a.id)
    ? pressureFault(read.value.get(a.id)!.value, a, choice.value)
    : null
const ready = computed(
  () => read.value.size > 0 && !units.value.some((u) => u.adjusters.some((a) => faultOf(a) !== null)),
)
const save = oneAtATime(async () => {
  const { bike } = props
  // What was not touched stays as it was known, or unread: an empty field is no reading.
  const positions = units.value.flatMap((u) =>
    u.adjusters.flatMap((a) => {
      const now = read.value.get(a.id)
      const before = at(a)
      return now
        ? [{ end: u.end, adjusterId: a.id, value: now.value, known: readNow(a.id)! }]
        : before
          ? [before]
          : []
    }),
  )
  const setup: Setup = {
    id: uuid(),
    bikeId: bike.id,
    parentId: held.value?.id ?? null,
    dayId: null,
    madeAt: new Date().toISOString(),
    name: null,
    frontUnitId: bike.frontUnitId,
    rearUnitId: bike.rearUnitId,
    positions,
    reason: {
      text: 'Read off the bike',
      source: 'reading',
      linked: true,
      proposalId: null,
      undoes: null,
      fromSetupId: null,
    },
    foundIn: null,
    wanted: false,
  }
  if (!(await notices.attempt(() => garage.saveSetup(setup)))) return
  clear()
  open.value = false
})
</script>

<template>
  <DialogFrame v-model:open="open" :title="`${bike.name}: where everything stands`" size="lg">
    <p class="caution">
      <IconCaution aria-hidden="true" /><span
        >To read a dial safely: close it gently to the stop counting the clicks, that is where it was; then
        open it again by the same count. Never force the stop.</span
      >
    </p>
    <template v-for="u in units" :key="u.id">
      <h3 class="unit"><EndMark :end="u.end" /> {{ u.end === 'front' ? 'Front' : 'Rear' }}, {{ u.name }}</h3>
      <template v-for="a in u.adjusters" :key="a.id">
        <NumberField
          v-if="a.kind === 'pressure'"
          :model-value="valueOf(a)"
          label="Pressure"
          quantity="pressure"
          :hint="
            valueOf(a) === null ? 'not read' : `${say('pressure', a.minPsi)} to ${say('pressure', a.maxPsi)}`
          "
          :fault="faultOf(a)"
          class="psi"
          @update:model-value="(v) => (v === null ? takeBack(a.id) : choose(a.id, v))"
        />
        <ClickRail
          v-else
          :end="u.end"
          :adjuster="a"
          :value="valueOf(a)"
          :known="readNow(a.id) ?? at(a)?.known ?? null"
          @choose="(v) => choose(a.id, v)"
        />
        <button
          v-if="read.has(a.id)"
          type="button"
          class="btn btn-plain back"
          :aria-label="`Not read after all: ${u.end} ${adjusterName(a)}`"
          @click="takeBack(a.id)"
        >
          Not read after all
        </button>
      </template>
    </template>
    <p v-if="overtaken.length" class="caution mt-3">
      {{
        `${overtaken.length === 1 ? 'One reading' : `${overtaken.length} readings`} of ${dateTimeWords(overtaken[0].at)} ${overtaken.length === 1 ? 'is' : 'are'} left out: turned or read again since. Read what you want to say anew.`
      }}
    </p>
    <p class="soft small">
      Only what you read here is written down; what you leave stays as it is known, or unread.
    </p>
    <div class="acts">
      <BButton variant="primary" :disabled="!ready" @click="save">Save what was read</BButton>
    </div>
  </DialogFrame>
</template>

<style scoped>
.unit {
  margin: 0.9rem 0 0.3rem;
}
.psi {
  max-width: 220px;
  margin-bottom: 0.3rem;
}
.back {
  min-height: 44px;
  margin: 0.3rem 0 0.5rem;
}
.acts {
  margin-top: 1rem;
}
</style>
