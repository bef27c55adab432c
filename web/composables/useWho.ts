import { useKept } from './useKept.ts'

const held = useKept('wild-spring:who', '')

/** Whose hands are at this device: stands beside what was set and read here. Kept on the device, empty when not said. */
export const useWho = () => ({ who: held })
