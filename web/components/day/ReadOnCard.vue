<script setup lang="ts">
import { computed, reactive, ref } from 'vue'
import type { Adjuster } from '#contract/adjuster'
import type { Gauge } from '#contract/care'
import type { End } from '#contract/common'
import { countBaseWords, toCount } from '#core/adjusters/count'
import { foundPlace } from '#core/adjusters/foundPlace'
import { adjusterName } from '#core/adjusters/words'
import type { ReadPart } from '#core/command/reading'
import { shownByGaugePsi, truePressurePsi } from '#core/spring/gauge'
import { useUnits } from '../../composables/useUnits.ts'
import EndMark from '../shell/EndMark.vue'
import GaugeChoice from '../shell/GaugeChoice.vue'
import NumberField from '../shell/NumberField.vue'

/** What a card asks to be read, each on its own: as it is kept, another number, or nothing said. */
const props = defineProps<{
  /** `kept` is true pressure, null where nobody has read it; the gauge it was read with, where that was said. */
  parts: readonly { end: End; adjuster: Adjuster; kept: number | null; gaugeId: string | null }[]
  gauges: readonly Gauge[]
  busy: boolean
}>()
const emit = defineEmits<{ found: [parts: ReadPart[], gaugeId: string | null] }>()
const { positionWords } = useUnits()

const ofPressure = props.parts.filter((p) => p.adjuster.kind === 'pressure')
const gaugeOf = (id: string | null) => props.gauges.find((g) => g.id === id)
/** The gauge at hand: the one it was read with before, until another is chosen. */
const chosen = ref<string | null>(null)
const gaugeId = computed({
  get: () => chosen.value ?? ofPressure.find((p) => gaugeOf(p.gaugeId))?.gaugeId ?? '',
  set: (id) => (chosen.value = id),
})
const readsHighPsi = computed(() => gaugeOf(gaugeId.value)?.readsHighPsi ?? 0)
/** What the gauge at hand shows of a true pressure; all else is as it is. */
const shown = (a: Adjuster, value: number) =>
  a.kind === 'pressure' ? shownByGaugePsi(value, readsHighPsi.value) : value

/** What the gauge shows, or where a dial was found, canonical. */
const found = reactive(new Map<string, number>())
/** As it was typed, also where a part cannot stand: what is wrong stays to be put right. */
const typed = reactive(new Map<string, number>())
const faults = reactive(new Map<string, string>())
const nameOf = (end: End, a: Adjuster) =>
  `${end === 'front' ? 'Front' : 'Rear'} ${adjusterName(a).toLowerCase()}`
const labelOf = (end: End, a: Adjuster) => {
  const base = countBaseWords(a)
  const how =
    a.kind === 'pressure'
      ? 'the gauge shows'
      : a.kind === 'spacer'
        ? 'how many are in'
        : base
          ? `counted ${base}`
          : 'as found'
  return `${nameOf(end, a)}, ${how}`
}
const isAsKept = (a: Adjuster, kept: number) => found.get(a.id) === shown(a, kept)
function type(a: Adjuster, count: number | null) {
  forget(a)
  if (count === null) return
  typed.set(a.id, count)
  try {
    found.set(a.id, foundPlace(a, count))
  } catch (e) {
    faults.set(a.id, e instanceof Error ? e.message : String(e))
  }
}
function keepAsIs(a: Adjuster, kept: number) {
  const wasKept = isAsKept(a, kept)
  forget(a)
  if (wasKept) return
  found.set(a.id, shown(a, kept))
  typed.set(a.id, toCount(a, shown(a, kept)))
}
function forget(a: Adjuster) {
  // A garage that comes in later must not put another gauge under what was said.
  chosen.value ??= gaugeId.value
  for (const kept of [found, typed, faults]) kept.delete(a.id)
}
const read = computed(() =>
  props.parts.flatMap(({ end, adjuster, kept }): ReadPart[] => {
    const value = found.get(adjuster.id)
    if (value === undefined) return []
    const isTrue = adjuster.kind === 'pressure' ? truePressurePsi(value, readsHighPsi.value) : value
    return [{ end, adjuster, value: isTrue, was: kept ?? undefined }]
  }),
)
</script>

<template>
  <form class="read" @submit.prevent="read.length && emit('found', read, gaugeId || null)">
    <div v-for="{ end, adjuster: a, kept } in parts" :key="a.id" class="part">
      <EndMark class="sign" :end="end" small />
      <NumberField
        :model-value="typed.get(a.id) ?? null"
        :label="labelOf(end, a)"
        :quantity="a.kind === 'pressure' ? 'pressure' : undefined"
        :fault="faults.get(a.id)"
        @update:model-value="(v) => type(a, v)"
      />
      <button
        v-if="kept !== null"
        type="button"
        class="btn btn-plain num"
        :aria-pressed="isAsKept(a, kept)"
        :aria-label="`${nameOf(end, a)}: still ${positionWords(a, shown(a, kept))}`"
        @click="keepAsIs(a, kept)"
      >
        {{ `Still ${positionWords(a, shown(a, kept))}` }}
      </button>
    </div>
    <GaugeChoice v-if="ofPressure.length && gauges.length" v-model="gaugeId" :gauges="gauges" />
    <!-- Not disabled where nothing is read yet: the tap that leaves the field is the tap that saves it. -->
    <button
      type="submit"
      class="btn btn-primary"
      :class="{ unready: read.length === 0 }"
      :disabled="busy"
      :aria-disabled="read.length === 0"
    >
      {{ read.length ? 'Save what was read' : 'Nothing read yet' }}
    </button>
  </form>
</template>

<style scoped>
.read {
  display: grid;
  gap: 0.6rem;
  justify-items: start;
  margin: 0.6rem 0;
}
.part {
  display: grid;
  grid-template-columns: auto minmax(8rem, 17rem) auto;
  align-items: end;
  gap: 0.4rem 0.8rem;
}
.sign {
  align-self: start;
  margin-top: 0.35rem;
}
.part .btn {
  min-height: 44px;
  white-space: nowrap;
  /* Beside the field: below it stands what is wrong with it. */
  margin-bottom: 0.15rem;
}
.unready {
  opacity: 0.65;
}
.part [aria-pressed='true'] {
  background: var(--pine);
  color: var(--pine-ink);
}
</style>
