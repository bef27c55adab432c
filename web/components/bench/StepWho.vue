<script setup lang="ts">
import { useNow } from '@vueuse/core'
import { computed, ref } from 'vue'
import type { OrderSchool, SpacerSchool } from '#contract/bench'
import { oldAir } from '#core/bench/airOn'
import { useUnits } from '../../composables/useUnits.ts'
import { useBench } from '../../stores/bench.ts'
import { useGarage } from '../../stores/garage.ts'
import { orderWords, spacerSchoolWords } from '../../support/benchWords.ts'
import { dateWords, localDate } from '../../support/dates.ts'
import { riderWords } from '../../support/riderWords.ts'
import { optionsOf } from '../../support/words.ts'
import RiderForm from '../garage/RiderForm.vue'
import UnitForm from '../garage/UnitForm.vue'
import EndMark from '../shell/EndMark.vue'
import NumberField from '../shell/NumberField.vue'
import ChoiceRow from './ChoiceRow.vue'
import type { SuspensionUnit } from '#contract/unit'

/** Who rides, with what on, and what the targets are. */
const bench = useBench()
const garage = useGarage()
const { say } = useUnits()
const manner = computed(() => (bench.rider ? riderWords(bench.rider) : ''))
const riderOpen = ref(false)
const unitOpen = ref(false)
const editing = ref<SuspensionUnit | null>(null)
const openUnit = (u: SuspensionUnit) => ((editing.value = garage.unit(u.id) ?? u), (unitOpen.value = true))
const order = computed({
  get: () => bench.bench!.orderSchool,
  set: (orderSchool: OrderSchool) => bench.set({ orderSchool }),
})
const spacerSchool = computed({
  get: () => bench.bench!.spacerSchool,
  set: (s: SpacerSchool) => bench.set({ spacerSchool: s }),
})
// The page may stay open over night.
const now = useNow({ interval: 60_000 })
const airWords = { airTempC: 'air', altitudeM: 'altitude', place: 'place' }
const old = computed(() => (bench.bench ? oldAir(bench.bench, now.value.toISOString()) : []))
/** "Altitude and place were said on 20 Nov 2026." */
const oldWords = computed(() =>
  [...new Set(old.value.map((o) => localDate(o.saidAt)))]
    .map((date) => {
      const those = old.value.filter((o) => localDate(o.saidAt) === date).map((o) => airWords[o.what])
      const list = new Intl.ListFormat('en-GB').format(those)
      return `${list[0].toUpperCase()}${list.slice(1)} ${those.length > 1 ? 'were' : 'was'} said on ${dateWords(date)}.`
    })
    .join(' '),
)
const usual = (u: SuspensionUnit) =>
  u.end === 'front'
    ? 'often 15 to 25 %, 20 to start'
    : bench.bike?.kind === 'downhill'
      ? 'downhill: up to 35 %'
      : bench.bike?.kind === 'cross-country'
        ? 'cross-country: 20 to 25 %'
        : 'often 25 to 30 %, 30 to start'
</script>

<template>
  <div class="step">
    <div class="who">
      <p>
        <b>{{ `${bench.rider?.name ?? '?'}${manner ? ':' : ''}` }}</b>
        {{ manner }}
      </p>
      <p v-if="bench.massKg !== null" class="num">
        {{
          bench.benchRider.kitKnown
            ? `${say('mass', bench.massKg)} with kit and water.`
            : `${say('mass', bench.massKg)} without the kit: nobody has said what it weighs. It adds 3 to 8 kg.`
        }}
      </p>
      <p v-else class="caution">No weight yet: spring and damper starts need it. It stays private.</p>
      <BButton variant="plain" @click="riderOpen = true">Edit weight, kit and water</BButton>
    </div>
    <ul class="units">
      <li v-for="u in bench.units" :key="u.id" class="num">
        <span><EndMark :end="u.end" /> {{ u.name }}: {{ u.spring }}, {{ say('length', u.strokeMm) }}</span>
        <span
          >{{ `sag target ${u.sagTargetPct} %` }} <span class="soft small">{{ usual(u) }}</span></span
        >
        <BButton variant="plain" @click="openUnit(u)">{{
          u.end === 'front' ? 'Edit fork' : 'Edit shock'
        }}</BButton>
      </li>
    </ul>
    <div class="field-grid">
      <NumberField
        :model-value="bench.bench!.airTempC"
        label="Air"
        quantity="temperature"
        hint="pressure follows temperature"
        @update:model-value="(v) => bench.sayAir({ airTempC: v })"
      />
      <NumberField
        :model-value="bench.bench!.altitudeM"
        label="Altitude"
        quantity="altitude"
        @update:model-value="(v) => bench.sayAir({ altitudeM: v })"
      />
      <div>
        <label class="form-label" for="bench-place">Place</label>
        <BFormInput
          id="bench-place"
          :model-value="bench.bench!.place"
          autocomplete="off"
          @update:model-value="(v) => bench.sayAir({ place: String(v ?? '').slice(0, 80) })"
        />
      </div>
    </div>
    <div v-if="old.length" class="caution old-air">
      <p>
        {{
          `${oldWords} What is pumped and counted today is kept without ${old.length > 1 ? 'them until somebody says that they hold' : 'it until somebody says that it holds'}.`
        }}
      </p>
      <BButton variant="plain" class="text-nowrap" @click="bench.sayAir({})">Still so today</BButton>
    </div>
    <ChoiceRow
      v-model="order"
      label="Order of work"
      :options="optionsOf(orderWords)"
      handbook="differ/order"
    />
    <ChoiceRow
      v-model="spacerSchool"
      label="Spacers to begin with"
      :options="optionsOf(spacerSchoolWords)"
      handbook="differ/spacers"
    />
    <RiderForm v-model:open="riderOpen" :editing="bench.rider ?? null" />
    <UnitForm v-model:open="unitOpen" :end="editing?.end ?? 'front'" :editing="editing" />
  </div>
</template>

<style scoped>
.step {
  display: grid;
  gap: 0.9rem;
}
p {
  margin: 0 0 0.4rem;
}
.units {
  list-style: none;
  padding: 0;
  margin: 0;
}
.units li {
  display: grid;
  grid-template-columns: 1fr 1fr 7.5rem;
  gap: 0.2rem 1rem;
  align-items: center;
  border-bottom: 1px solid var(--line);
  padding: 0.3rem 0;
}
.units .small {
  display: block;
}
.old-air {
  flex-wrap: wrap;
}
.old-air p {
  flex: 1 1 16rem;
  margin: 0;
}
@media (max-width: 720px) {
  .units li {
    grid-template-columns: 1fr;
  }
}
</style>
