<script setup lang="ts">
import { until, useElementSize, useMediaQuery, useNow } from '@vueuse/core'
import { computed, defineAsyncComponent, nextTick, ref, useTemplateRef, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import type { DayPlan } from '#contract/dayPlan'
import type { TentNote } from '#contract/tent'
import { clockSpan, shareOf, windowAt, type ClockSpan } from '#core/tent/clock'
import { trends } from '#core/tent/trend'
import RiderRow from '../components/tent/RiderRow.vue'
import type { BikeRead } from '../components/tent/bikeRead.ts'
import TentBar from '../components/tent/TentBar.vue'
import TentWeather from '../components/tent/TentWeather.vue'
import NotOpened from '../components/shell/NotOpened.vue'
import BarSlots from '../components/shell/BarSlots.vue'
import { apiBase } from '../api/client.ts'
import { isWall } from '../api/door.ts'
import { useKept } from '../composables/useKept.ts'
import { usePageTitle } from '../composables/usePageTitle.ts'
import { useShortcuts } from '../composables/useShortcuts.ts'
import { useTent, type TentRow } from '../composables/useTent.ts'
import { useUnits } from '../composables/useUnits.ts'
import { useDay } from '../stores/day.ts'
import { useGarage } from '../stores/garage.ts'
import { useNotices } from '../stores/notices.ts'
import { clockWords, localToday, shortDayWords, zoneHere } from '../support/dates.ts'
import { asBefore } from '../support/tentRow.ts'
import { hourWords } from '../support/hourWords.ts'
import { scheduleWords } from '../support/tentWords.ts'

const HourForm = defineAsyncComponent(() => import('../components/tent/HourForm.vue'))
const MorningCheck = defineAsyncComponent(() => import('../components/tent/MorningCheck.vue'))
const TentPhones = defineAsyncComponent(() => import('../components/tent/TentPhones.vue'))
const TentForm = defineAsyncComponent(() => import('../components/tent/TentForm.vue'))
const TentRiders = defineAsyncComponent(() => import('../components/tent/TentRiders.vue'))

const props = defineProps<{ id: string }>()
const route = useRoute()
const router = useRouter()
const day = useDay()
const garage = useGarage()
const notices = useNotices()
const { units } = useUnits()
const { bundle, rows, failed, refetch } = useTent(() => props.id)
/** On a wall: looked at by everybody, touched by nobody; reasons and what was put off are not for all. */
const wall = computed(() => isWall.value || route.query.wall !== undefined)
// Names and bikes for the dialogs.
if (!wall.value) void notices.attempt(garage.load)
watch(wall, (is) => is || void notices.attempt(garage.load))
usePageTitle(() =>
  bundle.value ? `${bundle.value.tent.name}, ${shortDayWords(bundle.value.tent.date)}` : 'Tent',
)

const clock = useNow({ interval: 15_000 })
const happened = computed(() => [
  ...rows.value.flatMap((r) => [...r.lane.runs.map((x) => x.atMs), ...r.lane.changes.map((x) => x.atMs)]),
  ...(bundle.value?.hours.map((h) => Date.parse(h.at)) ?? []),
])
/** A tent of another day stands still at its end. */
const nowMs = computed(() => {
  if (!bundle.value || bundle.value.tent.date === localToday()) return clock.value.getTime()
  const times = [...happened.value, ...rows.value.map((r) => Date.parse(r.rider.since))]
  return times.length ? Math.max(...times) : Date.parse(`${bundle.value.tent.date}T12:00:00`)
})
/** The same while it reaches as far: lanes that did not change are not drawn again. */
const span = computed<ClockSpan>((before) => {
  const now = clockSpan(happened.value, nowMs.value)
  return before?.fromMs === now.fromMs && before.toMs === now.toMs ? before : now
})
const open = computed(() => scheduleWords(windowAt(bundle.value?.tent.schedule ?? [], nowMs.value)))
const told = computed(() =>
  trends(
    rows.value.flatMap((r) =>
      r.lane.changes.map((c) => ({ dayId: r.rider.id, atMs: c.atMs, moves: c.moves })),
    ),
    bundle.value?.hours ?? [],
  ).map((t) => ({
    ...t,
    // A name only where its rider agreed.
    names: t.dayIds.flatMap((id) => {
      const r = rows.value.find((x) => x.rider.id === id)
      return r?.rider.named && r.day ? [r.day.rider.name] : []
    }),
  })),
)

/** Who was needed next when the page came up: the order changes, the rider under the hand does not. */
const first = ref<string | null>(null)
watch(
  () => rows.value.at(0)?.rider.id ?? null,
  (id) => (first.value ??= id),
  { immediate: true },
)
// The chosen rider, by the number in the address; without one, who was needed next.
const chosen = computed(
  () =>
    rows.value.find((r) => r.rider.number === Number(route.query.rider)) ??
    rows.value.find((r) => r.rider.id === first.value) ??
    rows.value.at(0) ??
    null,
)
const choose = (number: number) => void router.replace({ query: { ...route.query, rider: number } })
watch(
  () => chosen.value?.rider.id,
  (id) => id && void notices.attempt(() => day.load(id)),
  { immediate: true },
)
// What can be taken back on a rider's day goes with it: a tap meant for one bike is none for the next.
watch(
  () => day.bundle?.day.id,
  (_, before) => before && notices.leave(before),
)

const wide = useMediaQuery('(min-width: 901px)')
const { width: boardWidth, height: boardHeight } = useElementSize(useTemplateRef<HTMLElement>('board'))
const sides = 190 + 356
const lanePx = computed(() => (wide.value ? Math.max(220, Math.floor(boardWidth.value - sides)) : null))
const weatherPx = 116
/** Rows share the board; below this they scroll. */
const least = 46
const most = 104
const rowPx = computed(() => {
  if (!wide.value) return most
  const each = (boardHeight.value - weatherPx - 2) / Math.max(1, rows.value.length)
  return Math.floor(Math.min(most, Math.max(least, each)))
})
const nowX = computed(() =>
  lanePx.value === null ? 0 : 190 + lanePx.value * shareOf(span.value, nowMs.value),
)

const hourOpen = ref(false)
const aboutOpen = ref(false)
const ridersOpen = ref(false)
const phonesOpen = ref(false)
const checkOpen = ref(false)
/** What was read on each bike, one after the other; the last stays chosen. @returns how many bikes were kept */
async function keepChecks(read: readonly BikeRead[], gaugeId: string | null): Promise<number> {
  let kept = 0
  for (const { number, parts } of read) {
    choose(number)
    await until(() => chosen.value?.rider.number).toBe(number, { timeout: 4000 })
    await nextTick()
    if (!(await bar.value?.keepCheck(parts, gaugeId))) return kept
    kept++
  }
  return kept
}
const lastHour = computed(() => bundle.value?.hours.at(-1) ?? null)
// A new tent asks who is in it.
watch(
  () => bundle.value && bundle.value.riders.length === 0,
  (empty) => empty && !wall.value && (ridersOpen.value = true),
  { immediate: true },
)
const paper = useKept<string>('wild-spring:paper', 'A4')
/** A page for the tent and one for each rider, in the units and on the clock of this screen. */
const sheets = computed(() => {
  const { mass: _mass, ...asked } = units.value
  const query = new URLSearchParams({
    ...asked,
    paper: paper.value === 'LETTER' ? 'LETTER' : 'A4',
    zone: zoneHere(),
  })
  return `${apiBase}/tents/${props.id}/sheets.pdf?${query.toString()}`
})
const notes = computed<Map<string, TentNote[]>>(
  (before) =>
    new Map(
      rows.value.map(({ rider: { id } }) => [
        id,
        asBefore(before?.get(id), bundle.value?.notes.filter((n) => n.dayId === id) ?? []),
      ]),
    ),
)
const bar = useTemplateRef<InstanceType<typeof TentBar>>('bar')
/** What was put off or planned is done now: the line says it, and turns it on Enter. */
async function doLater(row: TentRow, kept: TentNote | DayPlan, line = kept.text) {
  choose(row.rider.number)
  await bar.value?.close({ kept, day: row.day?.day ?? null })
  await bar.value?.start(line)
}
const drop = (row: TentRow, kept: TentNote | DayPlan) =>
  void bar.value?.drop({ kept, day: row.day?.day ?? null })
useShortcuts([
  ...['1', '2', '3', '4', '5', '6', '7', '8', '9'].map((key) => ({
    key,
    does: 'a rider, by number',
    act: () => void bar.value?.start(key),
  })),
  { key: 'c', does: 'change or say, in one line', act: () => void bar.value?.start('') },
  { key: 'i', does: 'the rider comes in', act: () => void bar.value?.tapIn() },
  { key: 'o', does: 'the rider goes out', act: () => void bar.value?.goes('out') },
  { key: 'h', does: 'the rider is here', act: () => void bar.value?.goes('here') },
  { key: 'z', does: 'the rider rests', act: () => void bar.value?.goes('resting') },
  { key: 's', does: 'settled', act: () => void bar.value?.goes('settled') },
  { key: 'm', does: 'morning check', act: () => wall.value || (checkOpen.value = true) },
  { key: 'w', does: 'note the weather', act: () => wall.value || (hourOpen.value = true) },
])
</script>

<template>
  <BarSlots v-if="bundle">
    <template #about>
      <span class="about">
        <b>{{ bundle.tent.name }}</b>
        <span>{{ shortDayWords(bundle.tent.date) }}, {{ bundle.trail.name }}</span>
      </span>
    </template>
    <template #acts>
      <RouterLink v-if="wall && !isWall" class="btn bar-btn" :to="{ query: {} }">Back to the tent</RouterLink>
      <template v-else-if="!wall">
        <button type="button" class="btn bar-btn" @click="ridersOpen = true">Riders</button>
        <button type="button" class="btn bar-btn" @click="phonesOpen = true">Phones</button>
        <button type="button" class="btn bar-btn" @click="hourOpen = true">Weather <kbd>w</kbd></button>
      </template>
    </template>
  </BarSlots>
  <NotOpened v-if="failed && !bundle" title="This tent could not be opened" @again="refetch" />
  <div v-else-if="bundle" class="tent">
    <div ref="board" class="board">
      <div class="heads">
        <h1>Who needs me next</h1>
        <TentWeather
          v-if="lanePx !== null"
          :hours="bundle.hours"
          :span="span"
          :now-ms="nowMs"
          :width-px="lanePx"
          :trends="told"
        />
        <p v-else-if="lastHour" class="small soft num">
          {{ `${clockWords(Date.parse(lastHour.at))}: ${hourWords(lastHour, units)}` }}
        </p>
        <div class="right">
          <p v-if="open" class="open">
            {{ open.text }}, <b class="num">{{ open.minutes }}</b>
          </p>
          <div>
            <h2>On the bike, and next</h2>
            <span v-if="!wall">
              <button type="button" class="btn btn-sm" @click="checkOpen = true">Check</button>
              <RouterLink class="btn btn-sm" :to="{ query: { wall: '1' } }">Wall</RouterLink>
              <a class="btn btn-sm" :href="sheets" target="_blank" rel="noopener">Sheets</a>
              <button type="button" class="btn btn-sm" @click="aboutOpen = true">About</button>
            </span>
          </div>
        </div>
      </div>
      <ol v-if="rows.length" aria-label="Riders by need">
        <RiderRow
          v-for="r in rows"
          :key="r.rider.id"
          :row="r"
          :notes="notes.get(r.rider.id) ?? []"
          :span="span"
          :now-ms="nowMs"
          :chosen="!wall && r.rider.id === chosen?.rider.id"
          :wall="wall"
          :lane-px="lanePx"
          :height-px="rowPx"
          @choose="wall || choose(r.rider.number)"
          @later="(kept, line) => doLater(r, kept, line)"
          @drop="(kept) => drop(r, kept)"
        />
      </ol>
      <p v-else class="nobody">
        Nobody is in this tent yet.
        <BButton variant="primary" @click="ridersOpen = true">Take riders in</BButton>
      </p>
      <div
        v-if="lanePx !== null && rows.length"
        class="now"
        :style="{ left: `${nowX}px` }"
        aria-hidden="true"
      >
        <span>{{ clockWords(nowMs) }}</span>
      </div>
    </div>
    <TentBar v-if="!wall" ref="bar" :bundle="bundle" :row="chosen" @choose="choose" />
    <HourForm v-if="hourOpen" v-model:open="hourOpen" :tent="bundle.tent" :hours="bundle.hours" />
    <TentForm v-if="aboutOpen" v-model:open="aboutOpen" :editing="bundle.tent" />
    <MorningCheck v-if="checkOpen" v-model:open="checkOpen" :rows="rows" :keep="keepChecks" />
    <TentPhones v-if="phonesOpen" v-model:open="phonesOpen" :bundle="bundle" :rows="rows" />
    <TentRiders v-if="ridersOpen" v-model:open="ridersOpen" :bundle="bundle" />
  </div>
</template>

<style scoped>
.about {
  display: flex;
  gap: 0.9rem;
  align-items: baseline;
  white-space: nowrap;
  overflow: hidden;
}
.about span {
  overflow: hidden;
  text-overflow: ellipsis;
}
.tent {
  display: grid;
  grid-template-rows: minmax(0, 1fr) auto;
  height: calc(100vh - var(--bar));
}
.board {
  position: relative;
  overflow-y: auto;
}
.heads {
  display: grid;
  grid-template-columns: 190px minmax(0, 1fr) 356px;
  align-items: end;
  min-height: 116px;
  border-bottom: 1px solid var(--line);
}
.heads h1 {
  font-size: 1.25rem;
  line-height: 1.15;
  margin: 0;
  padding: 0 0.8rem 0.5rem 1rem;
  align-self: stretch;
  display: flex;
  align-items: end;
  border-right: 1px solid var(--line);
}
.right {
  display: grid;
  align-content: space-between;
  padding: 0 0.8rem 0.4rem;
  align-self: stretch;
  border-left: 1px solid var(--line);
}
.right > div {
  display: flex;
  justify-content: space-between;
  align-items: center;
  white-space: nowrap;
}
.open {
  margin: 0.5rem 0 0;
}
.open b {
  font-size: 1.25rem;
}
.right h2 {
  font-size: 1.05rem;
  margin: 0;
}
ol {
  list-style: none;
  margin: 0;
  padding: 0;
}
.now {
  position: absolute;
  /* Below the lines about what turns: it must not run through words. */
  top: 44px;
  bottom: 0;
  width: 0;
  border-left: 2px dotted var(--rust);
  pointer-events: none;
}
.now span {
  position: absolute;
  top: 49px;
  left: 4px;
  font-weight: 700;
  font-size: 0.9rem;
  color: var(--rust);
  background: var(--paper);
  padding: 0 3px;
}
.nobody {
  padding: 1.2rem;
}
@media (max-width: 900px) {
  .tent {
    height: auto;
    display: block;
    padding-bottom: 57px;
  }
  .board {
    overflow: visible;
  }
  .heads {
    grid-template-columns: 1fr;
    min-height: 0;
    padding: 0.6rem 0.9rem;
  }
  .heads h1 {
    border: 0;
    padding: 0;
  }
  .right {
    border: 0;
    padding: 0;
  }
  .right h2 {
    display: none;
  }
  .about span,
  .bar-btn kbd {
    display: none;
  }
}
</style>
