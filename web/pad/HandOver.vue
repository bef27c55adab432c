<script setup lang="ts">
import { computed } from 'vue'
import type { PadHandOver, PadReport } from '#contract/pad'
import QrPicture from '../components/shell/QrPicture.vue'

/** What waits, without a network: as a picture for the tent's camera, or as a file. */
const props = defineProps<{ waiting: readonly { dayId: string; report: PadReport }[] }>()
/** A code of more letters is too fine for a camera. */
const mostLetters = 1800
const text = computed(() => {
  const { dayId } = props.waiting[0]
  const handed: PadHandOver = {
    format: 'wild-spring-pad/1',
    dayId,
    reports: props.waiting
      .filter((w) => w.dayId === dayId)
      .map((w) => ({ report: { ...w.report, voiceId: null }, phoneNow: new Date().toISOString() }))
      // A report that is a voice and nothing else stays on the phone until there is a network.
      .filter(
        ({ report: r }) => r.against !== null || r.words.length > 0 || r.stopped !== null || r.text !== '',
      ),
  }
  return handed.reports.length ? JSON.stringify(handed) : ''
})
const href = computed(() => `data:application/json;charset=utf-8,${encodeURIComponent(text.value)}`)
</script>

<template>
  <h1>Hand it over in the tent</h1>
  <template v-if="text">
    <p>The mechanic opens Phones, then “A phone without signal”, and takes this picture or the file.</p>
    <QrPicture v-if="text.length <= mostLetters" :text="text" label="What waits on this phone" />
    <a class="big" :href="href" download="wild-spring-pad.json">Save it as a file</a>
  </template>
  <p>It stays on this phone until the tent has it. A spoken note goes by network only.</p>
</template>
