<script setup lang="ts">
import { computed } from 'vue'
import IconPhone from '~icons/lucide/smartphone'
import IconDrop from '~icons/lucide/x'
import type { DayPlan } from '#contract/dayPlan'
import type { TentNote } from '#contract/tent'
import type { ClockSpan } from '#core/tent/clock'
import { adjusterName, positionWords } from '#core/adjusters/words'
import type { TentRow } from '../../composables/useTent.ts'
import { useUnits } from '../../composables/useUnits.ts'
import { planWords } from '../../support/planWords.ts'
import { sinceStartWords, whereWords } from '../../support/tentWords.ts'
import EndMark from '../shell/EndMark.vue'
import LaneTrack from './LaneTrack.vue'

/** One rider: who and where, the day by the clock, what is on the bike and what is next. */
const props = defineProps<{
  row: TentRow
  notes: readonly TentNote[]
  span: ClockSpan
  nowMs: number
  chosen: boolean
  /** Looked at by everybody: no way in, no reasons, nothing of what was put off. */
  wall: boolean
  /** Of the lane; null: there is no room for one. */
  lanePx: number | null
  heightPx: number
}>()
const emit = defineEmits<{
  choose: []
  later: [kept: TentNote | DayPlan, line?: string]
  drop: [kept: TentNote | DayPlan]
}>()
const { units } = useUnits()
const name = computed(() => props.row.day?.rider.name ?? '…')
const where = computed(() =>
  whereWords(props.row.rider.whereabouts, Date.parse(props.row.rider.since), props.nowMs),
)
/** For a rider who wants a number, the number; for the others what is said on the day. */
const next = computed(() => {
  const p = props.row.proposal
  if (!props.row.day) return 'being read …'
  if (!p) return 'being worked out …'
  if (props.row.rider.temper === 'reasons' || p.moves.length === 0) return p.headline
  return p.moves
    .map((m) => {
      const dial = props.row.day!.units.flatMap((u) => u.adjusters).find((a) => a.id === m.adjusterId)
      return dial
        ? `${m.end === 'front' ? 'Front' : 'Rear'} ${adjusterName(dial).toLowerCase()} ${positionWords(dial, m.to, units.value)}`
        : p.headline
    })
    .join(', ')
})
const why = computed(() =>
  props.row.rider.temper === 'reasons' ? (props.row.proposal?.speaksFor[0]?.text ?? '') : '',
)
const mostShown = 2
const changed = computed(() =>
  props.row.changed.map((m) => ({ end: m.end, ...sinceStartWords(m, units.value) })),
)
const plans = computed(() =>
  props.row.plans.map((p) => ({
    ...planWords(p),
    kept: p.kept,
    line: p.plan.line,
    holds: p.state.is === 'holds',
  })),
)
const tall = computed(() => props.heightPx >= 78)
/** Room for a reason under what is next. */
const roomy = computed(() => props.heightPx >= 98)
</script>

<template>
  <li class="row" :class="{ chosen, tall }" :style="{ minHeight: `${heightPx}px` }" @click="emit('choose')">
    <div class="who">
      <span class="name">
        <b v-if="wall"
          >{{ name }} <kbd>{{ row.rider.number }}</kbd></b
        >
        <button v-else type="button" :aria-pressed="chosen" @click.stop="emit('choose')">
          {{ name }} <kbd>{{ row.rider.number }}</kbd>
        </button>
        <RouterLink
          v-if="row.day && !wall"
          class="small"
          :to="{ name: 'day', params: { id: row.rider.id } }"
          :aria-label="`the day of ${name}`"
          @click.stop
          >the day</RouterLink
        >
      </span>
      <span class="soft small bike">{{ row.day?.bike.name }}</span>
      <span class="chips">
        <span class="chip" :class="row.rider.whereabouts">{{ where }}</span>
        <span
          v-if="row.reports.length && !wall"
          class="phone"
          role="img"
          aria-label="the phone says something"
          title="The phone says something"
          ><IconPhone aria-hidden="true"
        /></span>
      </span>
    </div>
    <LaneTrack
      v-if="lanePx !== null"
      :lane="row.lane"
      :rider="row.rider"
      :notes="wall ? [] : notes"
      :span="span"
      :now-ms="nowMs"
      :width-px="lanePx"
      :height-px="heightPx"
    />
    <div class="next">
      <p class="head">{{ next }}</p>
      <p v-if="why && roomy && !wall && !row.later.length && !plans.length" class="why small soft">
        {{ why }}
      </p>
      <p class="on num small">
        <template v-if="changed.length">
          <span v-for="c in changed.slice(0, mostShown)" :key="c.end + c.name"
            ><EndMark :end="c.end" small />{{ c.name }} <b>{{ c.at }}</b><span class="soft"
              >, {{ c.by }}</span
            ></span
          >
          <span v-if="changed.length > mostShown" class="soft">{{
            `and ${changed.length - mostShown} ${changed.length - mostShown === 1 ? 'other' : 'others'}`
          }}</span>
        </template>
        <span v-else-if="row.day" class="soft">all as it started</span>
      </p>
      <button
        v-for="n in wall ? [] : row.later"
        :key="n.id"
        type="button"
        class="btn btn-sm btn-plain later"
        @click.stop="emit('later', n)"
      >
        {{ `After the run: ${n.text}` }}
      </button>
      <span v-for="p in wall ? [] : plans" :key="p.kept.id" class="plan">
        <button
          type="button"
          class="btn btn-sm btn-plain later"
          :class="{ holds: p.holds }"
          @click.stop="emit('later', p.kept, p.line)"
        >
          <b v-if="p.state">{{ `${p.state} · ` }}</b>{{ p.text }}
        </button>
        <button
          type="button"
          class="btn btn-sm drop"
          :aria-label="`Drop the plan: ${p.text}`"
          title="Drop it"
          @click.stop="emit('drop', p.kept)"
        >
          <IconDrop aria-hidden="true" />
        </button>
      </span>
    </div>
  </li>
</template>

<style scoped>
.row {
  display: grid;
  grid-template-columns: 190px minmax(0, 1fr) 356px;
  align-items: stretch;
  border-bottom: 1px solid var(--line);
  background: color-mix(in srgb, var(--paper-deep) 45%, var(--paper));
  cursor: pointer;
}
.row.chosen {
  background: var(--card);
  box-shadow: inset 6px 0 0 var(--sun);
}
.chips {
  display: inline-flex;
  align-items: center;
  gap: 0.35rem;
}
.phone {
  display: inline-flex;
  padding: 0.2rem;
  border-radius: 6px;
  background: var(--sky);
  color: #fff;
}
.who,
.next {
  padding: 0.35rem 0.8rem;
  display: flex;
  flex-direction: column;
  justify-content: center;
  gap: 0.1rem;
  min-width: 0;
}
.who {
  border-right: 1px solid var(--line);
  padding-left: 1rem;
}
.next {
  border-left: 1px solid var(--line);
}
.row:not(.tall) .who {
  flex-flow: row nowrap;
  align-items: center;
  justify-content: flex-start;
  gap: 0 0.5rem;
}
.row:not(.tall) .bike,
.row:not(.tall) .name a {
  display: none;
}
.row:not(.tall) .next {
  padding-block: 0.15rem;
  gap: 0;
}
.name {
  display: flex;
  justify-content: space-between;
  align-items: baseline;
  gap: 0.6rem;
  white-space: nowrap;
}
.who b {
  font: 700 1.12rem / 1.2 var(--head-font);
}
.who button {
  border: 0;
  background: none;
  color: var(--ink);
  padding: 0;
  font: 700 1.12rem / 1.2 var(--head-font);
  text-align: left;
  min-height: 24px;
}
.bike {
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
}
.chip {
  align-self: flex-start;
  font-weight: 650;
  font-size: 0.88rem;
  line-height: 1.25;
  padding: 0.1rem 0.5rem;
  border-radius: 7px;
  background: var(--paper-deep);
  white-space: nowrap;
}
.chip.here {
  background: var(--sun);
  color: #1b2723;
}
.chip.out {
  background: var(--front-soft);
}
.chip.resting {
  outline: 1px dashed var(--ink-soft);
}
.next p {
  margin: 0;
  line-height: 1.25;
}
.head {
  font-weight: 650;
  display: -webkit-box;
  -webkit-box-orient: vertical;
  -webkit-line-clamp: 2;
  line-clamp: 2;
  overflow: hidden;
}
.row:not(.tall) .head {
  -webkit-line-clamp: 1;
  line-clamp: 1;
}
.why {
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
}
.on {
  display: flex;
  gap: 0 0.8rem;
  white-space: nowrap;
  overflow: hidden;
}
.on b {
  font-size: 1.05rem;
}
.later {
  align-self: flex-start;
  min-height: 28px;
  padding-block: 0;
}
.plan {
  display: flex;
  gap: 8px;
  min-width: 0;
}
.plan .later {
  display: block;
  text-align: left;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.holds {
  background: var(--sun);
  color: #1b2723;
}
.drop {
  min-height: 28px;
  padding: 0 0.4rem;
}
kbd {
  font: 600 0.85rem/1.1 var(--body-font);
  padding: 0.1rem 0.35rem;
  color: var(--ink);
  background: none;
  border: 1px solid var(--ink-soft);
  border-radius: 5px;
}
@media (max-width: 900px) {
  .row {
    grid-template-columns: 1fr;
    padding: 0.5rem 0;
  }
  .who,
  .row:not(.tall) .who {
    border: 0;
    flex-flow: row wrap;
    align-items: center;
    justify-content: flex-start;
    gap: 0.1rem 0.7rem;
  }
  .who button {
    min-height: 44px;
  }
  .chip {
    align-self: center;
  }
  .next {
    border: 0;
  }
  .on {
    flex-wrap: wrap;
    white-space: normal;
  }
  .later,
  .drop {
    min-height: 44px;
    min-width: 44px;
  }
  .plan .later {
    white-space: normal;
  }
  .row .head,
  .row:not(.tall) .head {
    -webkit-line-clamp: 3;
    line-clamp: 3;
  }
}
</style>
