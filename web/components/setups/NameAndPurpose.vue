<script setup lang="ts">
import { useId } from 'vue'
import type { Purpose } from '#contract/kept'
import { keptForWords } from '../../support/setupWords.ts'

/** What something is kept as, and what for: the head of every form that keeps one. */
defineProps<{ fault: string | null; placeholder: string }>()
const name = defineModel<string>('name', { required: true })
const purposes = defineModel<Purpose[]>('purposes', { required: true })
const id = useId()
const all = Object.keys(keptForWords) as Purpose[]
const toggle = (p: Purpose) =>
  (purposes.value = purposes.value.includes(p)
    ? purposes.value.filter((x) => x !== p)
    : [...purposes.value, p])
</script>

<template>
  <div class="wide">
    <label class="form-label" :for="id">Name</label>
    <input
      :id="id"
      v-model="name"
      data-first
      class="form-control"
      :class="{ 'is-invalid': fault }"
      :aria-invalid="fault ? true : undefined"
      maxlength="80"
      :placeholder="placeholder"
    />
    <p v-if="fault" class="fault" role="alert">{{ fault }}</p>
  </div>
  <div class="wide">
    <p :id="`${id}-for`" class="form-label">What it is for</p>
    <div class="choice" role="group" :aria-labelledby="`${id}-for`">
      <button v-for="p in all" :key="p" type="button" :aria-pressed="purposes.includes(p)" @click="toggle(p)">
        {{ keptForWords[p] }}
      </button>
    </div>
  </div>
</template>
