import type { ChannelUnit } from '#contract/recording'

const unitNames: [RegExp, ChannelUnit][] = [
  [/^(ns|nsec|nanoseconds?)$/i, 'ns'],
  [/^(cm|centimet(er|re)s?)$/i, 'cm'],
  [/^(in|inch|inches|"|″)$/i, 'in'],
  [/^(fraction|frac|0\s*(-|–|\.\.|to)\s*1)$/i, 'fraction'],
  [/^(us|µs|usec|microseconds?)$/i, 'us'],
  [/^(ms|msec|milliseconds?)$/i, 'ms'],
  [/^(s|sec|seconds?)$/i, 's'],
  [/^(min|minutes?)$/i, 'min'],
  [/^(mm|millimet(er|re)s?)$/i, 'mm'],
  [/^psi$/i, 'psi'],
  [/^bar$/i, 'bar'],
  [/^kpa$/i, 'kPa'],
  [/^g$/i, 'g'],
  [/^m\/s(2|²|\^2)$/i, 'm/s2'],
  [/^deg$/i, 'deg'],
  [/^(%|pct|percent)$/i, 'pct'],
  [/^(raw|counts?|adc|v|mv|volts?)$/i, 'raw'],
  [/^km\/h|kmh|kph$/i, 'km/h'],
  [/^m\/s$/i, 'm/s'],
  [/^km$/i, 'km'],
  [/^(m|met(er|re)s?)$/i, 'm'],
]

/** The unit that a word or sign stands for; null when it is none. */
export function unitOf(text: string): ChannelUnit | null {
  const t = text.trim()
  return unitNames.find(([re]) => re.test(t))?.[1] ?? null
}
