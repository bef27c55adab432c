/** Bytes of the characters that matter when reading numbers. */
const zero = 48
const nine = 57
const minus = 45
const plus = 43
const space = 32
const tab = 9
const quote = 34

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

/** Where a plain number's value is put, so that the hot loop allocates nothing. */
export interface PlainNumber {
  value: number
}

/**
 * Reads "-12.345" (sign, digits, decimal mark, digits; at most 15 digits) and stops at the first other byte.
 * @returns the index behind it, or -1 when it is not such a number and needs the careful reader
 */
export function plainNumberEnd(
  bytes: Uint8Array,
  from: number,
  decimalByte: number,
  into: PlainNumber,
): number {
  let i = from
  const negative = bytes[i] === minus
  if (negative) i++
  const start = i
  let mantissa = 0
  let c = bytes[i]
  while (c >= zero && c <= nine) {
    mantissa = mantissa * 10 + (c - zero)
    c = bytes[++i]
  }
  let digits = i - start
  let decimals = 0
  if (c === decimalByte) {
    const mark = i
    c = bytes[++i]
    while (c >= zero && c <= nine) {
      mantissa = mantissa * 10 + (c - zero)
      c = bytes[++i]
    }
    decimals = i - mark - 1
    digits += decimals
  }
  if (digits === 0 || digits > 15) return -1
  const value = decimals === 0 ? mantissa : mantissa / powers[decimals]
  into.value = negative ? -value : value
  return i
}
