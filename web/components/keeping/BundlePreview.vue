<script setup lang="ts">
import { computed, reactive, ref } from 'vue'
import type { BundleChoices, BundleLook, DifferingRecord, LikeRecord, OursOrTheirs } from '#contract/bundle'
import {
  bundleWords,
  countOf,
  fieldWords,
  isNothingNew,
  kindName,
  leftOutWords,
} from '../../support/bundleWords.ts'
import { some } from '../../support/dataWords.ts'
import ChoiceKeys from '../shell/ChoiceKeys.vue'

/** What a bundle would do here, before it does it: new, same, differing with both sides, and what could be one and the same. */
const props = defineProps<{ look: BundleLook }>()
const emit = defineEmits<{ bring: [choices: BundleChoices]; leave: [] }>()

const forAll = ref<OursOrTheirs>('ours')
const own = reactive(new Map<string, OursOrTheirs>())
const atKey = (r: { kind: string; key: string }) => `${r.kind} ${r.key}`
const sideOf = (r: DifferingRecord) => own.get(atKey(r)) ?? forAll.value
function chooseForAll(side: OursOrTheirs) {
  forAll.value = side
  own.clear()
}
/** Like in everything: a trail is one place, whoever named it. A fork of the same make is another fork. */
const isOurs = reactive(new Map(props.look.like.map((l) => [atKey(l), l.kind === 'trails' && l.isAlike])))
const fresh = computed(() => props.look.kinds.filter((k) => k.fresh > 0))
const same = computed(() => props.look.kinds.reduce((n, k) => n + k.same, 0))
const differing = computed(() => props.look.kinds.reduce((n, k) => n + k.differing, 0))
const sides = [
  { value: 'ours', text: 'Yours stays' },
  { value: 'theirs', text: 'Take theirs' },
] as const
/** Whether anything would come of it. */
const does = computed(
  () =>
    fresh.value.length > 0 ||
    props.look.differing.some((d) => sideOf(d) === 'theirs') ||
    (forAll.value === 'theirs' && differing.value > props.look.differing.length),
)

function bring() {
  const except = props.look.differing
    .filter((d) => sideOf(d) !== forAll.value)
    .map(({ kind, key }) => ({ kind, key }))
  const taken = props.look.like
    .filter((l: LikeRecord) => isOurs.get(atKey(l)))
    .map(({ kind, key, asKey }) => ({ kind, key, asKey }))
  emit('bring', { differing: forAll.value, except, taken })
}
</script>

<template>
  <div class="preview">
    <p class="big">{{ bundleWords(look.head) }}</p>
    <p v-if="leftOutWords(look.head)" class="soft small">{{ leftOutWords(look.head) }}</p>
    <div class="counts">
      <div>
        <h3>New</h3>
        <p v-if="fresh.length === 0">nothing</p>
        <ul v-else>
          <li v-for="k in fresh" :key="k.kind" class="num">{{ countOf(k.kind, k.fresh) }}</li>
        </ul>
      </div>
      <div>
        <h3>The same here</h3>
        <p class="num">{{ same ? some(same, 'record') : 'nothing' }}</p>
      </div>
      <div>
        <h3>Differs</h3>
        <p class="num">{{ differing ? some(differing, 'record') : 'nothing' }}</p>
      </div>
    </div>

    <section v-if="look.like.length" aria-labelledby="like-title">
      <h3 id="like-title">Perhaps one and the same</h3>
      <p class="soft small">
        New by its number, known by its name. Taken for yours, its days and words come to yours; else it
        stands beside it.
      </p>
      <ul class="rows">
        <li v-for="l in look.like" :key="atKey(l)">
          <label class="check">
            <input
              type="checkbox"
              class="form-check-input"
              :checked="isOurs.get(atKey(l))"
              @change="isOurs.set(atKey(l), ($event.target as HTMLInputElement).checked)"
            />
            <span
              ><b>{{ l.name }}</b> is my {{ kindName(l.kind) }} of that name</span
            >
          </label>
          <span class="soft small">{{
            l.isAlike ? l.about : `theirs: ${l.about || '–'}; yours: ${l.asAbout || '–'}`
          }}</span>
        </li>
      </ul>
    </section>

    <section v-if="differing" aria-labelledby="differ-title">
      <div class="head">
        <h3 id="differ-title">Here and there, and not the same</h3>
        <div class="all">
          <span class="soft small">for all:</span>
          <ChoiceKeys
            label="For all of them"
            :options="sides"
            :model-value="forAll"
            @update:model-value="chooseForAll"
          />
        </div>
      </div>
      <ul class="rows">
        <li v-for="d in look.differing" :key="atKey(d)">
          <div class="what">
            <span class="soft small">{{ kindName(d.kind) }}</span>
            <b>{{ d.name }}</b>
            <span v-if="d.about" class="soft small">{{ d.about }}</span>
          </div>
          <table class="both">
            <thead>
              <tr>
                <th scope="col"><span class="visually-hidden">What</span></th>
                <th scope="col">yours</th>
                <th scope="col">theirs</th>
              </tr>
            </thead>
            <tbody>
              <tr v-for="f in d.fields" :key="f.path">
                <th scope="row">{{ fieldWords(f.path) }}</th>
                <td :class="{ goes: sideOf(d) === 'theirs' }">{{ f.ours }}</td>
                <td :class="{ goes: sideOf(d) === 'ours' }">{{ f.theirs }}</td>
              </tr>
            </tbody>
          </table>
          <p v-if="d.more" class="soft small">{{ `and ${some(d.more, 'further field')}` }}</p>
          <ChoiceKeys
            :label="`${kindName(d.kind)} ${d.name}`"
            :options="sides"
            :model-value="sideOf(d)"
            @update:model-value="own.set(atKey(d), $event)"
          />
        </li>
      </ul>
      <p v-if="differing > look.differing.length" class="soft small">
        {{ `and ${some(differing - look.differing.length, 'more')}, for which “for all” holds` }}
      </p>
    </section>

    <div class="acts">
      <BButton v-if="does" variant="primary" @click="bring">Bring it in</BButton>
      <p v-else role="status">
        {{
          isNothingNew(look)
            ? 'Everything in it is here already.'
            : 'As you chose, nothing would change: there is nothing new in it, and yours stays.'
        }}
      </p>
      <button type="button" class="btn btn-plain" @click="$emit('leave')">Leave all as it is</button>
    </div>
  </div>
</template>

<style scoped>
.preview {
  margin-top: 0.7rem;
  display: grid;
  gap: 0.8rem;
}
.preview p {
  margin: 0;
}
.big {
  font-size: 1.1rem;
  font-weight: 600;
}
h3 {
  font-size: 1rem;
  margin: 0 0 0.2rem;
}
.counts {
  display: flex;
  flex-wrap: wrap;
  gap: 0.8rem 2rem;
}
.counts ul {
  columns: 14rem 2;
  list-style: none;
  margin: 0;
  padding: 0;
}
.counts > :first-child {
  flex: 1 1 20rem;
}
.rows {
  list-style: none;
  margin: 0.3rem 0 0;
  padding: 0;
}
.rows > li {
  padding: 0.6rem 0;
  border-bottom: 1px solid var(--line);
}
.check {
  display: flex;
  gap: 0.6rem;
  align-items: center;
  min-height: var(--touch);
}
.check input {
  margin: 0;
  flex: none;
}
.head {
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  gap: 0.4rem 1rem;
  align-items: center;
}
.all,
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 0.5rem;
  align-items: center;
}
.what {
  display: flex;
  flex-wrap: wrap;
  gap: 0 0.7rem;
  align-items: baseline;
}
.both {
  width: 100%;
  margin: 0.3rem 0;
  table-layout: fixed;
}
.both th {
  font-weight: 400;
  text-align: left;
  color: var(--ink-soft);
}
.both td,
.both th {
  padding: 0.15rem 0.6rem 0.15rem 0;
  overflow-wrap: anywhere;
  vertical-align: top;
}
.both td.goes {
  color: var(--ink-soft);
  text-decoration: line-through;
}
</style>
