/** Of a letter at the size of a lane's labels, px. */
const letterPx = 6.9
const gapPx = 8

/**
 * Where the labels of a lane's marks stand in one line, none over another: beside their mark where it is free, else
 * pushed to the right as far as a label's half width, else left out (their words are on the mark).
 *
 * @param marks in the order of the clock, x px
 * @returns the middle of each label, px; null: there is no room for it
 */
export function laneLabels(
  marks: readonly { x: number; label: string }[],
  widthPx: number,
): (number | null)[] {
  let freeFrom = 0
  return marks.map(({ x, label }) => {
    const half = (label.length * letterPx) / 2
    const middle = Math.max(x, freeFrom + half)
    if (middle > x + half || middle + half > widthPx) return null
    freeFrom = middle + half + gapPx
    return middle
  })
}
