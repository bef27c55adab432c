<script setup lang="ts">
import { computed } from 'vue'
import type { Adjuster } from '#contract/adjuster'
import type { Baseline } from '#contract/baseline'
import type { Bike } from '#contract/bike'
import { countBaseWords } from '#core/adjusters/count'
import { adjusterName, roleWords } from '#core/adjusters/words'
import { forRider } from '#core/carry/ofAnotherRider'
import { nearestDial } from '#core/carry/profile'
import { saidRidingMassKg } from '#core/spring/load'
import { useUnits } from '../../composables/useUnits.ts'
import { useGarage } from '../../stores/garage.ts'
import { sourceWords } from '../../support/benchWords.ts'
import { dateWords } from '../../support/dates.ts'
import DialogFrame from '../shell/DialogFrame.vue'
import EndMark from '../shell/EndMark.vue'

/** Everything that is recommended for a bike, side by side: each in its own count, with who says so and when. */
const props = defineProps<{ bike: Bike }>()
const open = defineModel<boolean>('open', { required: true })
const garage = useGarage()
const { positionWords, units: choice } = useUnits()
const units = computed(() => garage.unitsOf(props.bike))
const present = computed(() => garage.currentSetup(props.bike.id))
const columns = computed(() => {
  const rider = garage.rider(props.bike.riderId)
  const mass = rider ? saidRidingMassKg(rider) : null
  return garage
    .baselinesOf(props.bike.id)
    .map((b) => ({ b, held: forRider(b, units.value, mass, choice.value) }))
})
/** The dial as they count it. */
const counted = (a: Adjuster, b: Baseline): Adjuster =>
  b.countedFrom && (a.kind === 'click' || a.kind === 'turn') ? { ...a, countBase: b.countedFrom } : a
const place = (a: Adjuster, value: number | undefined) =>
  value === undefined ? '' : [positionWords(a, value), countBaseWords(a)].filter(Boolean).join(' ')
const rows = computed(() =>
  units.value.flatMap((u) => [
    {
      key: `${u.id} sag`,
      end: u.end,
      name: 'Sag',
      now: '',
      said: columns.value.map(({ b }) => {
        const pct = u.end === 'front' ? b.sagFrontPct : b.sagRearPct
        return pct === null ? '' : `${pct} %`
      }),
    },
    ...u.adjusters.map((a) => ({
      key: a.id,
      end: u.end,
      name: adjusterName(a),
      now: place(a, present.value?.positions.find((p) => p.adjusterId === a.id)?.value),
      said: columns.value.map(({ b, held }) =>
        place(counted(a, b), held.positions.find((p) => p.adjusterId === a.id)?.value),
      ),
    })),
  ]),
)
/** Advice for what is not there, with the dial that is nearest to it; it is named, never turned instead. */
const missing = computed(() =>
  columns.value.flatMap(({ b }) =>
    b.notHere.map((x) => {
      const near = nearestDial(x.role, units.value.find((u) => u.end === x.end)?.adjusters ?? [])
      const instead = near
        ? `nearest is ${adjusterName(near).toLowerCase()}, by feel`
        : 'nothing comes near it'
      return {
        key: `${b.id} ${x.end} ${x.role}`,
        end: x.end,
        words: `${roleWords[x.role]} ${x.says}, says ${b.name}: not on this unit; ${instead}.`,
      }
    }),
  ),
)
/** Scores of one style stand together; those of two styles are two scales. */
const scores = computed(() => {
  const styles = new Map<string, string[]>()
  for (const { b } of columns.value)
    if (b.score)
      styles.set(b.score.style, [...(styles.get(b.score.style) ?? []), `${b.name} ${b.score.value}`])
  return [...styles].map(([style, list]) => `${style}: ${list.join(', ')}`)
})
</script>

<template>
  <DialogFrame v-model:open="open" size="xl" :title="`${bike.name}: what is recommended`">
    <p v-if="!columns.length">
      Nobody’s recommendation is noted for this bike yet. Add one in the garage, under “What others
      recommend”.
    </p>
    <template v-else>
      <div class="scroll" tabindex="0" role="group" aria-label="Recommendations side by side">
        <table class="num">
          <thead>
            <tr>
              <th scope="col">Dial</th>
              <th scope="col">On the bike</th>
              <th v-for="c in columns" :key="c.b.id" scope="col">
                {{ c.b.name }}
                <small class="soft">{{ `${sourceWords[c.b.source]}, ${dateWords(c.b.asOf)}` }}</small>
              </th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="r in rows" :key="r.key">
              <th scope="row"><EndMark :end="r.end" small /> {{ r.name }}</th>
              <td>{{ r.now || '?' }}</td>
              <td v-for="(s, i) in r.said" :key="i">{{ s || '–' }}</td>
            </tr>
          </tbody>
        </table>
      </div>
      <p v-for="c in columns.filter((x) => x.held.words)" :key="c.b.id" class="caution">
        {{ `${c.b.name}: ${c.held.words}` }}
      </p>
      <ul v-if="missing.length" class="missing">
        <li v-for="m in missing" :key="m.key"><EndMark :end="m.end" small /> {{ m.words }}</li>
      </ul>
      <template v-if="scores.length">
        <h3>Scores they give</h3>
        <p v-for="s in scores" :key="s" class="num score">{{ s }}</p>
        <p class="small soft">
          Their numbers, reckoned their way. They compare within one style only, and say nothing of how it
          rides.
        </p>
      </template>
      <p class="small soft">
        That they disagree is normal. Makers’ manuals come first; never above the pressure printed on the
        unit.
      </p>
    </template>
  </DialogFrame>
</template>

<style scoped>
.scroll {
  overflow-x: auto;
}
table {
  border-collapse: collapse;
  min-width: 100%;
}
th,
td {
  text-align: left;
  padding: 0.4rem 1.2rem 0.4rem 0;
  border-bottom: 1px solid var(--line);
  font-weight: 400;
}
thead th {
  font-weight: 650;
  vertical-align: bottom;
}
thead small {
  display: block;
  font-weight: 400;
}
.missing {
  list-style: none;
  margin: 0.8rem 0 0;
  padding: 0;
}
.missing li {
  display: flex;
  gap: 0.5rem;
  align-items: center;
  min-height: 34px;
}
h3 {
  margin-top: 0.9rem;
}
.score {
  margin: 0;
}
</style>
