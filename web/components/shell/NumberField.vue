<script setup lang="ts">
import { computed, useId } from 'vue'

/** A number with its unit; takes a comma or a point; empty is null. */
const props = defineProps<{
  label: string
  unit?: string
  hint?: string
  fault?: string | null
  placeholder?: string
}>()
const model = defineModel<number | null>({ required: true })

const id = useId()
const shown = computed(() => (model.value === null || Number.isNaN(model.value) ? '' : String(model.value)))
function read(e: Event) {
  const text = (e.target as HTMLInputElement).value.trim().replace(',', '.')
  model.value = text === '' ? null : Number(text)
}
const broken = computed(() => (Number.isNaN(model.value) ? 'Enter a number.' : (props.fault ?? null)))
</script>

<template>
  <div>
    <label class="form-label" :for="id">{{ label }}</label>
    <div class="box">
      <input
        :id="id"
        class="form-control num"
        :class="{ 'is-invalid': broken }"
        inputmode="decimal"
        autocomplete="off"
        :value="shown"
        :placeholder="placeholder"
        :aria-describedby="`${id}-more`"
        @change="read"
      />
      <span v-if="unit" class="unit">{{ unit }}</span>
    </div>
    <p :id="`${id}-more`" class="more small" :class="broken ? 'fault' : 'soft'">{{ broken ?? hint }}</p>
  </div>
</template>

<style scoped>
.box {
  position: relative;
}
.box input {
  padding-right: 3.2rem;
  background-image: none;
}
.unit {
  position: absolute;
  right: 0.8rem;
  top: 50%;
  translate: 0 -50%;
  color: var(--ink-soft);
}
.more {
  margin: 0.15rem 0 0;
}
.fault {
  color: var(--rust);
  font-weight: 600;
}
</style>
