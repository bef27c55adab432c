<script setup lang="ts">
/** The frame that every form of a record shares: a dialog, its fields, one fault, one save. */
defineProps<{
  title: string
  saveLabel: string
  busy: boolean
  /** A fault whose field has no place of its own. */
  fault: string | null
  size?: 'lg' | 'xl'
}>()
const open = defineModel<boolean>('open', { required: true })
const emit = defineEmits<{ submit: [] }>()
</script>

<template>
  <BModal v-model="open" lazy unmount-lazy no-animation :title="title" :size="size" no-footer>
    <form class="field-grid" @submit.prevent="emit('submit')">
      <slot />
      <p v-if="fault" class="fault wide" role="alert">{{ fault }}</p>
      <div class="wide">
        <BButton type="submit" variant="primary" :disabled="busy">{{ saveLabel }}</BButton>
      </div>
    </form>
    <slot name="beside" />
  </BModal>
</template>
