/** The token of a rider's link, "/pad/<token>"; '' where there is none. */
export const tokenIn = (path: string): string => /^\/pad\/([\w-]+)\/?$/.exec(path)?.[1] ?? ''

/** Kept by the day it is for: what waits under an earlier link goes out by the newest. */
const key = (dayId: string) => `wild-spring:pad:${dayId}`

export function keepToken(dayId: string, token: string): void {
  try {
    localStorage.setItem(key(dayId), token)
  } catch {
    // A private window keeps nothing; the open page knows it all the same.
  }
  held.set(dayId, token)
}
const held = new Map<string, string>()

export function tokenFor(dayId: string): string {
  try {
    return held.get(dayId) ?? localStorage.getItem(key(dayId)) ?? ''
  } catch {
    return held.get(dayId) ?? ''
  }
}
