<script lang="ts">
import { backStack } from '../../support/backStack.ts'

let stack: ReturnType<typeof backStack> | null = null
</script>

<script setup lang="ts">
import { nextTick, onBeforeUnmount, useTemplateRef, watch } from 'vue'
import { useEventListener } from '@vueuse/core'
import { dialogsOpen } from '../../support/dialogsOpen.ts'

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
/** How many were open with it: only the one on top answers. */
let depth = 0
const body = useTemplateRef<HTMLElement>('body')

watch(
  open,
  (is) => {
    if (is && !forget) {
      from = document.activeElement instanceof HTMLElement ? document.activeElement : null
      stack ??= backStack(history, window)
      forget = stack.push(() => (open.value = false))
      depth = ++dialogsOpen.count
      void takeKeys()
    } else if (!is) closed()
  },
  { immediate: true, flush: 'post' },
)
onBeforeUnmount(closed)
function closed(): void {
  if (!forget) return
  forget()
  forget = null
  dialogsOpen.count--
  void handBack()
}
// What had the keyboard may be gone, or was left by a tap beside it: Escape is heard all the same.
useEventListener(document, 'keydown', (e) => {
  if (e.key !== 'Escape' || e.defaultPrevented || !forget || dialogsOpen.count !== depth) return
  if (document.activeElement === document.body) open.value = false
})
/** The first field that asks for it has the keyboard, else the dialog itself. */
async function takeKeys(): Promise<void> {
  await nextTick()
  const dialog = body.value?.closest<HTMLElement>('.modal')
  const first = body.value?.querySelector<HTMLElement>('[data-first]')
  if (first instanceof HTMLInputElement) first.select()
  ;(first ?? dialog)?.focus()
}
/** The next key belongs to what was there before. */
async function handBack(): Promise<void> {
  await nextTick()
  if (dialogsOpen.count > 0) return
  // What opened it may be gone by now.
  const to = from?.isConnected && from !== document.body ? from : document.getElementById('main')
  to?.focus({ preventScroll: true })
}
</script>

<template>
  <!-- Made anew each time: what is on its way out can neither be asked for nor take a key. -->
  <BModal
    v-if="open"
    :model-value="true"
    :focus="false"
    no-animation
    no-footer
    title-tag="h2"
    title-class="dialog-title"
    header-close-label="Close"
    :title="title"
    :size="size"
    :no-close-on-backdrop="firm"
    @update:model-value="(is: boolean) => is || (open = false)"
  >
    <div ref="body"><slot /></div>
  </BModal>
</template>
