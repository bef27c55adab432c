import type { Directive } from 'vue'

const reachable = 'button:not([disabled]), a[href]'
const steps: Record<string, number | 'first' | 'last'> = {
  ArrowRight: 1,
  ArrowDown: 1,
  ArrowLeft: -1,
  ArrowUp: -1,
  Home: 'first',
  End: 'last',
}

/** Which of a group are its choices; a list may hold links that are none. */
const choices = new WeakMap<HTMLElement, string>()
const itemsOf = (group: HTMLElement) => [
  ...group.querySelectorAll<HTMLElement>(choices.get(group) ?? reachable),
]

/** One stop of the tab key: where the group was left, else what is chosen, else the first. */
function settle(group: HTMLElement): void {
  const items = itemsOf(group)
  const stop =
    items.find((x) => x === document.activeElement) ??
    items.find((x) => x.getAttribute('aria-pressed') === 'true') ??
    items.find((x) => x.tabIndex === 0 && x.hasAttribute('tabindex')) ??
    items[0]
  for (const x of items) x.tabIndex = x === stop ? 0 : -1
}

function key(e: KeyboardEvent): void {
  const step = steps[e.key]
  if (step === undefined || e.ctrlKey || e.metaKey || e.altKey) return
  const items = itemsOf(e.currentTarget as HTMLElement)
  const at = items.indexOf(document.activeElement as HTMLElement)
  if (at < 0) return
  const to =
    step === 'first' ? 0 : step === 'last' ? items.length - 1 : (at + step + items.length) % items.length
  items[at].tabIndex = -1
  items[to].tabIndex = 0
  items[to].focus()
  e.preventDefault()
  e.stopPropagation()
}

/** A list of choices as one tab stop; arrows, Home and End move within it. Its value, when given, selects the choices. */
export const vRoving: Directive<HTMLElement, string | undefined> = {
  mounted(group, binding) {
    if (binding.value) choices.set(group, binding.value)
    settle(group)
    group.addEventListener('keydown', key)
    group.addEventListener('focusin', () => settle(group))
  },
  updated: settle,
}
