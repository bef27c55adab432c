import { describe, expect, it } from 'vitest'
import { backStack } from './backStack.ts'

/** A history as browsers keep it, with a router that counts positions and hears what the stack lets through. */
function browser() {
  const target = new EventTarget()
  const entries: { state: unknown }[] = [{ state: { position: 0 } }]
  let at = 0
  const routed: unknown[] = []
  const history = {
    get state() {
      return entries[at].state
    },
    pushState(state: unknown) {
      entries.splice(at + 1)
      entries.push({ state })
      at++
    },
    back() {
      if (at === 0) return
      at--
      target.dispatchEvent(
        Object.assign(new Event('popstate', { cancelable: true }), { state: entries[at].state }),
      )
    },
    forward() {
      if (at === entries.length - 1) return
      at++
      target.dispatchEvent(
        Object.assign(new Event('popstate', { cancelable: true }), { state: entries[at].state }),
      )
    },
  }
  const stack = backStack(history, target)
  target.addEventListener('popstate', (e) =>
    routed.push((e as unknown as { state: { position: number } }).state.position),
  )
  const go = (position: number) => history.pushState({ position })
  return { history, stack, routed, go, length: () => entries.length }
}

describe('Back while a dialog is open', () => {
  it('closes it and leaves the page', () => {
    const b = browser()
    b.go(1)
    let open = true
    b.stack.push(() => (open = false))
    b.history.back()
    expect(open).toBe(false)
    expect(b.routed).toEqual([])
    expect(b.history.state).toEqual({ position: 1 })
    b.history.back()
    expect(b.routed).toEqual([0])
  })
  it('closes the topmost of two first', () => {
    const b = browser()
    const closed: string[] = []
    b.stack.push(() => closed.push('under'))
    b.stack.push(() => closed.push('over'))
    b.history.back()
    expect(closed).toEqual(['over'])
    b.history.back()
    expect(closed).toEqual(['over', 'under'])
    expect(b.routed).toEqual([])
  })
  it('one closed by hand costs no dead step', () => {
    const b = browser()
    b.go(1)
    b.stack.push(() => expect.unreachable())()
    b.history.back()
    expect(b.routed).toEqual([0])
  })
  it('one that opened a page as it closed: two steps lead to where it was opened and before', () => {
    const b = browser()
    b.go(1)
    b.stack.push(() => expect.unreachable())()
    b.go(2)
    b.history.back()
    expect(b.routed).toEqual([1])
    b.history.back()
    expect(b.routed).toEqual([1, 0])
  })
  it('opening again and again does not pile up entries', () => {
    const b = browser()
    for (let i = 0; i < 5; i++) b.stack.push(() => expect.unreachable())()
    expect(b.length()).toBe(2)
    let open = true
    b.stack.push(() => (open = false))
    b.history.back()
    expect(open).toBe(false)
  })
  it('Forward opens nothing and routes nowhere', () => {
    const b = browser()
    b.stack.push(() => undefined)
    b.history.back()
    b.history.forward()
    expect(b.routed).toEqual([])
  })
})
