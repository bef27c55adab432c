<script setup lang="ts">
import { computed, ref } from 'vue'
import { v7 as uuid } from 'uuid'
import type { Bike } from '#contract/bike'
import type { Setup } from '#contract/setup'
import { adjusterName, roleWords } from '#core/adjusters/words'
import { applyProfile } from '#core/carry/profile'
import { ruleShifts, startingRules } from '#core/carry/startingRules'
import { assumed } from '#core/setup/known'
import { useUnits } from '../../composables/useUnits.ts'
import { useGarage } from '../../stores/garage.ts'
import { useNotices } from '../../stores/notices.ts'
import { useOutbox } from '../../stores/outbox.ts'
import type { ComparedSide } from '../../support/setupSides.ts'
import DialogFrame from '../shell/DialogFrame.vue'
import EndMark from '../shell/EndMark.vue'
import TypedPicker from '../shell/TypedPicker.vue'

/** A kept difference, or a rule of thumb, laid on a setup: seen dial by dial, saved as a wish. */
const props = defineProps<{ bike: Bike; base: ComparedSide; setup: Setup }>()
const open = defineModel<boolean>('open', { required: true })
const emit = defineEmits<{ made: [setupId: string] }>()
const garage = useGarage()
const notices = useNotices()
const outbox = useOutbox()
const { positionWords, positionNumber, distanceWords } = useUnits()
const chosen = ref<string | null>(null)
/** Own differences first, then rules of thumb. */
const all = computed(() => [
  ...garage.profiles.map((p) => ({
    id: p.id,
    name: p.name,
    text: p.name,
    words: `Taken from ${p.from}.`,
    source: `profile “${p.name}”`,
    own: true,
    shifts: p.shifts,
  })),
  ...startingRules.map((r) => ({
    id: r.key,
    name: r.name,
    text: `${r.name}, a rule of thumb`,
    words: r.why,
    source: `rule of thumb “${r.name}”`,
    own: false,
    shifts: ruleShifts(r, props.setup, props.base.side.units),
  })),
])
/** Until one is chosen it is the first: one that was kept a moment ago may come in after this has opened. */
const chosenId = computed<string>({
  get: () => chosen.value ?? all.value[0].id,
  set: (id) => (chosen.value = id),
})
const profile = computed(() => all.value.find((p) => p.id === chosenId.value) ?? all.value[0])
const options = computed(() => all.value.map((p) => ({ value: p.id, text: p.text })))
const applied = computed(() => applyProfile(profile.value.shifts, props.setup, props.base.side.units))
const endWords = { front: 'Front', rear: 'Rear' }
/** Where a dial stands in the base only because somebody assumed it. */
const isAssumed = (adjusterId: string) =>
  props.setup.positions.some((p) => p.adjusterId === adjusterId && p.known.how === 'assumed')
const rows = computed(() =>
  applied.value.map((a) => {
    const name = `${endWords[a.shift.end]} ${(a.adjuster ? adjusterName(a.adjuster) : roleWords[a.shift.role]).toLowerCase()}`
    const words = !a.adjuster
      ? `not on this unit${a.instead ? `; nearest is ${adjusterName(a.instead).toLowerCase()}, by feel` : ''}`
      : a.from === null || a.to === null
        ? 'nobody has read it: read it first'
        : `${positionNumber(a.adjuster, a.from)} → ${positionWords(a.adjuster, a.to)}${a.cut ? `, ${distanceWords(a.adjuster, a.from, a.to)} only: it ends there` : ''}${isAssumed(a.adjuster.id) ? `; ${positionNumber(a.adjuster, a.from)} is assumed, nobody has read it` : ''}`
    return { key: `${a.shift.end} ${a.shift.role}`, end: a.shift.end, name, words }
  }),
)
const turned = computed(
  () =>
    new Map(
      applied.value.flatMap((a) =>
        a.adjuster && a.to !== null && a.to !== a.from
          ? [[a.adjuster.id, { end: a.shift.end, to: a.to }] as const]
          : [],
      ),
    ),
)
const busy = ref(false)
async function save() {
  const p = profile.value
  const name = `${props.base.words}, ${p.name}`.slice(0, 80)
  const setup: Setup = {
    ...props.setup,
    id: uuid(),
    bikeId: props.bike.id,
    parentId: props.setup.id,
    dayId: null,
    madeAt: new Date().toISOString(),
    name,
    positions: props.setup.positions.map((x) => {
      const to = turned.value.get(x.adjusterId)?.to
      return to === undefined ? x : { ...x, value: to, known: assumed(p.source) }
    }),
    reason: {
      text: `${props.base.words} with the ${p.source}; a start, not yet ridden`,
      source: 'carried',
      linked: true,
      proposalId: null,
      undoes: null,
      fromSetupId: null,
    },
    foundIn: null,
    wanted: true,
  }
  busy.value = true
  const ok = await notices.attempt(() => garage.saveSetup(setup))
  busy.value = false
  if (!ok) return
  open.value = false
  notices.show(`${name} is wanted. Nothing is turned yet.`)
  emit('made', setup.id)
}
async function remove() {
  const p = profile.value
  if (!(await notices.attempt(() => outbox.remove('profile', p.id)))) return
  open.value = false
  notices.show(`${p.name} was removed.`, 'done', () => outbox.restore('profile', p.id))
}
</script>

<template>
  <DialogFrame v-model:open="open" :title="`${base.words}, with a profile`">
    <TypedPicker v-model="chosenId" label="Profile" :options="options" />
    <p class="small soft">{{ profile.words }}</p>
    <ul class="num">
      <li v-for="r in rows" :key="r.key">
        <EndMark :end="r.end" small />
        <span
          ><b>{{ r.name }}</b> {{ r.words }}</span
        >
      </li>
    </ul>
    <p v-if="!rows.length">Nothing of it can be turned from here: no dial it speaks of has been read.</p>
    <p class="caution">
      A start, not proven here: the same clicks do another thing on another unit. Check sag, never go above
      the printed maximum, and try it at low speed in a safe place first.
    </p>
    <div class="acts">
      <BButton variant="primary" :disabled="busy || !turned.size" @click="save">Save it as a start</BButton>
      <BButton v-if="profile.own" variant="plain" @click="remove">Remove the profile</BButton>
    </div>
  </DialogFrame>
</template>

<style scoped>
ul {
  list-style: none;
  margin: 0.6rem 0;
  padding: 0;
}
li {
  display: flex;
  gap: 0.6rem;
  align-items: center;
  min-height: 36px;
  border-bottom: 1px solid var(--line);
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
</style>
