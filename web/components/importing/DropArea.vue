<script setup lang="ts">
import IconFile from '~icons/lucide/file-up'

/** Where a file is dropped or picked. */
const props = defineProps<{ file: File | null; invitation: string; hint: string; accept: string }>()
const emit = defineEmits<{ take: [file: File] }>()
const take = (f: File | undefined) => f && emit('take', f)
const pick = (e: Event) => take((e.target as HTMLInputElement).files?.[0])
const drop = (e: DragEvent) => take(e.dataTransfer?.files[0])
const sizeWords = () => (props.file ? `${(props.file.size / 1024).toFixed(0)} kB` : '')
</script>

<template>
  <label class="drop" @dragover.prevent @drop.prevent.stop="drop">
    <IconFile aria-hidden="true" />
    <span
      ><b>{{ file ? file.name : invitation }}</b
      >{{ file ? ` ${sizeWords()}` : '' }}</span
    >
    <span class="soft small">{{ hint }}</span>
    <input type="file" class="visually-hidden" :accept="accept" @change="pick" />
  </label>
</template>

<style scoped>
.drop {
  display: grid;
  justify-items: center;
  gap: 0.2rem;
  border: 2px dashed var(--ink-soft);
  border-radius: 12px;
  padding: 1.2rem;
  text-align: center;
  cursor: pointer;
  background: var(--paper);
}
.drop:focus-within {
  outline: 3px solid var(--sun);
}
.drop svg {
  width: 28px;
  height: 28px;
}
</style>
