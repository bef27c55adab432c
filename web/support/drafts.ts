const prefix = 'wild-spring:'

/** Keeps something typed on this device until it is saved; survives reload and power loss. null forgets it. */
export function keepDraft(key: string, value: unknown): void {
  if (value === null) return forgetDraft(key)
  try {
    localStorage.setItem(prefix + key, JSON.stringify(value))
  } catch {
    // Full or blocked: a form still works, it only does not survive a reload.
  }
}

export function readDraft<T>(key: string): T | null {
  try {
    const text = localStorage.getItem(prefix + key)
    return text === null ? null : (JSON.parse(text) as T)
  } catch {
    return null
  }
}

export function forgetDraft(key: string): void {
  try {
    localStorage.removeItem(prefix + key)
  } catch {
    // Blocked: there is nothing to forget.
  }
}
