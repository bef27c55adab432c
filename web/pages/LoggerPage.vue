<script setup lang="ts">
import { computed, onMounted, ref, watch } from 'vue'
import { useRoute } from 'vue-router'
import type { StandInWorld } from '#contract/logger'
import type { Recording } from '#contract/recording'
import { fittingChecks, mappingFor } from '#core/devices/calibration'
import { ridingMassKg } from '#core/spring/load'
import CalibrationList from '../components/logger/CalibrationList.vue'
import CalibrationWays from '../components/logger/CalibrationWays.vue'
import FaultCard from '../components/logger/FaultCard.vue'
import LivePanel from '../components/logger/LivePanel.vue'
import RecordPanel from '../components/logger/RecordPanel.vue'
import StandInPanel from '../components/logger/StandInPanel.vue'
import NotOpened from '../components/shell/NotOpened.vue'
import BarSlots from '../components/shell/BarSlots.vue'
import { useDayPage } from '../composables/useDayPage.ts'
import { useLogger } from '../composables/useLogger.ts'
import { onReachAgain } from '../api/reach.ts'
import { useGarage } from '../stores/garage.ts'
import { dayWords } from '../support/dates.ts'
import DayHead from '../components/day/DayHead.vue'
import { usePageTitle } from '../composables/usePageTitle.ts'

const props = defineProps<{ id: string }>()
const { notices, bundle: b, reload, failed } = useDayPage(() => props.id)
const garage = useGarage()
const route = useRoute()
const strokes = computed(() => Object.fromEntries((b.value?.units ?? []).map((u) => [u.end, u.strokeMm])))
const logger = useLogger(() => strokes.value)
onMounted(() => notices.attempt(() => Promise.all([garage.loaded || garage.load(), logger.search()])))
onReachAgain(() => logger.atHand.value === null && notices.attempt(logger.search))

const runs = computed(() =>
  (b.value?.runs ?? []).map((r, i) => ({
    id: r.id,
    text: `run ${i + 1}`,
    taken: b.value!.recordings.some((x) => x.runId === r.id),
  })),
)
const runId = ref(String(route.query.run ?? ''))
watch(
  runs,
  (list) => {
    if (!list.some((r) => r.id === runId.value))
      runId.value = (list.findLast((r) => !r.taken) ?? list.at(-1))?.id ?? ''
  },
  { immediate: true },
)

const usualMassKg = 80
/** The bike as this run found it, on this day's trail. */
const world = computed<StandInWorld | null>(() => {
  if (!b.value) return null
  const { runs: list, setups, day: d, bike, units, trail } = b.value
  const setupId = list.find((r) => r.id === runId.value)?.setupId ?? d.startSetupId
  const rider = garage.rider(d.riderId)
  return {
    bike,
    units,
    // Where the parts stand; how that is known is no business of a device.
    positions: (setups.find((s) => s.id === setupId)?.positions ?? []).map(({ end, adjusterId, value }) => ({
      end,
      adjusterId,
      value,
    })),
    ridingMassKg: rider && rider.bodyMassKg !== null ? ridingMassKg(rider) : usualMassKg,
    sections: trail.sections,
    groundSeed: 31,
    runSeed: list.findIndex((r) => r.id === runId.value) + 1,
  }
})
const checked = ref<boolean[]>(fittingChecks.map(() => false))
const fitted = computed(() => checked.value.every(Boolean))
const uncheck = () => (checked.value = fittingChecks.map(() => false))
const connect = (i: number) => notices.attempt(() => logger.connect(i, world.value!))
const mapping = computed(() => {
  const id = logger.identity.value
  if (!id || !b.value || !logger.calibrated.value) return null
  return mappingFor(id, logger.held.value, strokes.value, logger.way.value)
})
const attached = ref<Recording | null>(null)
async function onAttached(r: Recording) {
  attached.value = r
  await reload()
}
const kindWords = { 'chamber-pressure': 'reads the air chambers', travel: 'reads travel' }
const dayTo = computed(() => ({ name: 'day', params: { id: props.id } }))
const traceTo = computed(() =>
  attached.value ? { name: 'trace', params: { id: props.id, runId: attached.value.runId } } : null,
)
const search = () => notices.attempt(logger.search)
const nobody = computed(() => logger.atHand.value?.every((l) => !l.identity) ?? false)
usePageTitle(() => (b.value ? `Logger, ${b.value.rider.name}, ${dayWords(b.value.day.date)}` : 'Logger'))
</script>

<template>
  <BarSlots v-if="b">
    <template #about><DayHead :bundle="b" /></template>
    <template #acts><RouterLink class="btn bar-btn" :to="dayTo">Back to the day</RouterLink></template>
  </BarSlots>
  <NotOpened v-if="failed && !b" title="This day could not be opened" @again="reload" />
  <div v-else-if="b" class="page">
    <div class="page-head"><h1>A logger on the bike</h1></div>
    <div class="two">
      <div class="col">
        <section class="card-paper panel" aria-labelledby="fit-title">
          <h2 id="fit-title">1 Fitted so that nothing can touch</h2>
          <p v-if="fitted && logger.identity.value" class="soft small line">
            All checked.
            <button type="button" class="btn btn-plain btn-sm" @click="uncheck">Check again</button>
          </p>
          <template v-else>
            <label v-for="(words, i) in fittingChecks" :key="words" class="check">
              <input v-model="checked[i]" type="checkbox" class="form-check-input" /> <span>{{ words }}</span>
            </label>
          </template>
        </section>
        <section class="card-paper panel" aria-labelledby="connect-title">
          <h2 id="connect-title">2 Connect</h2>
          <p v-if="!logger.atHand.value" class="soft" role="status">Looking for loggers …</p>
          <p v-else-if="nobody">
            No logger answers. Switch it on and come closer; a stand-in is started by
            <code>npm run logger</code>.
          </p>
          <ul class="loggers">
            <template v-for="l in logger.atHand.value ?? []" :key="l.index">
              <li v-if="l.identity && (logger.index.value === null || logger.index.value === l.index)">
                <span
                  ><b>{{ l.identity.name }}</b
                  ><span class="soft small">{{
                    ` ${l.identity.serial}, ${kindWords[l.identity.kind]}`
                  }}</span></span
                >
                <button
                  v-if="logger.index.value === l.index"
                  type="button"
                  class="btn btn-plain"
                  @click="logger.disconnect"
                >
                  Disconnect
                </button>
                <button
                  v-else
                  type="button"
                  class="btn btn-primary"
                  :disabled="!fitted"
                  @click="connect(l.index)"
                >
                  Connect
                </button>
              </li>
            </template>
          </ul>
          <p v-if="!fitted" class="small soft">
            Tick what is fitted first: a sensor in the wheel ends a ride badly.
          </p>
          <button v-if="logger.index.value === null" type="button" class="btn btn-plain" @click="search">
            Look again
          </button>
        </section>
        <section v-if="logger.identity.value" class="card-paper panel" aria-labelledby="calibrate-title">
          <div class="head">
            <h2 id="calibrate-title">3 Calibrate</h2>
            <button
              v-if="Object.keys(logger.held.value).length"
              type="button"
              class="btn btn-plain"
              @click="logger.forgetHolds"
            >
              Begin again
            </button>
          </div>
          <CalibrationWays
            v-if="logger.identity.value.kind === 'chamber-pressure'"
            v-model="logger.way.value"
          />
          <p v-if="logger.way.value === 'emptied'" class="caution small">
            Letting air out of a unit needs it to be off the ground or leaned on; keep fingers away from the
            linkage.
          </p>
          <CalibrationList :logger="logger" />
        </section>
      </div>
      <div v-if="logger.identity.value" class="col">
        <LivePanel
          :identity="logger.identity.value"
          :state="logger.state.value"
          :sample="logger.sample.value"
          :silent="logger.silent.value"
          :held="logger.held.value"
        />
        <template v-if="logger.faults.value.length">
          <FaultCard v-for="f in logger.faults.value" :key="f" :fault="f" />
          <button type="button" class="btn btn-plain" @click="logger.watchAnew">Put right: watch anew</button>
        </template>
        <RecordPanel
          v-model:run-id="runId"
          :logger="logger"
          :mapping="mapping"
          :runs="runs"
          @attached="onAttached"
        />
        <section v-if="attached && traceTo" class="card-paper panel" role="status">
          <p>It is on the run, with figures for {{ attached.analysis?.sections.length ?? 0 }} sections.</p>
          <p v-for="i in attached.issues" :key="i.code" class="small issue">{{ i.message }}</p>
          <RouterLink class="btn btn-sun" :to="traceTo">See what the suspension did</RouterLink>
        </section>
        <StandInPanel :logger="logger" />
      </div>
    </div>
  </div>
</template>

<style scoped>
.two {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  gap: 0.9rem;
  align-items: start;
}
.col {
  display: grid;
  gap: 0.9rem;
}
.panel {
  padding: 0.8rem 1rem;
}
.check {
  display: flex;
  gap: 0.6rem;
  align-items: center;
  min-height: var(--touch);
}
.head,
.line {
  display: flex;
  justify-content: space-between;
  align-items: center;
}
.panel h2 {
  margin-bottom: 0.4rem;
}
.line {
  margin: 0;
}
.loggers {
  list-style: none;
  padding: 0;
  margin: 0.3rem 0;
}
.loggers li {
  display: flex;
  justify-content: space-between;
  align-items: center;
  padding: 0.3rem 0;
  border-bottom: 1px solid var(--line);
}
@media (max-width: 900px) {
  .two {
    grid-template-columns: 1fr;
  }
}
</style>
