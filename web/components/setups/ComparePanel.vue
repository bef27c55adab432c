<script setup lang="ts">
import { computed } from 'vue'
import { compareDials } from '#core/lineage/compare'
import { mainPressureElsewhere } from '#core/lineage/elsewhere'
import { useUnits } from '../../composables/useUnits.ts'
import type { ComparedSide } from '../../support/setupSides.ts'
import EndMark from '../shell/EndMark.vue'
import FiguresBeside from './FiguresBeside.vue'
import SideTitle from './SideTitle.vue'
import SideWords from './SideWords.vue'
import TwoPegs from './TwoPegs.vue'

/** The chosen setup; beside another one, what differs from there to here. */
const props = defineProps<{
  chosen: ComparedSide
  beside: ComparedSide | null
  /** Null: the two are of two bikes, whose figures say nothing of each other. */
  bikeId: string | null
}>()
const { say } = useUnits()

const dials = computed(() => compareDials((props.beside ?? props.chosen).side, props.chosen.side))
const ends = computed(() =>
  (['front', 'rear'] as const)
    .map((end) => ({
      end,
      unit:
        props.chosen.side.units.find((u) => u.end === end) ??
        props.beside?.side.units.find((u) => u.end === end),
      dials: dials.value.filter((d) => d.end === end),
    }))
    .filter((x) => x.dials.length > 0),
)
const moved = computed(() => dials.value.filter((d) => d.how === 'moved').length)
const places = computed(() =>
  [props.beside?.place, props.chosen.place].filter((p) => p !== null && p !== undefined),
)
const differentDays = computed(() => {
  const [a, b] = places.value
  if (places.value.length < 2 || a.countedRuns === 0 || b.countedRuns === 0) return false
  return !a.rides.some((r) => b.rides.some((x) => x.dayId === r.dayId))
})
/** What the air alone makes of a pressure. */
const weather = computed(() => {
  const [a, b] = places.value
  if (places.value.length < 2) return []
  return mainPressureElsewhere(a, b, props.beside!.side.units).map(
    (w) =>
      `${w.end === 'front' ? 'Front' : 'Rear'}: ${say('pressure', w.fromPsi)} set at ${say('temperature', w.fromC)} shows ${say('pressure', w.showsPsi)} at ${say('temperature', w.toC)}, without a turn.`,
  )
})
</script>

<template>
  <div class="sides">
    <SideTitle v-if="beside" :side="beside" sign="first" />
    <SideTitle :side="chosen" sign="second" />
  </div>
  <p v-if="beside" class="count">
    {{ moved === 0 ? 'No dial differs' : `${moved} ${moved === 1 ? 'dial differs' : 'dials differ'}` }}
  </p>
  <section v-for="e in ends" :key="e.end">
    <h3 class="unit">
      <EndMark :end="e.end" small /> {{ e.end === 'front' ? 'Front' : 'Rear' }}, {{ e.unit?.name }}
    </h3>
    <ul>
      <TwoPegs v-for="d in e.dials" :key="(d.first ?? d.second)!.id" :dial="d" :alone="!beside" />
    </ul>
  </section>
  <p v-for="w in weather" :key="w" class="weather small num">{{ w }}</p>
  <h3 class="known">What is known of {{ places.length > 1 ? 'them' : 'it' }}</h3>
  <p v-if="differentDays" class="soft small">
    Ridden on different days: track, weather, tyres and form differ too. Only the same day tells them apart.
  </p>
  <SideWords v-if="beside?.place" :place="beside.place" sign="first" />
  <SideWords v-if="chosen.place" :place="chosen.place" sign="second" />
  <FiguresBeside
    v-if="bikeId && beside?.place && chosen.place"
    :bike-id="bikeId"
    :first="beside.place"
    :second="chosen.place"
  />
</template>

<style scoped>
.sides {
  display: grid;
  gap: 0.35rem;
}
.count {
  margin: 0.5rem 0 0;
  font-weight: 650;
}
.unit {
  margin-top: 0.6rem;
  display: flex;
  align-items: center;
  gap: 0.45rem;
}
ul {
  list-style: none;
  margin: 0;
  padding: 0;
}
.weather {
  background: var(--paper-deep);
  border-radius: 10px;
  padding: 0.5rem 0.7rem;
  margin: 0.5rem 0 0;
}
.known {
  margin-top: 1rem;
}
</style>
