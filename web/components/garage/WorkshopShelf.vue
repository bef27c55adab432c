<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Gauge, StockItem } from '#contract/care'
import type { SuspensionUnit } from '#contract/unit'
import { useUnits } from '../../composables/useUnits.ts'
import { useGarage } from '../../stores/garage.ts'
import { useOutbox } from '../../stores/outbox.ts'
import { useNotices } from '../../stores/notices.ts'
import { ownedName, unitPlaceWords, whereWords } from '../../support/shelfWords.ts'
import GaugeForm from './GaugeForm.vue'
import StockForm from './StockForm.vue'
import UnitForm from './UnitForm.vue'

/** Gauges with their offsets, springs and spacers, forks and shocks, and where each of them is. */
const garage = useGarage()
const notices = useNotices()
const outbox = useOutbox()
const { say, sayDifference } = useUnits()
const gaugeOpen = ref(false)
const gauge = ref<Gauge | null>(null)
const stockOpen = ref(false)
const item = ref<StockItem | null>(null)
const kind = ref<StockItem['kind']>('spring')
const openGauge = (g: Gauge | null) => ((gauge.value = g), (gaugeOpen.value = true))
function openStock(s: StockItem | null, k: StockItem['kind']) {
  item.value = s
  kind.value = s?.kind ?? k
  stockOpen.value = true
}
const gaugeWords = (g: Gauge) =>
  g.readsHighPsi === 0
    ? 'reads true'
    : `shows ${sayDifference('pressure', Math.abs(g.readsHighPsi))} too ${g.readsHighPsi > 0 ? 'much' : 'little'}`
const items = computed(() =>
  garage.stock.map((s) => ({
    s,
    name: ownedName(s, garage),
    words:
      s.kind === 'spring'
        ? `${s.count} × ${say('springRate', s.rateNPerMm)}${s.ratePoints ? ', progressive' : ''}`
        : `${s.count} ${s.count === 1 ? 'spacer' : 'spacers'}${s.unitId ? ` for ${garage.unit(s.unitId)?.name ?? ''}` : ''}`,
    where: whereWords(s, garage),
  })),
)
const isFitted = (u: SuspensionUnit) =>
  !u.loan && garage.bikes.some((b) => b.frontUnitId === u.id || b.rearUnitId === u.id)
/** What lies in the rack or is lent comes first: what is on a bike is seen with its bike, too. */
const racked = computed(() =>
  garage.units
    .map((u) => ({
      u,
      name: ownedName(u, garage),
      words: `${u.end === 'front' ? 'fork' : 'shock'}, ${say('length', u.strokeMm)}, ${u.spring}`,
      where: unitPlaceWords(u, garage.bikes, garage),
    }))
    .sort((a, b) => Number(isFitted(a.u)) - Number(isFitted(b.u)) || a.name.localeCompare(b.name)),
)
const unitsShown = ref(8)
const unitOpen = ref(false)
const unit = ref<SuspensionUnit | null>(null)
const openUnit = (u: SuspensionUnit) => ((unit.value = u), (unitOpen.value = true))
async function remove(what: 'gauge' | 'stock', id: string, name: string) {
  if (await notices.attempt(() => outbox.remove(what, id)))
    notices.show(`${name} was removed.`, 'done', () => outbox.restore(what, id))
}
</script>

<template>
  <section aria-labelledby="shelf">
    <div class="page-head">
      <h2 id="shelf">Gauges, springs, spacers, units</h2>
      <span class="acts">
        <BButton variant="plain" @click="openGauge(null)">New gauge</BButton>
        <BButton variant="plain" @click="openStock(null, 'spring')">Spring</BButton>
        <BButton variant="plain" @click="openStock(null, 'spacer')">Spacers</BButton>
      </span>
    </div>
    <ul class="num">
      <li v-for="g in garage.gauges" :key="g.id">
        <b>{{ g.name }}</b>
        <span class="soft">{{ `gauge, ${gaugeWords(g)}, hose ${g.hoseCc} cm³` }}</span>
        <button type="button" class="btn btn-sm" @click="openGauge(g)">Edit</button>
        <button type="button" class="btn btn-sm soft" @click="remove('gauge', g.id, g.name)">Remove</button>
      </li>
      <li v-for="i in items" :key="i.s.id">
        <b>{{ i.name }}</b>
        <span class="soft"
          >{{ i.words }}, <span class="where">{{ i.where }}</span></span
        >
        <button type="button" class="btn btn-sm" @click="openStock(i.s, i.s.kind)">Edit</button>
        <button type="button" class="btn btn-sm soft" @click="remove('stock', i.s.id, i.s.name)">
          Remove
        </button>
      </li>
      <li v-if="garage.loaded && !garage.gauges.length && !items.length" class="soft none">
        Two gauges can disagree by 10 psi: name yours, and what it shows too much.
      </li>
    </ul>
    <h3 v-if="racked.length" class="units">Forks and shocks</h3>
    <ul class="num" aria-label="Forks and shocks">
      <li v-for="r in racked.slice(0, unitsShown)" :key="r.u.id">
        <b>{{ r.name }}</b>
        <span class="soft"
          >{{ r.words }}, <span class="where">{{ r.where }}</span></span
        >
        <button type="button" class="btn btn-sm" @click="openUnit(r.u)">Edit</button>
      </li>
    </ul>
    <BButton v-if="racked.length > unitsShown" variant="plain" @click="unitsShown += 20">{{
      `${racked.length - unitsShown} others`
    }}</BButton>
    <UnitForm v-if="unit" v-model:open="unitOpen" :end="unit.end" :editing="unit" />
    <GaugeForm v-model:open="gaugeOpen" :editing="gauge" />
    <StockForm v-model:open="stockOpen" :editing="item" :kind="kind" />
  </section>
</template>

<style scoped>
ul {
  list-style: none;
  padding: 0;
  margin: 0;
}
li {
  display: grid;
  grid-template-columns: minmax(8rem, auto) 1fr auto auto;
  gap: 0 0.8rem;
  align-items: center;
  border-bottom: 1px solid var(--line);
}
.where {
  color: var(--ink);
}
.units {
  margin-top: 1.1rem;
}
.none {
  display: block;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 0.4rem;
}
</style>
