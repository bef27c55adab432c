import { watch } from 'vue'
import { outOfReachSince } from '../api/reach.ts'

/** Does something as soon as the server answers again after it was out of reach. */
export function useReachAgain(again: () => unknown): void {
  watch(outOfReachSince, (since) => since === null && void again())
}
