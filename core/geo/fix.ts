/** A position on the ground. */
export interface Place {
  latitudeDeg: number
  longitudeDeg: number
}

/** A position at a time. */
export interface Fix extends Place {
  timeS: number
  /** null: it tells none. */
  elevationM: number | null
}

const earthM = 6_371_008.8
const rad = Math.PI / 180

/**
 * Great-circle distance, m: haversine formula on the mean earth radius.
 * Source: Sinnott (1984), Sky and Telescope 68, 159.
 */
export function distanceM(a: Place, b: Place): number {
  const dLat = (b.latitudeDeg - a.latitudeDeg) * rad
  const dLon = (b.longitudeDeg - a.longitudeDeg) * rad
  const h =
    Math.sin(dLat / 2) ** 2 +
    Math.cos(a.latitudeDeg * rad) * Math.cos(b.latitudeDeg * rad) * Math.sin(dLon / 2) ** 2
  return 2 * earthM * Math.asin(Math.min(1, Math.sqrt(h)))
}
