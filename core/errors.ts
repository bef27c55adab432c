import { inputSentences, type InputCode } from '#contract/inputCodes'

export type { InputCode }

/** Bad input, told apart by `code`; `message` is one sentence for people. */
export class InputError extends Error {
  constructor(
    readonly code: InputCode,
    readonly detail: Record<string, number | string> = {},
  ) {
    super(inputSentences[code].replace(/\{(\w+)\}/g, (_, key: string) => inWords(detail[key])))
    this.name = 'InputError'
  }
}

/** What was typed and is no number reaches a sentence as NaN. */
const inWords = (value: number | string | undefined) =>
  Number.isNaN(value) ? 'no number' : String(value ?? '?')
