<script setup lang="ts">
import { computed } from 'vue'
import type { SafeCopy } from '#contract/data'
import { endpoints } from '#contract/endpoints'
import { access } from '../api/door.ts'
import { apiBase, call } from '../api/client.ts'
import AboutThis from '../components/keeping/AboutThis.vue'
import BringBundle from '../components/keeping/BringBundle.vue'
import BroughtIn from '../components/keeping/BroughtIn.vue'
import CopyList from '../components/keeping/CopyList.vue'
import DataStrata from '../components/keeping/DataStrata.vue'
import ForgetRider from '../components/keeping/ForgetRider.vue'
import MakeBundle from '../components/keeping/MakeBundle.vue'
import RoomTaken from '../components/keeping/RoomTaken.vue'
import UploadProgress from '../components/importing/UploadProgress.vue'
import { useData } from '../composables/useData.ts'
import { usePageTitle } from '../composables/usePageTitle.ts'
import { useNotices } from '../stores/notices.ts'
import { useOutbox } from '../stores/outbox.ts'
import { becameWords, countWords, kindWords, sizeWords } from '../support/dataWords.ts'
import { dateTimeWords, dateWords } from '../support/dates.ts'

/** What is kept here, and how safely. */
usePageTitle(() => 'What is kept')
const { state, fault, busy, act, look } = useData()
const notices = useNotices()
const outbox = useOutbox()
const isOwner = computed(() => access.value === null || access.value.role === 'owner')
const last = computed(() => state.value?.copies[0] ?? null)
const dayMs = 86_400_000
const isOld = computed(() => !last.value || Date.now() - Date.parse(last.value.at) > 7 * dayMs)

const make = () =>
  act(async () => {
    const made = await call(endpoints.makeCopy, {})
    notices.show(`A safe copy of ${sizeWords(made.bytes)} is made, opened and checked.`)
  })
const cancel = () => notices.attempt(() => call(endpoints.cancelCopy, {}))
const remove = (c: SafeCopy) => act(() => call(endpoints.removeCopy, { name: c.name }))
async function putBack(c: SafeCopy) {
  const went = await act(() => call(endpoints.putBack, { name: c.name }))
  // Everything this page holds is of what is no more.
  if (went) location.reload()
}
const takeBack = (id: string) =>
  act(async () => {
    await call(endpoints.takeBack, { id })
    notices.show('Taken back: everything is as it was before.')
  })
const free = (removed: number) =>
  act(async () => {
    const { freedBytes } = await call(endpoints.freeRoom, {}, { removed })
    notices.show(`The data file is ${sizeWords(freedBytes)} smaller.`)
  })
const cancelBundle = () => notices.attempt(() => call(endpoints.cancelBundle, {}))
const plainFiles = [
  { name: 'runs.csv', words: 'Runs, CSV' },
  { name: 'changes.csv', words: 'Changes, CSV' },
  { name: 'setups.csv', words: 'Setups, CSV' },
]
</script>

<template>
  <div class="page data">
    <div class="page-head"><h1>What is kept</h1></div>
    <section v-if="!isOwner" class="card-paper">
      <p>What is kept, and its safe copies, are the owner’s.</p>
    </section>
    <p v-else-if="!state" class="soft" role="status">{{ fault || 'Looking …' }}</p>
    <template v-else>
      <section class="card-paper">
        <h2>In the data file</h2>
        <p class="big num">{{ countWords(state.counts) }}</p>
        <p class="soft">
          {{ state.since ? `Since ${dateWords(state.since)}` : 'No day yet' }},
          {{ sizeWords(state.fileBytes) }} in
          <code>{{ state.file }}</code>
        </p>
        <p v-if="state.keptAt">
          The data are kept by the libSQL server at <code>{{ state.keptAt }}</code>; what lies here is a copy
          to read from. Safe copies are made of it. What is done to the file as a whole – putting a copy back,
          bringing a bundle in, erasing a rider, freeing room – is done elsewhere: the guide “How far one
          machine carries” says how.
        </p>
        <DataStrata :state="state" />
        <RoomTaken :room="state.room" :busy="busy || state.keptAt !== null" @free="free" />
        <p class="soft small">
          {{
            outbox.letters.length
              ? `${outbox.letters.length} entries of this device wait to be sent; they are in no copy yet.`
              : 'Nothing of this device waits to be sent.'
          }}
        </p>
      </section>
      <section v-if="state.damaged.length" class="card-paper">
        <h2>Could not be read</h2>
        <p>
          When Wild Spring started, the bytes of these records were no text any more: a worn disk, or a hand
          in the file. What lay there is kept in the data file. A safe copy from before has them whole.
        </p>
        <ul class="lost">
          <li v-for="d in state.damaged" :key="`${d.kind} ${d.id} ${d.foundAt}`">
            <b>{{ kindWords[d.kind] ?? d.kind }}</b>
            <span>{{ becameWords(d) }}</span>
            <span class="soft small num">{{ dateTimeWords(d.foundAt) }}</span>
          </li>
        </ul>
      </section>
      <section class="card-paper">
        <div class="head">
          <h2>Safe copies</h2>
          <UploadProgress v-if="state.work" v-bind="state.work" @cancel="cancel" />
          <BButton v-else variant="primary" :disabled="busy" @click="make">Make one now</BButton>
        </div>
        <p v-if="state.fault" class="caution" role="alert">
          The copy of the day could not be made: {{ state.fault }}
        </p>
        <p v-if="isOld" class="caution">
          {{
            last
              ? `The last copy is of ${dateTimeWords(last.at)}.`
              : 'There is none yet; the first is made within a day.'
          }}
        </p>
        <p class="soft">
          One is made each day on which something was written, and before a newer version changes the tables.
          Each is opened and checked before it bears its name. The last of 7 days, 4 weeks and 12 months stay;
          those made by hand stay until you remove them.
        </p>
        <p v-if="state.follows?.fault" class="caution" role="alert">
          The copy in <code>{{ state.follows.folder }}</code> does not follow: {{ state.follows.fault }}
        </p>
        <p v-else-if="state.follows">
          Besides, a copy follows every save within about a second, in
          <code>{{ state.follows.folder }}</code>
          ({{
            state.follows.checkedAt
              ? `put together again and checked ${dateTimeWords(state.follows.checkedAt)}`
              : 'soon put together again and checked'
          }}).
        </p>
        <CopyList
          :copies="state.copies"
          :busy="busy"
          :can-put-back="state.keptAt === null"
          @back="putBack"
          @remove="remove"
        />
        <p class="soft small">
          They lie in <code>{{ state.copiesFolder }}</code>, with room for
          {{ sizeWords(state.freeBytes) }} more. A copy on the same disk is lost with it: name a folder on
          another one with <code>WILD_SPRING_COPIES</code>, or take one along.
        </p>
      </section>
      <MakeBundle :busy="busy" @make="act">
        <UploadProgress v-if="state.carrying" v-bind="state.carrying" @cancel="cancelBundle" />
      </MakeBundle>
      <BringBundle v-if="state.keptAt === null" :carrying="state.carrying" @work="act" />
      <BroughtIn :imports="state.imports" :busy="busy" @back="takeBack" />
      <section class="card-paper" aria-labelledby="plain-title">
        <h2 id="plain-title">Plain files</h2>
        <p>
          For a spreadsheet, or for whatever comes after Wild Spring: every run, every change, every setup,
          with units, names and how each number is known. Weights are in none of them. A day by itself is
          under “About this day”.
        </p>
        <p class="soft small">
          A table of settings that you kept until now is brought in on
          <RouterLink to="/setups">Setups</RouterLink>.
        </p>
        <p class="files">
          <a
            v-for="f in plainFiles"
            :key="f.name"
            class="btn btn-plain"
            :href="`${apiBase}/data/${f.name}`"
            download
            >{{ f.words }}</a
          >
        </p>
      </section>
      <ForgetRider v-if="state.keptAt === null" @erased="look" />
      <AboutThis />
    </template>
  </div>
</template>

<style scoped>
.data {
  max-width: 60rem;
  display: grid;
  gap: 1rem;
}
section {
  padding: 1rem 1.2rem;
}
section > p {
  margin: 0.5rem 0 0;
}
.big {
  font-size: 1.15rem;
  font-weight: 600;
}
.lost {
  list-style: none;
  margin: 0.6rem 0 0;
  padding: 0;
}
.lost li {
  display: flex;
  flex-wrap: wrap;
  gap: 0 1rem;
  padding: 0.4rem 0;
  border-bottom: 1px solid var(--line);
}
.files {
  display: flex;
  flex-wrap: wrap;
  gap: 0.5rem;
}
.head {
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  gap: 0.6rem;
  align-items: center;
}
code {
  overflow-wrap: anywhere;
}
</style>
