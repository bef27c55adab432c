<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { v7 as uuid } from 'uuid'
import type { Bike } from '#contract/bike'
import { endpoints } from '#contract/endpoints'
import { shortName, adjusterName, positionWords } from '#core/adjusters/words'
import type { DateOrder } from '#core/formats/clock'
import type { ColumnUse } from '#core/notebook/column'
import { asDial, guessColumns } from '#core/notebook/columns'
import { dateOrderOf } from '#core/notebook/dates'
import { readNotebook, type NotedRow } from '#core/notebook/read'
import { recordsOf } from '#core/notebook/records'
import { call } from '../../api/client.ts'
import { useUnits } from '../../composables/useUnits.ts'
import { useGarage } from '../../stores/garage.ts'
import { useNotices } from '../../stores/notices.ts'
import { some } from '../../support/dataWords.ts'
import { dateWords, localToday } from '../../support/dates.ts'
import { readTable, textOf, type TableText } from '../../support/tableText.ts'
import DropArea from '../importing/DropArea.vue'
import DialogFrame from '../shell/DialogFrame.vue'

/** Settings of before, out of somebody's own table: what each column is is said, what comes of each row is seen, then all are kept. */
const props = defineProps<{ bike: Bike }>()
const open = defineModel<boolean>('open', { required: true })
const emit = defineEmits<{ kept: [setupId: string] }>()
const garage = useGarage()
const notices = useNotices()
const { units: choice } = useUnits()
const fitted = computed(() => garage.unitsOf(props.bike))

const text = ref('')
const fileName = ref('')
const heading = ref<boolean | null>(null)
const columns = ref<ColumnUse[]>([])
const order = ref<DateOrder | ''>('')
const noDate = ref('')
const fault = ref('')
const busy = ref(false)

const table = computed<TableText | null>(() =>
  text.value.trim() ? readTable(text.value, heading.value) : null,
)
watch(table, (t) => {
  columns.value = t ? guessColumns(t.header, t.rows, fitted.value) : []
  fault.value = text.value.trim() && !t ? 'There is no table in it: at least two columns, a row a line.' : ''
})
async function take(f: File) {
  fileName.value = f.name
  heading.value = null
  if (f.size > 2_000_000)
    return void (fault.value = 'A table of settings is at most 2 MB; copy the rows that matter.')
  const bytes = new Uint8Array(await f.arrayBuffer())
  if (bytes[0] === 0x50 && bytes[1] === 0x4b)
    return void (fault.value = 'This is a workbook. Save it as CSV, or copy its cells and paste them here.')
  text.value = textOf(bytes)
}

const dials = computed(() => fitted.value.flatMap((u) => u.adjusters.map((a) => ({ end: u.end, a }))))
const dialOf = (id: string) => dials.value.find((d) => d.a.id === id)
const uses = computed(() => [
  { value: 'ignore', text: 'not used' },
  { value: 'date', text: 'the day' },
  { value: 'name', text: 'its name' },
  { value: 'place', text: 'where it was ridden' },
  { value: 'note', text: 'a note' },
  ...dials.value.map(({ end, a }) => ({
    value: a.id,
    text: `${end}: ${adjusterName(a).toLowerCase()}${a.alias ? ` (${a.alias})` : ''}`,
  })),
])
const cellsOf = (i: number) => (table.value?.rows ?? []).map((r) => (r[i] ?? '').trim())
const samples = (i: number) => cellsOf(i).filter(Boolean).slice(0, 3).join(' · ')
const usedAs = (c: ColumnUse) => (c.use === 'dial' ? c.adjusterId : c.use)
function use(i: number, value: string) {
  const dial = dialOf(value)
  const next: ColumnUse = dial
    ? asDial(dial.end, dial.a, table.value!.header[i], cellsOf(i))
    : { use: value as 'ignore' | 'date' | 'name' | 'place' | 'note' }
  columns.value = columns.value.map((c, k) =>
    // One dial stands in one column; so does the day.
    k === i ? next : value !== 'note' && value !== 'ignore' && usedAs(c) === value ? { use: 'ignore' } : c,
  )
}
const change = (i: number, over: Partial<ColumnUse & { use: 'dial' }>) =>
  (columns.value = columns.value.map((c, k) => (k === i && c.use === 'dial' ? { ...c, ...over } : c)))
const bases = [
  { value: 'closed-0', text: 'from closed, the stop is 0' },
  { value: 'closed-1', text: 'from closed, the stop is 1' },
  { value: 'open', text: 'from open' },
]
const pressures = ['psi', 'bar', 'kPa'].map((u) => ({ value: u, text: u }))
const rates = ['N/mm', 'lb/in'].map((u) => ({ value: u, text: u }))
const kindOf = (c: ColumnUse) => (c.use === 'dial' ? dialOf(c.adjusterId)?.a.kind : undefined)

const dateCells = computed(() => columns.value.flatMap((c, i) => (c.use === 'date' ? cellsOf(i) : [])))
const foundOrder = computed(() => dateOrderOf(dateCells.value))
const needsOrder = computed(() => foundOrder.value === 'unclear')
const readIn = computed<DateOrder | null>(() =>
  needsOrder.value ? order.value || null : ((foundOrder.value as DateOrder | null) ?? 'dmy'),
)
const orders = [
  { value: '', text: 'choose …' },
  { value: 'dmy', text: 'day first: 3/4 is in April' },
  { value: 'mdy', text: 'month first: 3/4 is in March' },
]
const rows = computed<NotedRow[]>(() =>
  table.value && readIn.value && columns.value.length === table.value.header.length
    ? readNotebook(
        table.value.rows,
        table.value.lines,
        columns.value,
        fitted.value,
        readIn.value,
        noDate.value || null,
      )
    : [],
)
const today = localToday()
const fit = computed(() => rows.value.filter((r) => r.faults.length === 0 && r.date! <= today))
const unfit = computed(() =>
  rows.value
    .filter((r) => !fit.value.includes(r))
    .map((r) => ({ ...r, why: r.faults[0] ?? 'Its day has not come yet.' })),
)
/** So many are kept at a time, and shown. */
const most = 200
const hasUndated = computed(() => rows.value.some((r) => r.date === null))
const words = (r: NotedRow) =>
  r.positions
    .map((p) => {
      const d = dialOf(p.adjusterId)!
      const name = shortName(d.a) === adjusterName(d.a) ? adjusterName(d.a).toLowerCase() : shortName(d.a)
      return `${p.end} ${name} ${positionWords(d.a, p.value, choice.value)}`
    })
    .join(', ')

async function keep() {
  busy.value = true
  const noted = recordsOf(
    fit.value,
    props.bike,
    fileName.value || 'a pasted table',
    uuid,
    new Date().toISOString(),
  )
  const went = await notices.attempt(() => call(endpoints.putNoted, { id: props.bike.id }, noted))
  busy.value = false
  if (!went) return
  open.value = false
  emit('kept', noted.setups.at(-1)!.id)
  notices.show(
    `${some(noted.setups.length, 'setup')} of before ${noted.setups.length === 1 ? 'is' : 'are'} kept. The bike stands as it stood.`,
    'done',
    async () => {
      for (const { id } of noted.setups) await call(endpoints.deleteSetup, { id })
    },
  )
}
</script>

<template>
  <DialogFrame v-model:open="open" size="xl" firm :title="`Settings of before, ${bike.name}`">
    <p>
      A table that you kept until now: a row a setup, a column a dial. Copy its cells and paste them, or
      choose a CSV file.
    </p>
    <div class="two">
      <textarea
        v-model="text"
        rows="5"
        class="form-control num"
        aria-label="The table"
        placeholder="date&#9;fork psi&#9;fork rebound&#9;note"
        @input="fileName = ''"
      ></textarea>
      <DropArea
        :file="null"
        :invitation="fileName || 'Choose a CSV file, or drop it here'"
        hint="commas, semicolons or tabs"
        accept=".csv,.tsv,.txt,text/csv,text/plain"
        @take="take"
      />
    </div>
    <p v-if="fault" class="fault" role="alert">{{ fault }}</p>
    <template v-if="table">
      <label class="check">
        <input
          type="checkbox"
          class="form-check-input"
          :checked="table.hasHeading"
          @change="heading = ($event.target as HTMLInputElement).checked"
        />
        It begins with a heading
      </label>
      <h3>What the columns are</h3>
      <ul class="columns">
        <li v-for="(h, i) in table.header" :key="i">
          <span class="head"
            ><b>{{ h }}</b> <span class="soft small num">{{ samples(i) || 'empty' }}</span></span
          >
          <select
            class="form-select"
            :aria-label="`${h} is`"
            :value="columns[i] ? usedAs(columns[i]) : 'ignore'"
            @change="use(i, ($event.target as HTMLSelectElement).value)"
          >
            <option v-for="u in uses" :key="u.value" :value="u.value">{{ u.text }}</option>
          </select>
          <template v-if="columns[i]?.use === 'dial'">
            <BFormSelect
              v-if="kindOf(columns[i]) === 'click' || kindOf(columns[i]) === 'turn'"
              :aria-label="`${h} is counted`"
              :model-value="columns[i].base"
              :options="bases"
              @update:model-value="change(i, { base: $event as 'open' })"
            />
            <BFormSelect
              v-else-if="kindOf(columns[i]) === 'pressure'"
              :aria-label="`Unit of ${h}`"
              :model-value="columns[i].pressure"
              :options="pressures"
              @update:model-value="change(i, { pressure: $event as 'psi' })"
            />
            <BFormSelect
              v-else-if="kindOf(columns[i]) === 'spring-rate'"
              :aria-label="`Unit of ${h}`"
              :model-value="columns[i].rate"
              :options="rates"
              @update:model-value="change(i, { rate: $event as 'N/mm' })"
            />
          </template>
        </li>
      </ul>
      <div class="asked">
        <div v-if="needsOrder">
          <label class="form-label" for="table-order">Its days can be read two ways</label>
          <BFormSelect id="table-order" v-model="order" :options="orders" />
        </div>
        <div v-if="hasUndated">
          <label class="form-label" for="table-day">Day of rows without one</label>
          <input id="table-day" v-model="noDate" type="date" :max="today" class="form-control" />
        </div>
      </div>
      <template v-if="rows.length">
        <h3>What comes of it</h3>
        <ol class="come" aria-label="Setups that are kept">
          <li v-for="r in fit.slice(0, most)" :key="r.line">
            <b class="num">{{ dateWords(r.date!) }}</b>
            <span v-if="r.name || r.place">{{ [r.name, r.place].filter(Boolean).join(', ') }}</span>
            <span class="num">{{ words(r) }}</span>
            <span v-if="r.note" class="soft small">{{ r.note }}</span>
          </li>
        </ol>
        <p v-if="fit.length > most" class="soft small">
          {{ `and ${some(fit.length - most, 'further row')}` }}
        </p>
        <template v-if="unfit.length">
          <h4>{{ `Left out: ${some(unfit.length, 'row')}` }}</h4>
          <ul class="come" aria-label="Rows that are left out">
            <li v-for="r in unfit.slice(0, most)" :key="r.line">
              <b class="num">{{ `line ${r.line}` }}</b> <span>{{ r.why }}</span>
            </li>
          </ul>
          <p v-if="unfit.length > most" class="soft small">
            {{ `and ${some(unfit.length - most, 'further row')}` }}
          </p>
        </template>
      </template>
      <p class="caution">
        Clicks only mean the same on the unit they were counted on, from the same end of its range. What comes
        from a table is kept as assumed: the bike does not turn, and nothing is proposed from it.
      </p>
      <div class="acts">
        <BButton variant="primary" :disabled="busy || fit.length === 0 || fit.length > most" @click="keep">{{
          fit.length ? `Keep ${some(fit.length, 'setup')} of before` : 'Nothing to keep yet'
        }}</BButton>
        <BButton variant="plain" @click="open = false">Cancel</BButton>
        <span v-if="fit.length > most" class="fault">At most 200 rows at a time; take out some rows.</span>
      </div>
    </template>
  </DialogFrame>
</template>

<style scoped>
h3 {
  font-size: 1.05rem;
  margin: 0.9rem 0 0.2rem;
}
h4 {
  font-size: 1rem;
  margin: 0.7rem 0 0;
}
.two {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(260px, 1fr));
  gap: 0.8rem;
}
.check {
  display: flex;
  gap: 0.6rem;
  align-items: center;
  min-height: var(--touch);
}
.check input {
  margin: 0;
}
.columns,
.come {
  list-style: none;
  margin: 0;
  padding: 0;
}
.columns li {
  display: grid;
  grid-template-columns: minmax(0, 1.2fr) minmax(0, 1fr) minmax(0, 1fr);
  gap: 0.3rem 0.8rem;
  align-items: center;
  padding: 0.35rem 0;
  border-bottom: 1px solid var(--line);
}
.head {
  overflow-wrap: anywhere;
}
.asked {
  display: flex;
  flex-wrap: wrap;
  gap: 0.8rem;
  margin-top: 0.6rem;
}
.come {
  max-height: 16rem;
  overflow-y: auto;
}
.come li {
  display: flex;
  flex-wrap: wrap;
  gap: 0 0.8rem;
  padding: 0.3rem 0;
  border-bottom: 1px solid var(--line);
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 0.6rem;
  align-items: center;
}
@media (max-width: 560px) {
  .columns li {
    grid-template-columns: 1fr;
  }
}
</style>
