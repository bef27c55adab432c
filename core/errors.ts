import { inputSentences, type InputCode } from '#contract/inputCodes'

export type { InputCode }

/** Bad input, told apart by `code`; `message` is one sentence for people. */
export class InputError extends Error {
  constructor(
    readonly code: InputCode,
    readonly detail: Record<string, number | string> = {},
  ) {
    super(inputSentences[code].replace(/\{(\w+)\}/g, (_, key: string) => String(detail[key] ?? '?')))
    this.name = 'InputError'
  }
}
