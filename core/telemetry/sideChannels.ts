import type { CleanRecording } from './cleanRecording.ts'

/** Channels beside the travel that are kept and given out, by the name of their column; unit at the end of it. */
export const sideChannelNames = [
  'speed_m/s',
  'distance_m',
  'bar_acceleration_g',
  'front_axle_acceleration_g',
  'rear_axle_acceleration_g',
] as const
export type SideChannelName = (typeof sideChannelNames)[number]

/** Those that a recording has. */
export function sideChannels(r: CleanRecording): { name: SideChannelName; values: Float64Array }[] {
  const of: Record<SideChannelName, Float64Array | null | undefined> = {
    'speed_m/s': r.speedMS,
    distance_m: r.distanceM,
    bar_acceleration_g: r.barG,
    front_axle_acceleration_g: r.axleG.front,
    rear_axle_acceleration_g: r.axleG.rear,
  }
  return sideChannelNames.flatMap((name) => {
    const values = of[name]
    return values ? [{ name, values }] : []
  })
}
