/** A position on the ground at a time. */
export interface Fix {
  timeS: number
  latitudeDeg: number
  longitudeDeg: number
  elevationM: number
}

const earthM = 6_371_008.8
const rad = Math.PI / 180
/** Positions are averaged over so long: receivers wander by metres from fix to fix. */
const smoothS = 2

/**
 * Great-circle distance, m: haversine formula on the mean earth radius.
 * Source: Sinnott (1984), Sky and Telescope 68, 159.
 */
export function distanceM(a: Fix, b: Fix): number {
  const dLat = (b.latitudeDeg - a.latitudeDeg) * rad
  const dLon = (b.longitudeDeg - a.longitudeDeg) * rad
  const h =
    Math.sin(dLat / 2) ** 2 +
    Math.cos(a.latitudeDeg * rad) * Math.cos(b.latitudeDeg * rad) * Math.sin(dLon / 2) ** 2
  return 2 * earthM * Math.asin(Math.min(1, Math.sqrt(h)))
}

/** Distance ridden and speed at each fix, from positions averaged over two seconds. */
export function wayOf(fixes: readonly Fix[]): {
  timeS: Float64Array
  wayM: Float64Array
  speedMS: Float64Array
} {
  const n = fixes.length
  const calm = fixes.map((f, i): Fix => {
    let [lat, lon, count] = [0, 0, 0]
    let reach = 0
    // As far back as forward, or the ends would be pulled inward more than need be.
    while (
      i - reach >= 0 &&
      i + reach < n &&
      fixes[i + reach].timeS - f.timeS <= smoothS / 2 &&
      f.timeS - fixes[i - reach].timeS <= smoothS / 2
    )
      reach++
    for (let k = i - reach + 1; k < i + reach; k++) {
      lat += fixes[k].latitudeDeg
      lon += fixes[k].longitudeDeg
      count++
    }
    return { ...f, latitudeDeg: lat / count, longitudeDeg: lon / count }
  })
  const timeS = Float64Array.from(fixes, (f) => f.timeS)
  const wayM = new Float64Array(n)
  for (let i = 1; i < n; i++) wayM[i] = wayM[i - 1] + distanceM(calm[i - 1], calm[i])
  const speedMS = new Float64Array(n)
  for (let i = 0; i < n; i++) {
    const [a, b] = [Math.max(0, i - 1), Math.min(n - 1, i + 1)]
    speedMS[i] = (wayM[b] - wayM[a]) / (timeS[b] - timeS[a])
  }
  return { timeS, wayM, speedMS }
}
