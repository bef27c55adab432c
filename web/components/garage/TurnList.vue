<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { v7 as uuid } from 'uuid'
import type { Bike } from '#contract/bike'
import type { Setup } from '#contract/setup'
import { adjusterName, effectWord, toolWord, turnSign } from '#core/adjusters/words'
import { canStandAt } from '#core/adjusters/range'
import { weatherShift } from '#core/carry/weatherShift'
import { withTurns } from '#core/setup/known'
import { useShelf } from '../../composables/useShelf.ts'
import { useUnits } from '../../composables/useUnits.ts'
import { useWho } from '../../composables/useWho.ts'
import { useGarage } from '../../stores/garage.ts'
import { useNotices } from '../../stores/notices.ts'
import { dayWords, localDate } from '../../support/dates.ts'
import EndMark from '../shell/EndMark.vue'
import DialogFrame from '../shell/DialogFrame.vue'
import NumberField from '../shell/NumberField.vue'
import TypedPicker from '../shell/TypedPicker.vue'

/** Turns that bring a bike to other settings: ticked off as they are made, and on the bike in one piece or not at all. */
const props = defineProps<{
  bike: Bike
  target: Setup
  /** What a person calls it; null: by its name. */
  words?: string | null
  /** The air it was found in; with it, a shift for the air of today is offered. */
  foundAir?: { airTempC: number | null; altitudeM: number | null }
}>()
const open = defineModel<boolean>('open', { required: true })
const garage = useGarage()
const notices = useNotices()
const { positionWords, distanceWords, say, sayDifference, units: choice } = useUnits()
const { who } = useWho()
const made = ref<string[]>([])
const busy = ref(false)
const here = ref<{ airTempC: number | null; altitudeM: number | null }>({ airTempC: null, altitudeM: null })
const shifted = ref(false)
watch(open, () => {
  made.value = []
  taken.value = {}
  shifted.value = false
})

const present = computed(() => garage.currentSetup(props.bike.id) ?? null)
const units = computed(() => garage.unitsOf(props.bike))
const exchanged = computed(() =>
  (['front', 'rear'] as const).filter((end) =>
    end === 'front'
      ? props.target.frontUnitId !== props.bike.frontUnitId
      : props.target.rearUnitId !== props.bike.rearUnitId,
  ),
)
const fits = computed(() => exchanged.value.length < units.value.length)
/** What was true of the parts then and is not now. */
const since = computed(() => [
  ...exchanged.value.map(
    (end) =>
      `The ${end === 'front' ? 'fork' : 'shock'} was exchanged since: this setup says nothing of the one that is on the bike.`,
  ),
  ...units.value
    .filter((u) => u.revalvedOn !== null && u.revalvedOn > localDate(props.target.madeAt))
    .map(
      (u) =>
        `${u.name} was re-valved on ${dayWords(u.revalvedOn!)}, after this setup: the same clicks damp differently now. Feel it out at low speed.`,
    ),
])
const at = (s: Setup | null, id: string) => s?.positions.find((p) => p.adjusterId === id)?.value ?? null

const shift = computed(() =>
  props.foundAir ? weatherShift(props.target, units.value, props.foundAir, here.value, choice.value) : [],
)
const shiftWords = computed(() => {
  const from = props.foundAir?.airTempC ?? null
  const to = here.value.airTempC
  const colder = from === null || to === null ? 0 : Math.round(from - to)
  return colder === 0
    ? 'Shift for the height'
    : `Shift for ${sayDifference('temperature', Math.abs(colder))} ${colder > 0 ? 'colder' : 'warmer'}`
})
const wishes = computed(
  () =>
    new Map([
      ...props.target.positions.map((p) => [p.adjusterId, p.value] as const),
      ...(shifted.value ? shift.value.map((s) => [s.adjuster.id, s.to] as const) : []),
    ]),
)
/** End by end; dials before pressures, so that the pump comes out once. */
const turns = computed(() =>
  units.value.flatMap((u) =>
    [...u.adjusters]
      .sort((a, b) => Number(a.kind === 'pressure') - Number(b.kind === 'pressure'))
      .flatMap((a) => {
        const to = wishes.value.get(a.id) ?? null
        const from = at(present.value, a.id)
        if (to === null || (from !== null && Math.abs(from - to) < 1e-6)) return []
        return [
          {
            id: a.id,
            end: u.end,
            a,
            to,
            possible: canStandAt(a, to),
            name: `${u.end === 'front' ? 'Front' : 'Rear'} ${adjusterName(a).toLowerCase()}`,
            how:
              from === null
                ? `read it first, then to ${positionWords(a, to)}`
                : `${positionWords(a, from)} → ${positionWords(a, to)}, ${distanceWords(a, from, to)} ${effectWord(a, from, to)} ${turnSign(a, from, to) ?? ''}`,
            tool: toolWord(a),
          },
        ]
      }),
  ),
)
const { needWords, freeFor, noteExchange } = useShelf()
/** Springs to be put in: what lies on the shelf, and which piece is taken, by the end. */
const springs = computed(() =>
  turns.value.flatMap((t) => {
    const unit = units.value.find((u) => u.end === t.end)
    if (t.a.kind !== 'spring-rate' || !unit) return []
    const need = { rateNPerMm: t.to, strokeMm: unit.strokeMm }
    return [
      {
        end: t.end,
        words: needWords(need, props.bike.riderId),
        pieces: [{ value: null, text: 'none of the shelf' }, ...freeFor(need, props.bike.riderId)] as {
          value: string | null
          text: string
        }[],
      },
    ]
  }),
)
const taken = ref<Partial<Record<'front' | 'rear', string | null>>>({})
const impossible = computed(() => turns.value.filter((t) => !t.possible))
const ready = computed(
  () =>
    fits.value &&
    turns.value.length > 0 &&
    impossible.value.length === 0 &&
    turns.value.every((t) => made.value.includes(t.id)),
)
// Another number is another turn: it has to be made anew.
watch(shifted, () => (made.value = []))
const tick = (id: string) =>
  (made.value = made.value.includes(id) ? made.value.filter((x) => x !== id) : [...made.value, id])

async function put() {
  busy.value = true
  const parts = new Map(
    units.value.flatMap((u) => u.adjusters.map((part) => [part.id, { part, end: u.end }] as const)),
  )
  const to = new Map(turns.value.map((t) => [t.id, t.to]))
  const now = new Date().toISOString()
  // The bike stands so afterwards: nothing is left to count then.
  const turned = turns.value.length
  const called = props.words ?? props.target.name ?? 'The setup'
  const said = shifted.value ? `${called}, ${shiftWords.value.replace('Shift', 'shifted')}` : called
  const setup: Setup = {
    ...props.target,
    id: uuid(),
    parentId: present.value?.id ?? null,
    dayId: null,
    madeAt: now,
    frontUnitId: props.bike.frontUnitId,
    rearUnitId: props.bike.rearUnitId,
    // Shifted, or on other parts, it is no longer what the name was given to.
    name: shifted.value || exchanged.value.length ? null : props.target.name,
    positions: withTurns(present.value?.positions ?? [], to, parts, {
      at: now,
      by: who.value,
      airTempC: here.value.airTempC,
      altitudeM: here.value.altitudeM,
    }),
    reason: {
      ...props.target.reason,
      text: shifted.value ? said : props.target.reason.text,
      source: props.target.wanted ? 'carried' : 'revert',
      linked: true,
      proposalId: null,
      undoes: null,
      fromSetupId: props.target.id,
    },
    wanted: false,
  }
  const exchanges = springs.value.map((s) => ({ end: s.end, piece: taken.value[s.end] ?? null }))
  const ok = await notices.attempt(async () => {
    await garage.saveSetup(setup)
    for (const x of exchanges) await noteExchange(props.bike, x.end, x.piece)
  })
  busy.value = false
  if (!ok) return
  open.value = false
  notices.show(`${said} is on the bike: ${turned} ${turned === 1 ? 'turn' : 'turns'} made.`)
}
</script>

<template>
  <DialogFrame v-model:open="open" size="lg" title="Turns to make">
    <p v-if="!fits" class="caution">
      The bike carries other units than this setup was found on; carry it over instead.
    </p>
    <template v-else>
      <p v-for="w in since" :key="w" class="caution">{{ w }}</p>
      <div v-if="foundAir && foundAir.airTempC !== null" class="air">
        <NumberField
          v-model="here.airTempC"
          label="Air now"
          quantity="temperature"
          :hint="`found at ${say('temperature', foundAir.airTempC)}`"
        />
        <NumberField
          v-model="here.altitudeM"
          label="Altitude now"
          quantity="altitude"
          :hint="
            foundAir.altitudeM === null ? 'not noted then' : `found at ${say('altitude', foundAir.altitudeM)}`
          "
        />
        <button
          v-if="shift.length"
          type="button"
          class="btn btn-plain shift"
          :aria-pressed="shifted"
          @click="shifted = !shifted"
        >
          {{ shiftWords }}
        </button>
        <p v-else-if="here.airTempC !== null" class="small soft none">
          {{ 'So near to where it was found that nothing is shifted.' }}
        </p>
      </div>
      <ul v-if="shift.length" class="why small num">
        <li v-for="s in shift" :key="s.adjuster.id">
          {{
            `${s.end === 'front' ? 'Front' : 'Rear'} ${adjusterName(s.adjuster).toLowerCase()} ${positionWords(s.adjuster, s.from)} → ${positionWords(s.adjuster, s.to)}: ${s.shifts.map((x) => x.why).join('; ')}`
          }}
        </li>
      </ul>
      <p v-if="!turns.length" class="soft">The bike stands so already.</p>
      <p v-else class="soft">Tick each turn as you make it. Nothing is written before all are made.</p>
      <p v-for="t in impossible" :key="t.id" class="caution">
        {{ `${t.name}: the part cannot stand there any more; it was recounted or exchanged since.` }}
      </p>
      <ul class="turns num">
        <li v-for="t in turns" :key="t.id">
          <label>
            <input
              type="checkbox"
              class="form-check-input"
              :checked="made.includes(t.id)"
              :disabled="!t.possible"
              @change="tick(t.id)"
            />
            <EndMark :end="t.end" small />
            <span
              ><b>{{ t.name }}</b> {{ t.how }} <small class="soft">{{ t.tool }}</small></span
            >
          </label>
        </li>
      </ul>
      <div v-for="s in springs" :key="s.end" class="spring">
        <p class="num">{{ s.words }}</p>
        <TypedPicker
          v-if="s.pieces.length > 1"
          :model-value="taken[s.end] ?? null"
          label="Which one goes in"
          :options="s.pieces"
          @update:model-value="(id) => (taken[s.end] = id)"
        />
      </div>
      <template v-if="turns.length">
        <p class="caution">
          Shock pump only, never above the printed maximum. Check sag afterwards, and try it at low speed in a
          safe place first.
        </p>
        <div class="acts">
          <BButton variant="primary" :disabled="!ready || busy" @click="put"
            >All made: it is on the bike</BButton
          >
          <BButton variant="plain" @click="open = false">Cancel</BButton>
        </div>
      </template>
    </template>
  </DialogFrame>
</template>

<style scoped>
.air {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(140px, 1fr));
  gap: 0 1rem;
  align-items: start;
}
.shift {
  margin-top: 1.6rem;
}
.shift[aria-pressed='true'] {
  background: var(--pine);
  color: var(--pine-ink);
}
.none {
  margin-top: 2rem;
}
.why {
  padding-left: 1.1rem;
}
.turns {
  list-style: none;
  padding: 0;
}
label {
  display: flex;
  gap: 0.7rem;
  align-items: center;
  min-height: 48px;
  border-bottom: 1px solid var(--line);
}
input {
  width: 1.5rem;
  height: 1.5rem;
  flex: none;
}
.spring {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 0.3rem 1rem;
}
.spring p {
  margin: 0;
  font-weight: 650;
}
.acts {
  display: flex;
  gap: 0.6rem;
  margin-top: 0.6rem;
}
</style>
