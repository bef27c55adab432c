import { useKept } from '../composables/useKept.ts'

const kept = useKept<string>('wild-spring:device', '')

/** What this device is called in lists: as it was named before, else by its size. */
export const deviceName = (): string =>
  kept.value || (Math.min(screen.width, screen.height) < 600 ? 'Phone' : 'Laptop')

export const keepDeviceName = (name: string): void => void (kept.value = name)
