<script lang="ts">
import { backStack } from '../../support/backStack.ts'

let stack: ReturnType<typeof backStack> | null = null
</script>

<script setup lang="ts">
import { nextTick, onBeforeUnmount, watch } from 'vue'

/**
 * The frame of every dialog: Back closes it and not its page, the keyboard is back where it was when it closes, and its
 * title is a heading in order.
 */
defineProps<{
  title: string
  size?: 'lg' | 'xl'
  /** Only its own buttons close it: a tap beside it would lose work. */
  firm?: boolean
}>()
const open = defineModel<boolean>('open', { required: true })

let forget: (() => void) | null = null
let from: HTMLElement | null = null
watch(
  open,
  (is) => {
    if (is && !forget) {
      from = document.activeElement instanceof HTMLElement ? document.activeElement : null
      stack ??= backStack(history, window)
      forget = stack.push(() => (open.value = false))
    } else if (!is) closed()
  },
  { immediate: true },
)
onBeforeUnmount(closed)
function closed(): void {
  forget?.()
  forget = null
}
async function hidden(): Promise<void> {
  await nextTick()
  // What opened it may be gone by now, and another dialog may have come up from it.
  if (document.querySelector('.modal.show')) return
  const to = from?.isConnected && from !== document.body ? from : document.getElementById('main')
  to?.focus({ preventScroll: true })
}
</script>

<template>
  <BModal
    v-model="open"
    lazy
    unmount-lazy
    no-animation
    no-footer
    title-tag="h2"
    title-class="dialog-title"
    header-close-label="Close"
    :title="title"
    :size="size"
    :no-close-on-backdrop="firm"
    @hidden="hidden"
  >
    <slot />
  </BModal>
</template>
