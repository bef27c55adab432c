<script setup lang="ts">
import { computed } from 'vue'
import type { PieceOut } from '#contract/care'
import type { End } from '#contract/common'
import { useGarage } from '../../stores/garage.ts'
import { localToday } from '../../support/dates.ts'
import TypedPicker from '../shell/TypedPicker.vue'

/** Pieces that do not lie on the shelf: each on a bike, or lent. */
const out = defineModel<PieceOut[]>({ required: true })
const garage = useGarage()
const bikes = computed(() =>
  garage.bikes.flatMap((b) => {
    const rider = garage.rider(b.riderId)?.name
    return (['front', 'rear'] as const).map((end) => ({
      value: `${b.id} ${end}`,
      text: `${b.name}${rider ? ` of ${rider}` : ''}, ${end}`,
    }))
  }),
)
const placeOf = (o: PieceOut) => (o.where === 'bike' ? `${o.bikeId} ${o.end}` : '')
const replace = (i: number, o: PieceOut) => (out.value = out.value.map((x, at) => (at === i ? o : x)))
function toBike(i: number, place: string) {
  const [bikeId = '', end = 'front'] = place.split(' ')
  replace(i, { where: 'bike', bikeId, end: end as End })
}
const lend = () => (out.value = [...out.value, { where: 'loan', to: '', since: localToday() }])
const fit = () => {
  const [bikeId = '', end = 'front'] = (bikes.value[0]?.value ?? '').split(' ')
  out.value = [...out.value, { where: 'bike', bikeId, end: end as End }]
}
</script>

<template>
  <fieldset class="wide">
    <legend class="form-label">Not on the shelf</legend>
    <div v-for="(o, i) in out" :key="i" class="piece">
      <TypedPicker
        v-if="o.where === 'bike'"
        :model-value="placeOf(o)"
        :label="`Piece ${i + 1}, on`"
        :options="bikes"
        @update:model-value="(v) => toBike(i, v)"
      />
      <template v-else>
        <label class="form-label"
          >{{ `Piece ${i + 1}, lent to` }}
          <BFormInput
            :model-value="o.to"
            autocomplete="off"
            @update:model-value="(v) => replace(i, { ...o, to: String(v) })"
        /></label>
        <label class="form-label"
          >since
          <BFormInput
            type="date"
            :model-value="o.since"
            @update:model-value="(v) => replace(i, { ...o, since: String(v) })"
        /></label>
      </template>
      <BButton variant="plain" @click="out = out.filter((_, at) => at !== i)">It is back</BButton>
    </div>
    <p v-if="!out.length" class="soft small">All of them lie here.</p>
    <div class="acts">
      <BButton v-if="bikes.length" variant="plain" @click="fit">One is on a bike</BButton>
      <BButton variant="plain" @click="lend">One is lent</BButton>
    </div>
  </fieldset>
</template>

<style scoped>
.piece {
  display: flex;
  flex-wrap: wrap;
  align-items: end;
  gap: 0.5rem;
  margin-bottom: 0.4rem;
}
.piece > :first-child {
  flex: 1 1 200px;
}
.piece label {
  margin: 0;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
p {
  margin: 0 0 0.3rem;
}
</style>
