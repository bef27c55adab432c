<script setup lang="ts">
import { causeLabel } from '#core/causes/kinds'
import { metricRules, wholeRules, type MetricLine } from '#core/causes/metricRules'
import TableFrame from './TableFrame.vue'

/** What sensor figures speak for, as the judgement has it. */
const weightWords = (s: MetricLine['says'][number]) =>
  `${s.weight < 0 || (s.slope ?? 0) < 0 ? '−' : '+'}${Math.abs(s.weight).toFixed(1)}${s.slope ? `, and ${Math.abs(s.slope)} for each beyond` : ''}${s.most ? `, at most ${s.most}` : ''}`
</script>

<template>
  <p>
    Plus speaks for a cause, minus against it. A figure with too few hits, trains or braking stretches says
    nothing. These are considered guesses held against simulated rides, not measurements of riders.
  </p>
  <TableFrame>
    <thead>
      <tr>
        <th scope="col">Figure</th>
        <th scope="col">Beyond</th>
        <th scope="col">Speaks</th>
      </tr>
    </thead>
    <tbody>
      <template v-for="r in metricRules" :key="r.topic">
        <tr v-for="l in r.lines" :key="l.when">
          <th scope="row">{{ r.label }}</th>
          <td class="num">{{ `${l.when} ${l.from}` }}</td>
          <td>
            <span v-for="x in l.says" :key="x.kind" class="cause"
              >{{ causeLabel(x.kind, null) }} <b class="num">{{ weightWords(x) }}</b></span
            >
          </td>
        </tr>
      </template>
      <tr v-for="w in wholeRules" :key="w.topic">
        <th scope="row">{{ w.label }}</th>
        <td></td>
        <td>{{ w.says }}</td>
      </tr>
    </tbody>
  </TableFrame>
</template>

<style scoped>
.cause {
  display: block;
}
</style>
