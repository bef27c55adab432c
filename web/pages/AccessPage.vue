<script setup lang="ts">
import { v7 as uuid } from 'uuid'
import { computed, ref, shallowRef } from 'vue'
import type { AccessBook, GivenPass } from '#contract/access'
import { endpoints } from '#contract/endpoints'
import { access, askAccess } from '../api/door.ts'
import { call } from '../api/client.ts'
import ChangePassphrase from '../components/access/ChangePassphrase.vue'
import DeviceList from '../components/access/DeviceList.vue'
import GivenWayIn from '../components/access/GivenWayIn.vue'
import LetSomebodyIn from '../components/access/LetSomebodyIn.vue'
import { onReachAgain } from '../api/reach.ts'
import { usePageTitle } from '../composables/usePageTitle.ts'
import { useNotices } from '../stores/notices.ts'
import { dateTimeWords } from '../support/dates.ts'
import { attemptWords } from '../support/accessWords.ts'
import { oneAtATime } from '../support/oneAtATime.ts'

/** Who comes in: devices, ways in for others, tries at the door. */
usePageTitle(() => 'Who comes in')
const notices = useNotices()
const book = shallowRef<AccessBook | null>(null)
const given = shallowRef<GivenPass | null>(null)
const owner = computed(() => access.value?.role === 'owner' && access.value.door !== 'open')
async function load() {
  await askAccess()
  if (owner.value) book.value = await call(endpoints.getAccessBook, {})
}
void notices.attempt(load)
onReachAgain(() => !book.value && notices.attempt(load))

const act = (work: () => Promise<unknown>) =>
  notices.attempt(async () => {
    await work()
    await load()
  })
// Given twice, one of both would be a way in that nobody was shown.
const give = oneAtATime((role: 'coach' | 'wall', name: string, tentId: string | null) =>
  act(async () => {
    const id = uuid()
    given.value = await call(endpoints.givePass, { id }, { id, role, name, tentId })
  }),
)
const endSession = (id: string) => act(() => call(endpoints.endSession, { id }))
const takeBack = (id: string) => act(() => call(endpoints.takeBackPass, { id }))
const leave = (endpoint: typeof endpoints.signOut | typeof endpoints.endSessions) =>
  notices.attempt(async () => {
    await call(endpoint, {})
    location.replace('/')
  })
const asking = ref(false)
</script>

<template>
  <div class="page access">
    <div class="page-head"><h1>Who comes in</h1></div>
    <section v-if="access?.door === 'open'" class="card-paper">
      <h2>This server answers to this machine alone</h2>
      <p>Whoever sits here is the owner, and nothing asks. For a second laptop, a wall or riders’ phones:</p>
      <ol>
        <li>Start it with <code>WILD_SPRING_HOST=0.0.0.0</code> in the network of the tent.</li>
        <li>Open the page here, and set the owner’s passphrase with the code that the start prints.</li>
        <li>Let the others in from this page, by a link or its picture.</li>
      </ol>
      <p class="soft">
        Without a certificate what travels can be read by whoever shares the network, and phones can neither
        install the page nor record a voice. The guide “A lock for the door” says how to give it one.
      </p>
    </section>
    <section v-else-if="access?.role === 'coach'" class="card-paper">
      <h2>This device is signed in as a coach</h2>
      <p>It does all but remove what is the owner’s, and decide who comes in.</p>
      <p>
        <button type="button" class="btn btn-plain" @click="leave(endpoints.signOut)">
          Sign this device out
        </button>
      </p>
    </section>
    <template v-if="book">
      <GivenWayIn v-if="given" :given="given" :addresses="access?.addresses ?? []" @done="given = null" />
      <LetSomebodyIn v-else @give="give" />
      <p v-if="!access?.encrypted" class="caution">
        What travels here is not encrypted: whoever shares this network can read it. Use a network of your
        own, or give the server a certificate.
      </p>
      <section class="card-paper">
        <h2>Signed in</h2>
        <DeviceList :sessions="book.sessions" :passes="book.passes" @end="endSession" @take-back="takeBack" />
        <p class="acts">
          <button type="button" class="btn btn-plain" @click="leave(endpoints.signOut)">
            Sign this device out
          </button>
          <button v-if="!asking" type="button" class="btn btn-plain" @click="asking = true">
            Sign everybody out …
          </button>
          <template v-else>
            <b>Every device has to come in again, this one too.</b>
            <BButton variant="danger" @click="leave(endpoints.endSessions)">Sign everybody out</BButton>
            <button type="button" class="btn btn-plain" @click="asking = false">Leave them</button>
          </template>
        </p>
      </section>
      <div class="two">
        <section class="card-paper">
          <h2>Another passphrase</h2>
          <ChangePassphrase @changed="load" />
        </section>
        <section class="card-paper">
          <h2>Tries at the door</h2>
          <ul v-if="book.attempts.length" class="tries">
            <li v-for="a in book.attempts" :key="a.at" :class="{ failed: !a.opened }">
              <span class="num">{{ dateTimeWords(a.at) }}</span>
              <span>{{ attemptWords(a) }}</span>
              <span class="soft num">{{ a.from }}</span>
            </li>
          </ul>
          <p v-else class="soft">Nobody has tried.</p>
        </section>
      </div>
    </template>
  </div>
</template>

<style scoped>
.access {
  max-width: 60rem;
  display: grid;
  gap: 1rem;
}
.access > p {
  margin: 0;
}
section {
  padding: 1rem 1.2rem;
}
section > p,
section > ol {
  margin: 0.5rem 0 0;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 0.6rem;
  align-items: center;
}
.two {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(300px, 1fr));
  gap: 1rem;
  align-items: start;
}
.tries {
  list-style: none;
  margin: 0.4rem 0 0;
  padding: 0;
  max-height: 20rem;
  overflow-y: auto;
}
.tries li {
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  gap: 0 1rem;
  padding: 0.3rem 0;
  border-bottom: 1px solid var(--line);
}
.failed span:nth-child(2) {
  color: var(--rust);
  font-weight: 600;
}
</style>
