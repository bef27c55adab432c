import { useStorage, type RemovableRef } from '@vueuse/core'

type Wide<T> = T extends boolean ? boolean : T extends number ? number : T extends string ? string : T

/** A value kept on this device; where the browser keeps nothing, it lasts as long as the page. */
export function useKept<T extends string | number | boolean | object>(
  key: string,
  initial: T,
  options: { mergeDefaults?: boolean } = {},
): RemovableRef<Wide<T>> {
  // No storage handed in: looked for by the library, which takes a blocked one for none.
  const kept: unknown = useStorage(key, initial as object, undefined, options)
  return kept as RemovableRef<Wide<T>>
}
