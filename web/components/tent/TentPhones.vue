<script setup lang="ts">
import { wrap, type Remote } from 'comlink'
import { computed, onScopeDispose, shallowRef, useTemplateRef } from 'vue'
import { endpoints } from '#contract/endpoints'
import { PadHandOver, type GivenPadLink } from '#contract/pad'
import type { TentBundle } from '#contract/tent'
import { access, askAccess } from '../../api/door.ts'
import { call } from '../../api/client.ts'
import type { TentRow } from '../../composables/useTent.ts'
import { useNotices } from '../../stores/notices.ts'
import { useOutbox } from '../../stores/outbox.ts'
import { dateTimeWords } from '../../support/dates.ts'
import { oneAtATime } from '../../support/oneAtATime.ts'
import type { CardWorker } from '../../workers/card.worker.ts'
import DialogFrame from '../shell/DialogFrame.vue'
import LinkAndPicture from '../shell/LinkAndPicture.vue'

/** A link for each rider's own phone; and what a phone without signal hands over. */
const props = defineProps<{ bundle: TentBundle; rows: readonly TentRow[] }>()
const open = defineModel<boolean>('open', { required: true })
const notices = useNotices()
const outbox = useOutbox()
void askAccess()
const given = shallowRef<{ link: GivenPadLink; name: string } | null>(null)
const nameOf = (r: TentRow) => r.day?.rider.name ?? `Rider ${r.rider.number}`
const list = computed(() =>
  [...props.rows]
    .sort((a, b) => a.rider.number - b.rider.number)
    .map((row) => ({ row, link: props.bundle.pads.find((p) => p.dayId === row.rider.id) ?? null })),
)
// Not through the outbox: a link is of use only where its server is in reach.
// Each new link of a rider ends the one before: the one that is shown must be the last.
const give = oneAtATime((row: TentRow) =>
  notices.attempt(async () => {
    given.value = { link: await call(endpoints.givePadLink, { id: row.rider.id }, {}), name: nameOf(row) }
  }),
)
const end = (row: TentRow) =>
  notices.attempt(async () => {
    await call(endpoints.endPadLink, { id: row.rider.id })
    if (given.value?.link.link.dayId === row.rider.id) given.value = null
    notices.show(`The link of ${nameOf(row)} has ended.`)
  })

const file = useTemplateRef<HTMLInputElement>('file')
let worker: Worker | null = null
let reader: Remote<CardWorker> | null = null
onScopeDispose(() => worker?.terminate())
async function takeFile() {
  const picked = file.value?.files?.[0]
  if (!picked) return
  worker ??= new Worker(new URL('../../workers/card.worker.ts', import.meta.url), { type: 'module' })
  reader ??= wrap<CardWorker>(worker)
  const handed = PadHandOver.safeParse(asJson(await reader.text(picked)))
  if (file.value) file.value.value = ''
  if (!handed.success)
    return notices.show(
      'That is not what a rider’s phone hands over. On the phone: Hand over, then its file, or a photo of its picture.',
      'error',
    )
  const { dayId, reports } = handed.data
  const row = props.rows.find((r) => r.rider.id === dayId)
  if (!row) return notices.show('That phone’s rider is not in this tent; open the tent of that day.', 'error')
  const ok = await notices.attempt(async () => {
    for (const sent of reports)
      await outbox.sendFile({
        kind: 'handedReport',
        key: `handedReport:${sent.report.id}`,
        params: { id: dayId, reportId: sent.report.id },
        body: sent,
        file: null,
      })
  })
  if (ok)
    notices.show(`${nameOf(row)}: ${reports.length} ${reports.length === 1 ? 'report' : 'reports'} taken.`)
}
function asJson(text: string | null): unknown {
  try {
    return JSON.parse(text ?? '')
  } catch {
    return null
  }
}
</script>

<template>
  <DialogFrame v-model:open="open" size="lg" title="Phones of the riders">
    <p>
      Each link is for one rider and shows no setting, no figure and no other rider. It adds how a run felt,
      and ends four days after the tent.
    </p>
    <section v-if="given" class="given">
      <h3>{{ `${given.name}’s phone` }}</h3>
      <LinkAndPicture
        :path="`/pad/${given.link.token}`"
        :addresses="access?.addresses ?? []"
        :label="`Link for the phone of ${given.name}`"
      >
        <p class="small soft">
          {{
            access?.encrypted
              ? 'The phone can record a voice, too.'
              : 'Over plain http a phone cannot record a voice, and opens the page only while this server is in reach; keys work, and what was said waits on an open page.'
          }}
        </p>
        <p><button type="button" class="btn btn-plain" @click="given = null">Done</button></p>
      </LinkAndPicture>
    </section>
    <ul v-else aria-label="Phones">
      <li v-for="{ row, link } in list" :key="row.rider.id">
        <b>{{ `${row.rider.number} ${nameOf(row)}` }}</b>
        <span class="soft small num">{{
          link
            ? `link until ${dateTimeWords(link.expiresAt)}, ${link.lastUsedAt ? `said something ${dateTimeWords(link.lastUsedAt)}` : 'not used yet'}`
            : 'no link'
        }}</span>
        <span class="acts">
          <button
            type="button"
            class="btn btn-sm btn-plain"
            :aria-label="`${link ? 'New link' : 'Link'} for ${nameOf(row)}`"
            @click="give(row)"
          >
            {{ link ? 'New link' : 'Make a link' }}
          </button>
          <button
            v-if="link"
            type="button"
            class="btn btn-sm soft"
            :aria-label="`End the link of ${nameOf(row)}`"
            @click="end(row)"
          >
            End it
          </button>
        </span>
      </li>
    </ul>
    <p class="handed">
      <label class="btn btn-plain"
        >A phone without signal
        <input
          ref="file"
          class="visually-hidden"
          type="file"
          accept="application/json,.json,image/*"
          @change="takeFile"
      /></label>
      <span class="small soft">its file, or a photo of its picture</span>
    </p>
  </DialogFrame>
</template>

<style scoped>
ul {
  list-style: none;
  margin: 0.4rem 0 0;
  padding: 0;
}
li {
  display: grid;
  grid-template-columns: 9rem minmax(0, 1fr) auto;
  gap: 0.2rem 0.8rem;
  align-items: center;
  min-height: 52px;
  border-bottom: 1px solid var(--line);
}
.acts {
  display: flex;
  gap: 6px;
}
.handed {
  display: flex;
  flex-wrap: wrap;
  gap: 0.7rem;
  align-items: center;
  margin: 0.8rem 0 0;
}
@media (max-width: 560px) {
  li {
    grid-template-columns: 1fr;
    padding: 0.4rem 0;
  }
}
</style>
