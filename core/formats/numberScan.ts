/** Bytes of the characters that matter when reading numbers. */
const zero = 48
const nine = 57
const minus = 45
const plus = 43
const space = 32
const tab = 9
const quote = 34
const lineFeed = 10
const carriageReturn = 13

const powers = Float64Array.from({ length: 23 }, (_, i) => 10 ** i)

/**
 * Reads the number in bytes [from, to): digits, sign, decimal mark, exponent, blanks and quotes around it.
 * Correctly rounded up to 15 digits by one exact multiplication or division; longer ones go through the language's reader.
 *
 * @param decimalByte 46 '.' or 44 ','
 * @returns the value; NaN for blank or anything that is not a number
 */
export function scanNumber(bytes: Uint8Array, from: number, to: number, decimalByte: number): number {
  let i = from
  let end = to
  while (i < end && (bytes[i] === space || bytes[i] === quote || bytes[i] === tab)) i++
  while (end > i && (bytes[end - 1] === space || bytes[end - 1] === quote || bytes[end - 1] === tab)) end--
  if (i === end) return NaN
  const start = i
  let negative = false
  if (bytes[i] === minus || bytes[i] === plus) {
    negative = bytes[i] === minus
    i++
  }
  let mantissa = 0
  let digits = 0
  let scale = 0
  let seenDecimal = false
  for (; i < end; i++) {
    const c = bytes[i]
    if (c >= zero && c <= nine) {
      mantissa = mantissa * 10 + (c - zero)
      if (mantissa > 0) digits++
      if (seenDecimal) scale--
    } else if (c === decimalByte && !seenDecimal) seenDecimal = true
    else break
  }
  const anyDigit = i - start > (negative || bytes[start] === plus ? 1 : 0) + (seenDecimal ? 1 : 0)
  if (!anyDigit) return NaN
  if (i < end) {
    if ((bytes[i] | 32) !== 101) return NaN
    let k = i + 1
    let expNegative = false
    if (k < end && (bytes[k] === minus || bytes[k] === plus)) {
      expNegative = bytes[k] === minus
      k++
    }
    if (k === end) return NaN
    let e = 0
    for (; k < end; k++) {
      const c = bytes[k]
      if (c < zero || c > nine) return NaN
      e = e * 10 + (c - zero)
    }
    scale += expNegative ? -e : e
  }
  if (digits > 15 || scale > 22 || scale < -22) {
    let text = ''
    for (let k = start; k < end; k++) text += bytes[k] === decimalByte ? '.' : String.fromCharCode(bytes[k])
    const slow = Number(text)
    return Number.isFinite(slow) ? slow : NaN
  }
  const value = scale < 0 ? mantissa / powers[-scale] : mantissa * powers[scale]
  return negative ? -value : value
}

/** As many digits as fit in the 32-bit integers that a row is quickly counted in. */
const quickDigits = 9

function wideInteger(bytes: Uint8Array, from: number, digits: number): number {
  let value = 0
  for (let i = from; i < from + digits; i++) value = value * 10 + (bytes[i] - zero)
  return value
}

/**
 * Reads one row whose cells are all plain numbers: sign, digits, decimal mark, digits, at most 15 digits; nothing around
 * them. That is almost every row of almost every file, so this function is kept free of everything that such rows do not
 * need; any other row is left to the careful reader.
 *
 * @param from where the row begins; a line end must follow somewhere, for it is not looked for the end of the bytes
 * @param slotOf for each column of the file the array of `out` that it belongs to, or -1
 * @param quoteByte what may hold a delimiter together in cells that are not read
 * @param row the place in the arrays of `out` that is written; what stands there after a refused row means nothing
 * @returns the index of the byte that ends the row, or -1 when it is not such a row
 */
export function plainRowEnd(
  bytes: Uint8Array,
  from: number,
  delimiterByte: number,
  decimalByte: number,
  slotOf: Int32Array,
  out: Float64Array[],
  row: number,
  quoteByte = quote,
): number {
  let i = from
  const last = slotOf.length - 1
  for (let column = 0; ; column++) {
    const slot = slotOf[column]
    let c = bytes[i]
    if (slot < 0) {
      // A quoted cell may hold the delimiter: left to the careful reader.
      if (c === quoteByte) return -1
      while (c !== delimiterByte && c !== lineFeed && c !== carriageReturn) c = bytes[++i]
    } else {
      const negative = c === minus
      if (negative) c = bytes[++i]
      const start = i
      let whole = 0
      while (c >= zero && c <= nine) {
        whole = (whole * 10 + (c - zero)) | 0
        c = bytes[++i]
      }
      const wholeDigits = i - start
      let fraction = 0
      let decimals = 0
      if (c === decimalByte) {
        c = bytes[++i]
        const mark = i
        while (c >= zero && c <= nine) {
          fraction = (fraction * 10 + (c - zero)) | 0
          c = bytes[++i]
        }
        decimals = i - mark
      }
      const digits = wholeDigits + decimals
      if (digits === 0 || digits > 15 || decimals > quickDigits) return -1
      let value = wholeDigits > quickDigits ? wideInteger(bytes, start, wholeDigits) : whole
      // All digits as one exact integer, then one division: correctly rounded.
      if (decimals > 0) value = (value * powers[decimals] + fraction) / powers[decimals]
      out[slot][row] = negative ? -value : value
    }
    if (column === last) {
      if (c === delimiterByte) while (c !== lineFeed && c !== carriageReturn) c = bytes[++i]
      return c === lineFeed || c === carriageReturn ? i : -1
    }
    if (c !== delimiterByte) return -1
    i++
  }
}
