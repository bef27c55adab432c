/** A table over the share of travel at the axle, 0 … 1, straight between its entries. */
export type TravelTable = Float64Array

export const tableSize = 1024

/** Rubber in the last 3 % of travel, and the top-out spring below 0, N/m at the axle. */
export const bumpStop = { fromShare: 0.97, nPerM: 1.2e6 } as const
export const topOutNPerM = 60_000

/** Table of a function over the share of travel. */
export function tabulate(f: (share: number) => number): TravelTable {
  return Float64Array.from({ length: tableSize + 1 }, (_, k) => f(k / tableSize))
}

/**
 * Table that holds at an end, at a share of travel.
 * @param share any number; outside 0 … 1 the end value holds
 */
export function at(table: TravelTable, share: number): number {
  if (share <= 0) return table[0]
  if (share >= 1) return table[tableSize]
  const x = share * tableSize
  const k = x | 0
  return table[k] + (table[k + 1] - table[k]) * (x - k)
}

/** Spring, bump stop and top-out at the axle, N. `travelM` is the whole travel at the axle. */
export function springForceN(table: TravelTable, depthM: number, travelM: number): number {
  const share = depthM / travelM
  if (share <= 0) return table[0] + topOutNPerM * depthM
  const stop = share > bumpStop.fromShare ? bumpStop.nPerM * (depthM - bumpStop.fromShare * travelM) : 0
  return at(table, share) + stop
}

/** Energy stored at a depth against full extension, J: the exact integral of `springForceN`. */
export function springEnergyJ(table: TravelTable, depthM: number, travelM: number): number {
  if (depthM <= 0) return table[0] * depthM + (topOutNPerM * depthM ** 2) / 2
  const dx = travelM / tableSize
  const inside = Math.min(depthM, travelM)
  const k = Math.min(tableSize - 1, Math.floor(inside / dx))
  let energy = 0
  for (let i = 0; i < k; i++) energy += ((table[i] + table[i + 1]) / 2) * dx
  const rest = inside - k * dx
  const slope = (table[k + 1] - table[k]) / dx
  energy += table[k] * rest + (slope * rest * rest) / 2
  energy += table[tableSize] * (depthM - inside)
  const beyond = depthM - bumpStop.fromShare * travelM
  return beyond > 0 ? energy + (bumpStop.nPerM * beyond * beyond) / 2 : energy
}
