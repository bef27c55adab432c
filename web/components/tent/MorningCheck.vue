<script setup lang="ts">
import { computed, reactive, ref, shallowRef } from 'vue'
import type { Adjuster } from '#contract/adjuster'
import type { DayBundle } from '#contract/endpoints'
import { adjusterName, distanceWords, effectWord } from '#core/adjusters/words'
import type { ReadPart } from '#core/command/reading'
import { knownWords } from '#core/setup/known'
import { truePressurePsi } from '#core/spring/gauge'
import { morningCheck, parsePressures, type CheckedPart } from '#core/tent/check'
import { cache, reads } from '../../api/cache.ts'
import type { TentRow } from '../../composables/useTent.ts'
import { useUnits } from '../../composables/useUnits.ts'
import { useGarage } from '../../stores/garage.ts'
import { useNotices } from '../../stores/notices.ts'
import { shortDayWords } from '../../support/dates.ts'
import DialogFrame from '../shell/DialogFrame.vue'
import EndMark from '../shell/EndMark.vue'
import GaugeChoice from '../shell/GaugeChoice.vue'
import NumberField from '../shell/NumberField.vue'
import type { BikeRead } from './bikeRead.ts'
import { asKept, fieldOf, onGauge, saidBy, standsAt, type Said } from './saidOfPart.ts'

/** Each bike against what is kept of it, part by part, before its first run; pressures in one go. Nothing is turned. */
const props = defineProps<{
  rows: readonly TentRow[]
  keep: (read: readonly BikeRead[], gaugeId: string | null) => Promise<number>
}>()
const open = defineModel<boolean>('open', { required: true })
const garage = useGarage()
const notices = useNotices()
const { units, positionWords, say } = useUnits()

/** By number, as they stand in the tent: the order under the hand stays. */
const riders = computed(() =>
  props.rows
    .flatMap((r) => (r.day ? [{ ...r, day: r.day }] : []))
    .sort((a, b) => a.rider.number - b.rider.number),
)
const earlier = shallowRef<ReadonlyMap<string, readonly DayBundle[]>>(new Map())
void Promise.all(
  riders.value.map(
    async (r) => [r.rider.id, await cache.fetchQuery(reads.earlier(r.rider.id)).catch(() => [])] as const,
  ),
).then((all) => (earlier.value = new Map(all)))
const begunMs = Date.now()
const bikes = computed(() =>
  riders.value.map((r) => ({
    id: r.rider.id,
    number: r.rider.number,
    name: r.day.rider.name,
    bike: r.day.bike.name,
    check: morningCheck(r.day, earlier.value.get(r.rider.id) ?? [], begunMs),
  })),
)
const chosenId = ref(
  riders.value.find((r) => r.lane.runs.length === 0)?.rider.id ?? riders.value.at(0)?.rider.id,
)
const bike = computed(() => bikes.value.find((b) => b.id === chosenId.value) ?? bikes.value.at(0) ?? null)

const said = reactive(new Map<string, Said>())
const partsOf = (id: string) => bikes.value.find((b) => b.id === id)?.check.parts ?? []
const key = (bikeId: string, a: Adjuster) => `${bikeId} ${a.id}`
const saidOf = (a: Adjuster) => (bike.value ? said.get(key(bike.value.id, a)) : undefined)
function tell(a: Adjuster, s: Said | null) {
  if (!bike.value) return
  if (s === null) said.delete(key(bike.value.id, a))
  else said.set(key(bike.value.id, a), s)
}
const isAsKept = (p: CheckedPart) => {
  const s = saidOf(p.adjuster)
  const at = s === undefined ? null : standsAt(p, s, readsHighPsi.value)
  return p.stored !== null && at !== null && Math.abs(at - p.stored.value) < 1e-6
}
const faults = reactive(new Map<string, string>())
const quantity = (a: Adjuster) =>
  a.kind === 'pressure' ? 'pressure' : a.kind === 'spring-rate' ? 'springRate' : undefined
function type(p: CheckedPart, typed: number | null) {
  const a = p.adjuster
  faults.delete(a.id)
  if (typed === null) return tell(a, null)
  try {
    tell(a, saidBy(p, typed))
  } catch (e) {
    tell(a, null)
    faults.set(a.id, e instanceof Error ? e.message : String(e))
  }
}

const gaugeId = ref('')
const readsHighPsi = computed(() => garage.gauge(gaugeId.value)?.readsHighPsi ?? 0)
const order = ref<'ends' | 'bikes'>('ends')
const orders = [
  { value: 'ends', text: 'all forks, then all shocks' },
  { value: 'bikes', text: 'bike by bike' },
]
/** Springs with air, in the order the gauge goes round. */
const round = computed(() => {
  const all = bikes.value.flatMap((b) =>
    b.check.parts
      .filter((p) => p.adjuster.kind === 'pressure')
      .map((p) => ({ b, p, dayId: b.id, adjuster: p.adjuster })),
  )
  return order.value === 'bikes'
    ? all
    : [...all.filter((x) => x.p.end === 'front'), ...all.filter((x) => x.p.end === 'rear')]
})
const line = ref('')
const parsed = computed(() => {
  try {
    return { psi: parsePressures(line.value, round.value, units.value), fault: '' }
  } catch (e) {
    return { psi: [], fault: e instanceof Error ? e.message : String(e) }
  }
})
const endWord = (p: CheckedPart) => (p.end === 'front' ? 'fork' : 'shock')
const heard = computed(() =>
  round.value.map(({ b, p }, i) => {
    const psi = parsed.value.psi.at(i) ?? null
    const part = p.adjuster.role === 'main-pressure' ? '' : `, ${adjusterName(p.adjuster).toLowerCase()}`
    return {
      id: key(b.id, p.adjuster),
      who: `${b.number} ${b.name}, ${endWord(p)}${part}`,
      psi,
      kept: p.stored && onGauge(p, p.stored.value, readsHighPsi.value),
      off: psi === null ? '' : offWords(p, truePressurePsi(psi, readsHighPsi.value)),
    }
  }),
)
/** What the gauge shows goes to the parts it was read on. */
function takeLine() {
  if (parsed.value.fault) return
  parsed.value.psi.forEach((psi, i) => {
    if (psi === null) return
    const { b, p } = round.value[i]
    said.set(key(b.id, p.adjuster), { found: psi })
  })
  line.value = ''
}
/** "2 clicks slower than kept"; nothing where it is as kept. */
function offWords(p: CheckedPart, at: number | null): string {
  if (p.stored === null || at === null || Math.abs(at - p.stored.value) < 1e-6) return ''
  const { adjuster: a, stored } = p
  return `${distanceWords(a, stored.value, at, units.value)} ${effectWord(a, stored.value, at)} than kept`
}
const heardOf = (p: CheckedPart) => {
  const s = saidOf(p.adjuster)
  return s === undefined ? '' : offWords(p, standsAt(p, s, readsHighPsi.value))
}
const read = computed<BikeRead[]>(() =>
  bikes.value.flatMap((b) => {
    const parts = b.check.parts.flatMap((p): ReadPart[] => {
      const s = said.get(key(b.id, p.adjuster))
      if (s === undefined) return []
      const value = standsAt(p, s, readsHighPsi.value)
      return [{ end: p.end, adjuster: p.adjuster, value, was: p.stored?.value }]
    })
    return parts.length ? [{ number: b.number, parts }] : []
  }),
)
const count = computed(() => read.value.reduce((t, r) => t + r.parts.length, 0))
const words = (n: number, one: string) => `${n} ${one}${n === 1 ? '' : 's'}`
const lookedAt = (id: string) => {
  const parts = partsOf(id)
  const now = parts.filter((p) => p.lookedAt || said.has(key(id, p.adjuster))).length
  return `${now} of ${parts.length}`
}
const busy = ref(false)
async function keepAll() {
  busy.value = true
  const bikesRead = read.value
  const kept = await props.keep(bikesRead, gaugeId.value || null)
  busy.value = false
  for (const r of bikesRead.slice(0, kept)) {
    const id = bikes.value.find((b) => b.number === r.number)!.id
    for (const p of r.parts) said.delete(key(id, p.adjuster))
  }
  if (kept < bikesRead.length)
    return void notices.show(`${words(kept, 'bike')} kept; the rest is still here.`, 'error')
  open.value = false
  notices.show(`Read on ${words(kept, 'bike')}; nothing is turned. Run 1 is ridden as it stands.`, 'done')
}
</script>

<template>
  <DialogFrame v-model:open="open" size="xl" firm title="Morning check">
    <form class="round" @submit.prevent="takeLine">
      <div class="line">
        <label class="form-label" for="pressures">{{ `Pressures in one go, ${units.pressure}` }}</label>
        <input
          id="pressures"
          v-model="line"
          class="form-control num"
          placeholder="87 89 84"
          inputmode="text"
          autocomplete="off"
          :aria-invalid="parsed.fault ? true : undefined"
          aria-describedby="pressures-heard"
        />
      </div>
      <GaugeChoice v-model="gaugeId" :gauges="garage.gauges" />
      <label class="form-label">In this order<BFormSelect v-model="order" :options="orders" /></label>
      <BButton type="submit" variant="plain" :disabled="!line || !!parsed.fault">Take them</BButton>
    </form>
    <p v-if="parsed.fault" class="fault" role="alert">{{ parsed.fault }}</p>
    <ol id="pressures-heard" class="heard small" aria-label="In the order of the gauge">
      <li v-for="h in heard" :key="h.id" :class="{ set: h.psi !== null }">
        {{ h.who }} <b v-if="h.psi !== null" class="num">{{ say('pressure', h.psi) }}</b>
        <span v-else class="soft num">{{
          h.kept === null ? 'not read' : `kept ${say('pressure', h.kept)}`
        }}</span>
        <span v-if="h.off" class="off">{{ `, ${h.off}` }}</span>
      </li>
    </ol>
    <div class="bikes">
      <ul class="who" aria-label="Bikes">
        <li v-for="b in bikes" :key="b.id">
          <button type="button" :aria-pressed="b.id === bike?.id" @click="chosenId = b.id">
            <b>{{ b.number }} {{ b.name }}</b> <small class="soft">{{ b.bike }}</small>
            <small class="num">{{ lookedAt(b.id) }}<span v-if="b.check.ridden"> · has ridden</span></small>
          </button>
        </li>
      </ul>
      <div v-if="bike" class="parts">
        <p class="small soft last">
          {{
            bike.check.lastPlace
              ? `Last ridden at ${bike.check.lastPlace.name}, ${shortDayWords(bike.check.lastPlace.date)}${bike.check.lastPlace.settled ? ', settled' : ''}.`
              : 'No earlier day of this bike is in this book.'
          }}
          {{ bike.check.ridden ? 'It has ridden: what is read now is a reading of the day.' : '' }}
        </p>
        <table>
          <thead>
            <tr>
              <th scope="col">Part</th>
              <th scope="col">Kept</th>
              <th scope="col">Last place</th>
              <th scope="col">On the bike</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="p in bike.check.parts" :key="p.adjuster.id">
              <th scope="row"><EndMark :end="p.end" small />{{ adjusterName(p.adjuster) }}</th>
              <td class="num">
                {{ p.stored ? positionWords(p.adjuster, p.stored.value) : 'not read' }}
                <small v-if="p.stored" class="soft">{{
                  p.lookedAt ? 'read this morning' : knownWords[p.stored.known.how]
                }}</small>
                <small v-if="p.stored && readsHighPsi && p.adjuster.kind === 'pressure'">{{
                  `${say('pressure', onGauge(p, p.stored.value, readsHighPsi))} on that gauge`
                }}</small>
              </td>
              <td class="num soft">
                {{
                  p.last === null
                    ? '–'
                    : p.last === p.stored?.value
                      ? 'the same'
                      : positionWords(p.adjuster, p.last)
                }}
              </td>
              <td>
                <span class="keys">
                  <button
                    v-if="p.stored"
                    type="button"
                    class="btn btn-plain"
                    :aria-pressed="isAsKept(p)"
                    :aria-label="`${p.end} ${adjusterName(p.adjuster)}: as kept`"
                    @click="tell(p.adjuster, isAsKept(p) ? null : asKept(p, readsHighPsi))"
                  >
                    As kept
                  </button>
                  <BFormSelect
                    v-if="p.adjuster.kind === 'lever'"
                    :model-value="fieldOf(p, saidOf(p.adjuster))"
                    :aria-label="`${p.end} ${adjusterName(p.adjuster)} stands at`"
                    :options="[
                      { value: null, text: 'stands at …' },
                      ...p.adjuster.positions.map((text, value) => ({ value, text })),
                    ]"
                    @update:model-value="(v) => type(p, v as number | null)"
                  />
                  <NumberField
                    v-else
                    class="number"
                    :model-value="fieldOf(p, saidOf(p.adjuster))"
                    :label="`${p.end} ${adjusterName(p.adjuster)} stands at`"
                    :quantity="quantity(p.adjuster)"
                    :fault="faults.get(p.adjuster.id)"
                    placeholder="stands at"
                    @update:model-value="(v) => type(p, v)"
                  />
                  <button
                    type="button"
                    class="btn btn-plain"
                    :aria-pressed="saidOf(p.adjuster) === 'unsure'"
                    :aria-label="`${p.end} ${adjusterName(p.adjuster)}: not sure`"
                    @click="tell(p.adjuster, saidOf(p.adjuster) === 'unsure' ? null : 'unsure')"
                  >
                    Not sure
                  </button>
                  <span v-if="heardOf(p)" class="off small">{{ heardOf(p) }}</span>
                </span>
              </td>
            </tr>
          </tbody>
        </table>
      </div>
    </div>
    <div class="foot">
      <p class="small soft">
        What is neither read nor ticked stays as it was known. Nothing is turned here; the first run is ridden
        as the bike stands.
      </p>
      <BButton variant="primary" :disabled="count === 0 || busy" @click="keepAll">
        {{ count ? `Keep ${words(count, 'reading')} of ${words(read.length, 'bike')}` : 'Nothing read yet' }}
      </BButton>
    </div>
  </DialogFrame>
</template>

<style scoped>
.round {
  display: flex;
  flex-wrap: wrap;
  align-items: end;
  gap: 0.4rem 0.8rem;
}
.round label {
  margin: 0;
}
/* What the gauge reads too much stands under the line, not under its own field: fields stay on one line. */
.round :deep(.gauge) {
  display: contents;
}
.round :deep(.gauge p) {
  order: 1;
  flex: 1 0 100%;
}
.line {
  flex: 1 1 220px;
}
.line input {
  font-size: 1.15rem;
}
.heard {
  display: flex;
  flex-wrap: wrap;
  gap: 0.1rem 1.1rem;
  list-style: none;
  margin: 0.4rem 0 0.7rem;
  padding: 0;
}
.heard .set {
  font-weight: 600;
}
.off,
.fault {
  color: var(--rust);
  font-weight: 650;
}
.bikes {
  display: grid;
  grid-template-columns: 190px minmax(0, 1fr);
  gap: 1rem;
  border-top: 1px solid var(--line);
  padding-top: 0.6rem;
}
.who {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  gap: 8px;
  align-content: start;
}
.who button {
  width: 100%;
  min-height: 44px;
  text-align: left;
  border: 0;
  border-radius: 8px;
  background: var(--paper-deep);
  color: var(--ink);
  padding: 0.3rem 0.6rem;
  display: grid;
}
.who [aria-pressed='true'] {
  box-shadow: inset 6px 0 0 var(--sun);
  background: var(--card);
}
.last {
  margin: 0 0 0.3rem;
}
table {
  width: 100%;
  border-collapse: collapse;
}
th,
td {
  text-align: left;
  padding: 0.25rem 0.6rem 0.25rem 0;
  border-bottom: 1px solid var(--line);
  font-weight: 400;
  vertical-align: middle;
}
thead th {
  font-size: 0.88rem;
  color: var(--ink-soft);
}
tbody th {
  font-weight: 650;
}
td small {
  display: block;
}
.keys {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px;
}
.keys .btn {
  min-height: 44px;
}
.number {
  width: 8.5rem;
}
.number :deep(label) {
  position: absolute;
  width: 1px;
  height: 1px;
  overflow: hidden;
  clip-path: inset(50%);
}
.number :deep(.more:empty) {
  display: none;
}
.keys [aria-pressed='true'] {
  background: var(--pine);
  color: var(--pine-ink);
}
.foot {
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  align-items: center;
  gap: 0.5rem 1rem;
  margin-top: 0.7rem;
}
.foot p {
  margin: 0;
  flex: 1 1 260px;
}
@media (max-width: 900px) {
  .bikes {
    grid-template-columns: 1fr;
  }
  .who {
    grid-template-columns: 1fr 1fr;
  }
  .who small:not(.num) {
    display: none;
  }
  thead {
    display: none;
  }
  tr {
    display: grid;
    grid-template-columns: 1fr 1fr;
  }
  th,
  td {
    border: 0;
    padding: 0.1rem 0;
  }
  tbody th,
  td:last-child {
    grid-column: 1 / -1;
  }
  tbody tr {
    border-bottom: 1px solid var(--line);
    padding: 0.4rem 0;
  }
}
</style>
