import { useTitle } from '@vueuse/core'
import { computed } from 'vue'

/** Names the page, and what it is about, in the browser's own title; what tells two tabs apart comes first. */
export function usePageTitle(of: () => string): void {
  useTitle(computed(() => [of(), 'Wild Spring'].filter(Boolean).join(' · ')))
}
