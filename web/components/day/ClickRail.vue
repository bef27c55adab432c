<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Adjuster } from '#contract/adjuster'
import type { End } from '#contract/common'
import type { Known } from '#contract/setup'
import type { Bracket } from '#core/adviser/bracket'
import { countBaseWords, fromCount, toCount } from '#core/adjusters/count'
import { adjusterRange, canStandAt } from '#core/adjusters/range'
import { adjusterName, effectWord, familyOf, turnSign } from '#core/adjusters/words'
import { knownWords } from '#core/setup/known'
import { fromChosen } from '#core/units/choice'
import { useRailGesture } from '../../composables/useRailGesture.ts'
import { useUnits } from '../../composables/useUnits.ts'
import { knownTitle } from '../../support/knownTitle.ts'
import { vRoving } from '../../support/roving.ts'
import { railScale, railStep } from '../../support/rail.ts'

/** One adjuster on its rail. `value` null: nobody has read it; a tap or digits then say where it stands. */
const props = defineProps<{
  end: End
  adjuster: Adjuster
  value: number | null
  known?: Known | null
  target?: number
  ghost?: number | null
  bracket?: Bracket | null
  detail?: string
  /** Shown, not to be turned: a past day. */
  locked?: boolean
}>()
const emit = defineEmits<{ choose: [value: number]; apply: []; drop: [] }>()
const { units, positionNumber, positionWords, unitWord } = useUnits()

const shown = computed(() => props.target ?? props.value)
const scale = computed(() =>
  railScale(
    props.adjuster,
    [props.value, shown.value, props.ghost, ...(props.bracket?.tried.map((t) => t.value) ?? [])].filter(
      (v) => typeof v === 'number',
    ),
  ),
)
const percent = (v: number) => `${(100 * Math.min(1, Math.max(0, scale.value.at(v)))).toFixed(2)}%`
const name = computed(() => adjusterName(props.adjuster))
const family = computed(() => familyOf(props.adjuster))
const dot = computed(() =>
  family.value === 'rebound'
    ? 'rebound'
    : family.value === 'compression' || family.value === 'lever'
      ? 'compression'
      : null,
)
const levers = computed(() => (props.adjuster.kind === 'lever' ? props.adjuster.positions : null))
const base = computed(() => countBaseWords(props.adjuster))
const how = computed(() => (props.value === null ? 'unread' : (props.known?.how ?? 'set')))
const howTitle = computed(() => knownTitle(props.known ?? null))
const moved = computed(() => props.target !== undefined && props.target !== props.value)
const signs = { better: '▲', worse: '▼', unclear: '◆', start: '○' } as const
const best = computed(() =>
  // Open on both sides, it would only say that the part has a range.
  props.bracket && !(props.bracket.lowOpen && props.bracket.highOpen)
    ? {
        left: percent(Math.max(scale.value.min, props.bracket.low)),
        right: percent(Math.min(scale.value.max, props.bracket.high)),
        open: { low: props.bracket.lowOpen, high: props.bracket.highOpen },
      }
    : null,
)
const ghostTurn = computed(() =>
  typeof props.ghost !== 'number' || props.value === null
    ? ''
    : (turnSign(props.adjuster, props.value, props.ghost) ?? '→'),
)
const placeWords = computed(() =>
  shown.value === null ? 'not read' : positionWords(props.adjuster, shown.value),
)
const label = computed(() => `${props.end} ${name.value}, ${placeWords.value} ${base.value}`)

const track = ref<HTMLElement>()
const say = (v: number) => !props.locked && emit('choose', v)
const { drag, on } = useRailGesture(track, (share) => say(scale.value.valueAt(share)))
const listeners = computed(() => (props.locked ? {} : on))
/** Where the peg is drawn: under the finger while it is dragged. */
const pegAt = computed(() => (drag.value === null ? shown.value : scale.value.valueAt(drag.value)))

/** Whether the number that is shown rises with the stored one: counted from open it falls. */
const isRising = computed(() => {
  const { min, max } = adjusterRange(props.adjuster)
  return toCount(props.adjuster, max) > toCount(props.adjuster, min)
})
/** One step either way; the sign is that of the number that is shown. */
const steps = computed(() =>
  ([-1, 1] as const).map((direction) => {
    const from = shown.value
    const to = from === null ? null : railStep(props.adjuster, from, direction)
    return {
      direction,
      to,
      sign: direction > 0 === isRising.value ? '+' : '−',
      label:
        from === null
          ? `${props.end} ${name.value}: not read, so not stepped`
          : to === null
            ? `${props.end} ${name.value}: no further`
            : `${props.end} ${name.value} one step ${effectWord(props.adjuster, from, to)}`,
    }
  }),
)
const step = (direction: -1 | 1) => {
  const to = steps.value.find((s) => s.direction === direction)?.to
  if (typeof to === 'number') say(to)
}
const nearest = (share: number) => scale.value.valueAt(share)
/** Five steps, or as many as are left. */
const strideSteps = 5
function stride(direction: -1 | 1) {
  let to = shown.value
  for (let i = 0; i < strideSteps && to !== null; i++) to = railStep(props.adjuster, to, direction) ?? to
  if (to !== null && to !== shown.value) say(to)
}
const typed = ref('')
let typedAt = 0
function key(e: KeyboardEvent) {
  if (props.locked || e.ctrlKey || e.metaKey || e.altKey) return
  const direction =
    e.key === 'ArrowRight' || e.key === 'ArrowUp'
      ? 1
      : e.key === 'ArrowLeft' || e.key === 'ArrowDown'
        ? -1
        : null
  // Whatever else is pressed ends a number.
  if (!/^[\d.,]$/.test(e.key)) typed.value = ''
  if (direction) step(direction)
  else if (e.key === 'Home' || e.key === 'End') say(nearest(e.key === 'Home' ? 0 : 1))
  else if (e.key === 'PageUp' || e.key === 'PageDown') stride(e.key === 'PageUp' ? 1 : -1)
  else if (e.key === 'Enter' && moved.value) emit('apply')
  else if (e.key === 'Escape' && moved.value) emit('drop')
  else if (/^[\d.,]$/.test(e.key)) {
    // Digits within a second belong to one number, in the part's own count.
    const digit = e.key.replace(',', '.')
    typed.value = e.timeStamp - typedAt < 1000 ? typed.value + digit : digit
    typedAt = e.timeStamp
    tryCount(Number(typed.value))
  } else return
  e.preventDefault()
  e.stopPropagation()
}
function tryCount(count: number) {
  try {
    const { kind } = props.adjuster
    const to =
      kind === 'pressure'
        ? fromChosen('pressure', count, units.value)
        : kind === 'spring-rate'
          ? fromChosen('springRate', count, units.value)
          : fromCount(props.adjuster, count)
    if (canStandAt(props.adjuster, to)) say(to)
  } catch {
    // Not a place on this dial; the next digit may make it one.
  }
}
</script>

<template>
  <div class="rail" :class="[end, how, { locked }]">
    <div class="head">
      <span class="name">
        <span v-if="dot" class="dot" :class="dot" aria-hidden="true"></span>{{ name }}
        <small v-if="detail" class="soft">{{ detail }}</small>
      </span>
      <small class="known" :title="howTitle">{{ knownWords[how] }}</small>
      <span v-if="!levers" class="value num">
        <b :class="{ moved }">{{ shown === null ? '?' : positionNumber(adjuster, shown) }}</b>
        <small>{{ unitWord(adjuster) }}</small>
      </span>
    </div>
    <div v-if="levers" v-roving class="levers" role="group" :aria-label="`${end} ${name}`">
      <button
        v-for="(p, i) in levers"
        :key="p"
        type="button"
        :disabled="locked"
        :aria-pressed="shown === i"
        :class="{ ghosted: ghost === i }"
        @click="say(i)"
      >
        {{ p }}
      </button>
    </div>
    <div v-else class="row" :class="{ bare: locked }">
      <button
        v-if="!locked"
        type="button"
        class="step"
        tabindex="-1"
        :disabled="steps[0].to === null"
        :aria-label="steps[0].label"
        @click="step(-1)"
      >
        {{ steps[0].sign }}
      </button>
      <div
        ref="track"
        class="track"
        role="slider"
        :tabindex="locked ? -1 : 0"
        :aria-label="label"
        :aria-disabled="locked || undefined"
        :aria-valuemin="scale.min"
        :aria-valuemax="scale.max"
        :aria-valuenow="shown ?? undefined"
        :aria-valuetext="placeWords"
        v-on="listeners"
        @keydown="key"
      >
        <span
          v-if="best"
          class="best"
          :class="{ 'open-low': best.open.low, 'open-high': best.open.high }"
          :style="{ left: best.left, right: `calc(100% - ${best.right})` }"
          title="the best place lies in here"
        ></span>
        <span class="line"></span>
        <span
          v-for="n in scale.notches"
          :key="n.value"
          class="notch"
          :class="{ major: n.major }"
          :style="{ left: percent(n.value) }"
        ></span>
        <span
          v-for="t in bracket?.tried ?? []"
          :key="t.value"
          class="tried"
          :class="t.outcome"
          :style="{ left: percent(t.value) }"
          >{{ signs[t.outcome] }}</span
        >
        <span
          v-if="typeof ghost === 'number' && value !== null && !moved"
          class="ghost"
          :style="{ left: percent(ghost) }"
          :title="`proposed: ${positionWords(adjuster, ghost)}, ${effectWord(adjuster, value, ghost)}`"
          ><i>{{ ghostTurn }}</i></span
        >
        <span v-if="moved && value !== null" class="was" :style="{ left: percent(value) }"></span>
        <span v-if="pegAt === null" class="peg unread-peg" aria-hidden="true">?</span>
        <span v-else class="peg" :class="{ moved }" :style="{ left: percent(pegAt) }"></span>
      </div>
      <button
        v-if="!locked"
        type="button"
        class="step"
        tabindex="-1"
        :disabled="steps[1].to === null"
        :aria-label="steps[1].label"
        @click="step(1)"
      >
        {{ steps[1].sign }}
      </button>
    </div>
  </div>
</template>

<style scoped>
.rail {
  --end: var(--front);
  padding: 0.15rem 0;
}
.head {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto auto;
  align-items: baseline;
  gap: 0 0.6rem;
}
.known {
  color: var(--ink-soft);
}
.unread .known,
.assumed .known {
  color: var(--rust);
  font-weight: 600;
}
.row {
  display: grid;
  grid-template-columns: 48px minmax(0, 1fr) 48px;
  align-items: center;
  gap: 0 0.6rem;
}
.row.bare {
  grid-template-columns: minmax(0, 1fr);
  padding: 0 0.6rem;
}
.step {
  width: 48px;
  height: 48px;
  border: 1px solid var(--line);
  border-radius: 10px;
  background: var(--card);
  color: var(--ink);
  font-size: 1.3rem;
  line-height: 1;
}
.step:disabled {
  opacity: 0.35;
}
.rail.rear {
  --end: var(--rear);
}
.name {
  font-weight: 600;
  font-size: 0.9rem;
  line-height: 1.15;
}
.name small {
  font-weight: 400;
  margin-left: 0.3rem;
}
.dot {
  display: inline-block;
  width: 9px;
  height: 9px;
  border-radius: 50%;
  margin-right: 5px;
  background: var(--anodised-compression);
  box-shadow: inset -1px -1px 2px rgb(0 0 0 / 30%);
}
.dot.rebound {
  background: var(--anodised-rebound);
}
.track {
  position: relative;
  height: var(--touch);
  cursor: pointer;
  touch-action: pan-y;
  border-radius: 8px;
}
.line {
  position: absolute;
  inset: 50% 0 auto;
  height: 2px;
  margin-top: -1px;
  background: var(--ink-soft);
}
.notch {
  position: absolute;
  top: calc(50% - 4px);
  width: 1px;
  height: 8px;
  background: var(--ink-soft);
}
.notch.major {
  top: calc(50% - 8px);
  height: 16px;
}
.best {
  position: absolute;
  top: calc(50% - 11px);
  height: 22px;
  background: var(--sun-soft);
  border-radius: 6px;
  min-width: 8px;
}
/* An open end fades: the best place may lie beyond what was tried. */
.best.open-low {
  border-radius: 0 6px 6px 0;
  background: linear-gradient(to right, transparent, var(--sun-soft) 35%);
}
.best.open-high {
  border-radius: 6px 0 0 6px;
  background: linear-gradient(to left, transparent, var(--sun-soft) 35%);
}
.tried {
  position: absolute;
  top: calc(50% - 22px);
  translate: -50% 0;
  font-size: 11px;
  line-height: 11px;
  color: var(--ink-soft);
}
.tried.better {
  color: var(--moss);
}
.tried.worse {
  color: var(--rust);
}
.peg {
  position: absolute;
  top: 50%;
  translate: -50% -50%;
  width: 16px;
  height: 16px;
  border-radius: 50%;
  background: var(--end);
  border: 2px solid var(--card);
  box-shadow: 0 0 0 1px var(--end);
  transition: left 0.15s;
}
.rear .peg {
  border-radius: 4px;
}
/* Assumed: light. Read: with its mark. Unread: hollow, and nowhere on the dial. */
.assumed .peg:not(.moved) {
  background: color-mix(in srgb, var(--end) 28%, var(--card));
}
.read .peg:not(.moved)::after {
  content: '';
  position: absolute;
  inset: 3px;
  border-radius: 50%;
  background: var(--card);
}
.peg.unread-peg {
  left: 50%;
  width: 22px;
  height: 22px;
  display: grid;
  place-items: center;
  background: var(--card);
  border: 2px dashed var(--end);
  box-shadow: none;
  color: var(--end);
  font-weight: 700;
  font-size: 13px;
}
.locked .track {
  cursor: default;
}
.peg.moved {
  background: var(--sun);
  box-shadow: 0 0 0 2px var(--end);
}
.was,
.ghost {
  position: absolute;
  top: 50%;
  translate: -50% -50%;
  width: 14px;
  height: 14px;
  border-radius: 50%;
  border: 2px dashed var(--end);
}
.rear .was,
.rear .ghost {
  border-radius: 4px;
}
.ghost i {
  position: absolute;
  top: -19px;
  left: 50%;
  translate: -50% 0;
  font-style: normal;
  font-weight: 700;
  font-size: 15px;
  color: var(--end);
}
.value {
  text-align: right;
  line-height: 1.05;
}
.value b {
  font-size: 1.12rem;
  margin-right: 0.25rem;
}
.value b.moved {
  text-decoration: underline;
  text-decoration-color: var(--sun);
  text-decoration-thickness: 3px;
}
.value small {
  color: var(--ink-soft);
  font-size: 0.75rem;
}
.levers {
  display: flex;
  gap: 8px;
}
.levers button {
  flex: 1;
  min-height: 44px;
  border: 1px solid var(--line);
  border-radius: 8px;
  background: var(--paper-deep);
  color: var(--ink);
  font-size: 0.88rem;
}
.levers button[aria-pressed='true'] {
  background: var(--end);
  border-color: var(--end);
  color: var(--card);
  font-weight: 650;
}
.levers .ghosted {
  border: 2px dashed var(--end);
}
</style>
