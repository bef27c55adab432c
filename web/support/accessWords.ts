import type { Attempt, Role } from '#contract/access'

export const roleWords: Record<Role, string> = {
  owner: 'Owner',
  coach: 'Coach',
  wall: 'Wall, looks only',
}

const tried: Record<Attempt['what'], string> = {
  passphrase: 'by passphrase',
  recovery: 'by recovery code',
  setup: 'by the code of the start',
  pass: 'by a link',
}

/** "came in by passphrase", "did not come in by a link". */
export const attemptWords = (a: Attempt): string =>
  `${a.opened ? 'came in' : 'did not come in'} ${tried[a.what]}`
