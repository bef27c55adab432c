import type { ErrorCode } from '#contract/errors'

/** A request that is answered with one of our codes and one clear sentence. */
export class Refusal extends Error {
  constructor(
    readonly code: ErrorCode,
    message: string,
    readonly more: { path?: string; current?: unknown; sent?: unknown; deviceCode?: string } = {},
  ) {
    super(message)
    this.name = 'Refusal'
  }
}
