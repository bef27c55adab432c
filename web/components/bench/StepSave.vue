<script setup lang="ts">
import { computed, ref } from 'vue'
import { useRouter } from 'vue-router'
import { adjusterName } from '#core/adjusters/words'
import { countBaseWords } from '#core/adjusters/count'
import { knownWords } from '#core/setup/known'
import { knownTitle } from '../../support/knownTitle.ts'
import { useUnits } from '../../composables/useUnits.ts'
import { useBench } from '../../stores/bench.ts'
import { useNotices } from '../../stores/notices.ts'
import { localToday, shortDayWords } from '../../support/dates.ts'
import { stepWords } from '#core/bench/stepWords'
import EndMark from '../shell/EndMark.vue'
import PrintLinks from './PrintLinks.vue'
import WeatherCard from './WeatherCard.vue'

/** The end of the bench: everything on one page, named and kept. */
const bench = useBench()
const notices = useNotices()
const router = useRouter()
const { positionWords } = useUnits()
const name = ref(`Baseline, ${shortDayWords(localToday())}`)
const busy = ref(false)
const open = computed(() =>
  bench.states.filter((s) => s.step !== 'save' && s.state !== 'done' && s.state !== 'skipped'),
)
const fault = computed(() => (name.value.trim() ? null : 'Give the baseline a name.'))
const rows = computed(() =>
  bench.units.map((u) => ({
    u,
    sag: bench.sagNowPct(u.end),
    lines: u.adjusters.map((a) => ({
      id: a.id,
      name: adjusterName(a),
      at: bench.positionOf(a.id) === null ? '?' : positionWords(a, bench.positionOf(a.id)!),
      how: knownWords[bench.knownOf(a.id)?.how ?? 'unread'],
      title: knownTitle(bench.knownOf(a.id)),
      base: countBaseWords(a),
    })),
  })),
)
async function keep() {
  if (fault.value) return
  busy.value = true
  const ok = await notices.attempt(() => bench.finish(name.value.trim()))
  busy.value = false
  if (ok) notices.show('The baseline is saved; a trail day starts from it.')
}
</script>

<template>
  <div class="step">
    <div v-if="bench.bench!.finishedSetupId" class="done">
      <h2>{{ name }} is on the bike</h2>
      <PrintLinks v-if="bench.bike" :bike-id="bench.bike.id" />
      <div class="acts">
        <BButton variant="sun" @click="router.push('/')">To a trail day</BButton>
        <BButton variant="plain" @click="router.push('/garage')">To the garage</BButton>
      </div>
    </div>
    <template v-else>
      <p v-if="open.length" class="caution">
        {{
          `Not shown to be right: ${open.map((s) => stepWords[s.step].toLowerCase()).join('; ')}. It can be saved like this; what is open stays marked, and what is unread stays unread.`
        }}
      </p>
      <div class="ends">
        <section v-for="r in rows" :key="r.u.id">
          <h2><EndMark :end="r.u.end" /> {{ r.u.end === 'front' ? 'Front' : 'Rear' }}, {{ r.u.name }}</h2>
          <dl class="num">
            <dt>Sag</dt>
            <dd>
              {{
                r.sag === null
                  ? 'not read at this pressure'
                  : `${r.sag.toFixed(1)} %, target ${r.u.sagTargetPct} %`
              }}
            </dd>
            <template v-for="l in r.lines" :key="l.id">
              <dt>{{ l.name }}</dt>
              <dd>
                <b>{{ `${l.at} ` }}</b>
                <span class="soft small" :title="l.title">{{
                  [l.base, l.how].filter(Boolean).join(', ')
                }}</span>
              </dd>
            </template>
          </dl>
        </section>
      </div>
      <p v-if="!bench.hasBaseline" class="caution" role="status">
        Nothing was set or read on this bench yet, so there is no baseline to save. A pressure that was
        pumped, a dial that was counted, or one sag reading is a beginning.
      </p>
      <form v-else class="name" @submit.prevent="keep">
        <div>
          <label class="form-label" for="baseline-name">Name of the baseline</label>
          <BFormInput id="baseline-name" v-model="name" maxlength="80" autocomplete="off" />
          <p v-if="fault" class="fault" role="alert">{{ fault }}</p>
        </div>
        <BButton type="submit" variant="primary" :disabled="busy">Save this baseline</BButton>
      </form>
    </template>
    <WeatherCard />
  </div>
</template>

<style scoped>
.step {
  display: grid;
  gap: 1rem;
}
p {
  margin: 0;
}
.ends {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(260px, 1fr));
  gap: 0.6rem 2rem;
}
dl {
  display: grid;
  grid-template-columns: auto 1fr;
  gap: 0.15rem 1rem;
  margin: 0.3rem 0 0;
}
dt {
  font-weight: 400;
}
dd {
  margin: 0;
}
.name {
  display: flex;
  flex-wrap: wrap;
  gap: 0.6rem;
  align-items: end;
}
.name > div {
  flex: 1 1 240px;
}
.acts {
  display: flex;
  gap: 0.5rem;
  margin-top: 0.8rem;
}
.done {
  border-left: 6px solid var(--moss);
  padding-left: 1rem;
}
</style>
