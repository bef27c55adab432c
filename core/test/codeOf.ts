import type { InputError } from '../errors.ts'

/** The code that something is refused with; 'no error' when it is taken. */
export function codeOf(act: () => unknown): string {
  try {
    act()
  } catch (e) {
    return (e as InputError).code
  }
  return 'no error'
}
