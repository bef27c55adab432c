<script setup lang="ts">
import { computed } from 'vue'
import type { Adjuster } from '#contract/adjuster'
import { countBaseWords } from '#core/adjusters/count'
import { adjusterName, distanceWords, effectWord } from '#core/adjusters/words'
import type { ComparedDial } from '#core/lineage/compare'
import { useUnits } from '../../composables/useUnits.ts'
import { railScale } from '../../support/rail.ts'

/** One dial of two setups on its rail: hollow where the first has it, filled where the second has it; lighter where that is only assumed. */
const props = defineProps<{
  dial: ComparedDial
  /** There is nothing beside it: one peg, one number. */
  alone?: boolean
}>()
const { positionNumber, positionWords, units } = useUnits()

const a = computed<Adjuster>(() => (props.dial.first ?? props.dial.second)!)
const scale = computed(() =>
  railScale(
    a.value,
    [props.dial.from, props.dial.to].filter((v) => v !== null),
  ),
)
const width = 132
const at = (v: number) => 8 + (width - 16) * Math.min(1, Math.max(0, scale.value.at(v)))
const drawn = computed(
  () => props.dial.how === 'alike' || props.dial.how === 'moved' || props.dial.how === 'unread',
)
const number = (dial: Adjuster | null, v: number | null) =>
  dial === null ? '–' : v === null ? '?' : positionNumber(dial, v)
const isAssumed = computed(() => ({
  first: !props.alone && props.dial.fromHow === 'assumed',
  second: props.dial.toHow === 'assumed',
}))
/** Which of the two nobody set or read. */
const assumedWords = computed(() => {
  const { first, second } = isAssumed.value
  if (first && second) return 'both assumed'
  if (!first && !second) return ''
  if (props.alone) return 'assumed'
  if (props.dial.how === 'alike') return 'one assumed'
  return first
    ? `${number(props.dial.first, props.dial.from)} assumed`
    : `${number(props.dial.second, props.dial.to)} assumed`
})
const difference = computed(() => {
  const { first, second, from, to, how } = props.dial
  if (props.alone) return to === null ? 'not read' : ''
  if (how === 'only-one') return first ? 'not on the other unit' : 'only on the other unit'
  if (how === 'other-dial') return 'another dial: its clicks are not these'
  if (how === 'unread') return from === null && to === null ? 'not read on either' : 'not read on one'
  if (how === 'alike' || from === null || to === null) return 'alike'
  return `${distanceWords(first!, from, to, units.value)} ${effectWord(second!, from, to)}`
})
const words = computed(() =>
  [props.dial.how === 'alike' ? '' : difference.value, assumedWords.value].filter((w) => w !== ''),
)
const spoken = computed(() => {
  const { first, second, from, to } = props.dial
  const each = (d: Adjuster | null, v: number | null, assumed: boolean) =>
    d === null
      ? 'no such dial'
      : v === null
        ? 'not read'
        : `${positionWords(d, v)}${assumed ? ', assumed' : ''}`
  const there = each(second, to, isAssumed.value.second)
  if (props.alone) return `${adjusterName(a.value)}: ${there}`
  return `${adjusterName(a.value)}: ${each(first, from, isAssumed.value.first)}, then ${there}; ${difference.value}`
})
</script>

<template>
  <li :class="[dial.end, dial.how]" :aria-label="spoken">
    <span class="name"
      >{{ adjusterName(a) }}
      <small v-if="countBaseWords(a)" class="soft">{{ countBaseWords(a) }}</small></span
    >
    <svg :viewBox="`0 0 ${width} 26`" aria-hidden="true">
      <line class="rail" x1="8" :x2="width - 8" y1="13" y2="13" />
      <line
        v-for="n in scale.notches"
        :key="n.value"
        class="notch"
        :x1="at(n.value)"
        :x2="at(n.value)"
        :y1="n.major ? 6 : 9"
        :y2="n.major ? 20 : 17"
      />
      <template v-if="drawn">
        <line
          v-if="dial.how === 'moved'"
          class="way"
          :x1="at(dial.from!)"
          :x2="at(dial.to!)"
          y1="13"
          y2="13"
        />
        <circle
          v-if="dial.from !== null && !alone"
          class="first"
          :class="{ assumed: isAssumed.first }"
          :cx="at(dial.from)"
          cy="13"
          r="7"
        />
        <circle
          v-if="dial.to !== null"
          class="second"
          :class="{ assumed: isAssumed.second }"
          :cx="at(dial.to)"
          cy="13"
          :r="dial.how === 'alike' && !alone ? 4 : 7"
        />
      </template>
    </svg>
    <span class="nums num"
      >{{ number(dial.first, dial.from)
      }}<template v-if="!alone"> → {{ number(dial.second, dial.to) }}</template
      ><small v-for="w in words" :key="w">{{ w }}</small></span
    >
  </li>
</template>

<style scoped>
li {
  --end: var(--front);
  --soft: var(--front-soft);
  display: grid;
  /* One width for all rows, so that the rails stand below each other. */
  grid-template-columns: minmax(0, 1fr) 132px 116px;
  align-items: center;
  gap: 0 0.6rem;
  min-height: 40px;
  padding: 0.15rem 0;
}
li.rear {
  --end: var(--rear);
  --soft: var(--rear-soft);
}
.name {
  line-height: 1.2;
}
small {
  display: block;
  font-size: 0.82rem;
  font-weight: 400;
}
.nums {
  font-weight: 700;
  text-align: right;
  line-height: 1.2;
}
.alike .nums,
.only-one .nums {
  font-weight: 400;
}
svg {
  width: 132px;
  height: 26px;
}
line {
  stroke: var(--ink-soft);
}
.notch {
  stroke-opacity: 0.55;
}
.way {
  stroke: var(--soft);
  stroke-width: 9;
}
.first {
  fill: var(--card);
  stroke: var(--end);
  stroke-width: 3;
}
.second {
  fill: var(--end);
}
/* Nobody set or read it: light, and its ring in pieces. */
.assumed {
  fill: color-mix(in srgb, var(--end) 28%, var(--card));
  stroke: var(--end);
  stroke-width: 1.5;
  stroke-dasharray: 3 2.5;
}
.first.assumed {
  fill: var(--card);
  stroke-width: 3;
}
</style>
