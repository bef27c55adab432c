<script setup lang="ts">
import { computed, ref, shallowRef, watch } from 'vue'
import { endpoints } from '#contract/endpoints'
import type { ErasureReach } from '#contract/erasure'
import { call } from '../../api/client.ts'
import { useGarage } from '../../stores/garage.ts'
import { useNotices } from '../../stores/notices.ts'
import { some } from '../../support/dataWords.ts'
import ChoiceKeys from '../shell/ChoiceKeys.vue'

/** A rider who wants to be forgotten: what goes is said first, then the name is typed. */
const emit = defineEmits<{ erased: [] }>()
const garage = useGarage()
const notices = useNotices()
const riderId = ref('')
const reach = shallowRef<ErasureReach | null>(null)
const typed = ref('')
const alsoCopies = ref(true)
const how = ref<'all' | 'name'>('all')
const ways = [
  { value: 'all', text: 'Everything goes' },
  { value: 'name', text: 'The days stay, without a name' },
] as const
const busy = ref(false)
/** Riders that were removed are still in the file: they above all can be meant. */
const removed = shallowRef<{ value: string; text: string }[]>([])
async function lookAtShelf() {
  const shelf = await call(endpoints.getShelf, {})
  removed.value = shelf
    .filter((x) => x.kind === 'rider')
    .map((x) => ({ value: x.id, text: `${x.name} (removed)` }))
}
void notices.attempt(() => Promise.all([garage.load(), lookAtShelf()]))
const riders = computed(() => [
  { value: '', text: 'choose …' },
  ...garage.riders.map((r) => ({ value: r.id, text: r.name })),
  ...removed.value,
])
watch(riderId, (id) => {
  reach.value = null
  typed.value = ''
  if (id) void notices.attempt(async () => void (reach.value = await call(endpoints.getErasure, { id })))
})
const goes = computed(() => {
  const r = reach.value
  return r
    ? [
        some(r.bikes, 'bike'),
        some(r.units, 'fork or shock', 'forks and shocks'),
        some(r.setups, 'setup'),
        some(r.days, 'day'),
        some(r.runs, 'run'),
        some(r.recordings, 'recording'),
      ].join(', ')
    : ''
})
/** More than these are counted, not listed. */
const mostListed = 5
const elsewhere = computed(() => {
  const all = reach.value?.elsewhere ?? []
  const listed = all.filter((x) => x.name).slice(0, mostListed)
  const more = all.length - listed.length
  return [
    ...listed.map((x) => `the ${x.what} “${x.name}”`),
    ...(more > 0 ? [some(more, 'other record', 'other records')] : []),
  ].join(', ')
})
const isTyped = computed(() => reach.value !== null && typed.value.trim() === reach.value.name)
async function erase() {
  busy.value = true
  const { name } = reach.value!
  const went = await notices.attempt(() =>
    call(
      endpoints.eraseRider,
      { id: riderId.value },
      { name: typed.value, daysStay: how.value === 'name', alsoCopies: alsoCopies.value },
    ),
  )
  busy.value = false
  if (!went) return
  riderId.value = ''
  await lookAtShelf()
  notices.show(
    how.value === 'name'
      ? `${name} is no name here any more; what was ridden stays.`
      : `${name} is erased, with all that was theirs.`,
  )
  emit('erased')
}
</script>

<template>
  <section class="card-paper" aria-labelledby="forget-title">
    <h2 id="forget-title">Forget a rider</h2>
    <p class="soft">
      Removed riders stay on the shelf and can come back. This is another thing: everything of a rider is
      written over, in the data file and beside it, and nobody can bring it back.
    </p>
    <label class="form-label" for="forget-who">Who</label>
    <BFormSelect id="forget-who" v-model="riderId" :options="riders" class="who" />
    <template v-if="reach">
      <ChoiceKeys v-model="how" label="What goes" :options="ways" class="ways" />
      <p v-if="how === 'name'">
        {{
          `What ${reach.name} rode, felt and turned stays. The name goes out of all of it, also where it was typed into notes on these days; with it go every weight, what was spoken, and the links of the phone. Who knows the days may still know who it was.`
        }}
      </p>
      <p v-else>
        {{
          `With ${reach.name} go ${goes}, what was felt, said, measured and proposed on them, and every weight.`
        }}
      </p>
      <template v-if="how === 'all'">
        <p v-for="p in reach.passedOn" :key="p.bike">
          {{
            `${p.bike} was ridden by ${p.to}, too: it stays with its setups, and is ${p.to}’s from now on.`
          }}
        </p>
      </template>
      <p v-if="elsewhere">
        {{
          `The name also stands in ${elsewhere}. That is not ${reach.name}’s, and stays as it is: write it anew where it means this rider.`
        }}
      </p>
      <p class="soft">
        What is on paper stays, and what is on other devices until they look here again, and in files that
        were taken along.
      </p>
      <label v-if="reach.copies" class="check">
        <input v-model="alsoCopies" type="checkbox" class="form-check-input" />
        {{
          `Remove ${some(reach.copies, 'copy', 'copies')} of before (safe copies, files set aside, one that follows), and make a safe copy of after`
        }}
      </label>
      <label class="form-label" for="forget-name">{{ `Type ${reach.name} to go on` }}</label>
      <div class="acts">
        <BFormInput id="forget-name" v-model="typed" autocomplete="off" class="who" />
        <BButton variant="danger" :disabled="!isTyped || busy" @click="erase">{{
          how === 'name' ? 'Take the name away for good' : 'Erase for good'
        }}</BButton>
      </div>
    </template>
  </section>
</template>

<style scoped>
section {
  padding: 1rem 1.2rem;
}
section > p {
  margin: 0.5rem 0 0;
}
.form-label {
  margin-top: 0.7rem;
}
.ways {
  margin-top: 0.7rem;
}
.who {
  max-width: 22rem;
}
.check {
  display: flex;
  gap: 0.6rem;
  align-items: center;
  min-height: var(--touch);
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 0.6rem;
}
</style>
