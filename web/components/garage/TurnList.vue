<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { v7 as uuid } from 'uuid'
import type { Bike } from '#contract/bike'
import type { Setup } from '#contract/setup'
import { adjusterName, familyOf, toolWord, turnSign } from '#core/adjusters/words'
import { canStandAt } from '#core/adjusters/range'
import { withTurns } from '#core/setup/known'
import { useUnits } from '../../composables/useUnits.ts'
import { useWho } from '../../composables/useWho.ts'
import { useGarage } from '../../stores/garage.ts'
import { useNotices } from '../../stores/notices.ts'
import EndMark from '../shell/EndMark.vue'
import DialogFrame from '../shell/DialogFrame.vue'

/** Turns that bring a bike to other settings: ticked off as they are made, and on the bike in one piece or not at all. */
const props = defineProps<{ bike: Bike; target: Setup }>()
const open = defineModel<boolean>('open', { required: true })
const garage = useGarage()
const notices = useNotices()
const { positionWords, distanceWords } = useUnits()
const { who } = useWho()
const made = ref<string[]>([])
const busy = ref(false)
watch(open, () => (made.value = []))

const present = computed(() => garage.currentSetup(props.bike.id) ?? null)
const units = computed(() => garage.unitsOf(props.bike))
const fits = computed(
  () =>
    props.target.frontUnitId === props.bike.frontUnitId && props.target.rearUnitId === props.bike.rearUnitId,
)
const at = (s: Setup | null, id: string) => s?.positions.find((p) => p.adjusterId === id)?.value ?? null
/** End by end; dials before pressures, so that the pump comes out once. */
const turns = computed(() =>
  units.value.flatMap((u) =>
    [...u.adjusters]
      .sort((a, b) => Number(a.kind === 'pressure') - Number(b.kind === 'pressure'))
      .flatMap((a) => {
        const to = at(props.target, a.id)
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
                : `${positionWords(a, from)} → ${positionWords(a, to)}, ${distanceWords(a, from, to)} ${turnSign(a, from, to) ?? ''}`,
            tool: toolWord(a),
            pump: familyOf(a) === 'spring',
          },
        ]
      }),
  ),
)
const impossible = computed(() => turns.value.filter((t) => !t.possible))
const ready = computed(
  () =>
    fits.value &&
    turns.value.length > 0 &&
    impossible.value.length === 0 &&
    turns.value.every((t) => made.value.includes(t.id)),
)
const tick = (id: string) =>
  (made.value = made.value.includes(id) ? made.value.filter((x) => x !== id) : [...made.value, id])

async function put() {
  busy.value = true
  const parts = new Map(
    units.value.flatMap((u) => u.adjusters.map((part) => [part.id, { part, end: u.end }] as const)),
  )
  const to = new Map(turns.value.map((t) => [t.id, t.to]))
  const setup: Setup = {
    ...props.target,
    id: uuid(),
    parentId: present.value?.id ?? null,
    dayId: null,
    madeAt: new Date().toISOString(),
    positions: withTurns(present.value?.positions ?? [], to, parts, {
      at: new Date().toISOString(),
      by: who.value,
    }),
    reason: {
      ...props.target.reason,
      source: props.target.wanted ? 'carried' : 'revert',
      linked: true,
      proposalId: null,
      undoes: null,
      fromSetupId: props.target.id,
    },
    wanted: false,
  }
  const ok = await notices.attempt(() => garage.saveSetup(setup))
  busy.value = false
  if (!ok) return
  open.value = false
  notices.show(`${props.target.name ?? 'The setup'} is on the bike: ${turns.value.length} turns made.`)
}
</script>

<template>
  <DialogFrame v-model:open="open" size="lg" title="Turns to make">
    <p v-if="!fits" class="caution">
      The bike carries other units than this setup was found on; carry it over instead.
    </p>
    <p v-else-if="!turns.length" class="soft">The bike stands so already.</p>
    <template v-else>
      <p class="soft">Tick each turn as you make it. Nothing is written before all are made.</p>
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
  </DialogFrame>
</template>

<style scoped>
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
.acts {
  display: flex;
  gap: 0.6rem;
  margin-top: 0.6rem;
}
</style>
