const ones = 'one two three four five six seven eight nine'.split(' ')
const tens = 'twenty thirty forty fifty sixty seventy eighty ninety'.split(' ')
const hundred = `(?:(a|${ones.slice(0, 3).join('|')}) (?:hundred(?: and)? )?)?`
const whole = new RegExp(`\\b(a|${ones.slice(0, 3).join('|')}) hundred\\b(?! (?:and|${tens.join('|')}))`, 'g')
const above = new RegExp(`\\b${hundred}(${tens.join('|')})(?:[\\s-]+(${ones.join('|')}))?\\b`, 'g')

const hundredsOf = (h: string) => 100 * (h === 'a' ? 1 : ones.indexOf(h) + 1)

/** "eighty-four" as 84, "one eighty five" and "a hundred and eighty five" as 185: pressures as they are said. */
export const numeralsFor = (text: string): string =>
  text
    .replace(whole, (_, h: string) => String(hundredsOf(h)))
    .replace(above, (_, h: string | undefined, t: string, o: string | undefined) =>
      String((h ? hundredsOf(h) : 0) + 10 * (tens.indexOf(t) + 2) + (o ? ones.indexOf(o) + 1 : 0)),
    )
