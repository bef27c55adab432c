const prefix = 'wild-spring:'

/** Keeps something typed on this device until it is saved; survives reload and power loss. null forgets it. */
export function keepDraft(key: string, value: unknown): void {
  if (value === null) forgetDraft(key)
  else localStorage.setItem(prefix + key, JSON.stringify(value))
}

export function readDraft<T>(key: string): T | null {
  const text = localStorage.getItem(prefix + key)
  try {
    return text === null ? null : (JSON.parse(text) as T)
  } catch {
    return null
  }
}

export function forgetDraft(key: string): void {
  localStorage.removeItem(prefix + key)
}
