import { analyse } from '#core/telemetry/analyse'
import { readFileSync, writeFileSync } from 'node:fs'
import { longRide } from './longRide.ts'

// In a process of its own: what the system says it held at most while it analysed, less what it held before, in channels.
// Some short rides are analysed before, or what the engine needs to compile would be counted, too. Fails where the system does
// not tell.

const { recording, channelBytes } = longRide()
for (let i = 0; i < 20; i++) analyse(longRide(10).recording, [])
globalThis.gc?.()
const status = (name: string) =>
  1024 * Number(new RegExp(`^${name}:\\s+(\\d+) kB`, 'm').exec(readFileSync('/proc/self/status', 'utf8'))![1])
try {
  writeFileSync('/proc/self/clear_refs', '5')
  const before = status('VmRSS')
  analyse(recording, [])
  console.log((status('VmHWM') - before) / channelBytes)
} catch {
  process.exitCode = 1
}
