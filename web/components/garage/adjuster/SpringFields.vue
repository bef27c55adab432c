<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Adjuster } from '#contract/adjuster'
import { typedSprings } from '#core/adjusters/typedSprings'
import { InputError } from '#core/errors'
import { chosenNumber } from '#core/units/choice'
import { useUnits } from '../../../composables/useUnits.ts'
import { useAdjuster } from './useAdjuster.ts'

const { units } = useUnits()
const adjuster = defineModel<Extract<Adjuster, { kind: 'spring-rate' }>>({ required: true })
const { set } = useAdjuster(adjuster)
const rates = computed(() =>
  adjuster.value.ratesNPerMm.map((r) => chosenNumber('springRate', r, units.value, 1)).join(' '),
)
const label = computed(() => `Springs owned, ${units.value.springRate}`)
/** What cannot be read stays as it was typed, and the springs as they were. */
const unread = ref<string | null>(null)
const fault = ref('')
function read(e: Event) {
  const text = (e.target as HTMLInputElement).value
  try {
    set({ ratesNPerMm: typedSprings(text, units.value) })
    unread.value = null
    fault.value = ''
  } catch (x) {
    if (!(x instanceof InputError)) throw x
    unread.value = text
    fault.value = x.message
  }
}
</script>

<template>
  <div>
    <label class="form-label"
      >{{ label
      }}<BFormInput :model-value="unread ?? rates" :aria-invalid="fault ? true : undefined" @change="read"
    /></label>
    <p v-if="fault" class="small fault" role="alert">{{ fault }}</p>
  </div>
</template>

<style scoped>
.fault {
  color: var(--rust);
  margin: 0.15rem 0 0;
}
</style>
