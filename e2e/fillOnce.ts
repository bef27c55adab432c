import { fillDemo, startProcess } from './server.ts'

/** Fills both demo worlds once; every test file that needs one starts on a copy of its own. */
export default async function fillOnce(): Promise<void> {
  // Who works on one test fills them once for many runs.
  if (process.env.WILD_SPRING_DEMO_WORLD && process.env.WILD_SPRING_LARGE_WORLD) return
  const fill = async (size: 'small' | 'large') => {
    const server = await startProcess()
    try {
      await fillDemo(server.base, size)
    } finally {
      await server.stop()
    }
    return server.dataDir
  }
  const [small, large] = await Promise.all([fill('small'), fill('large')])
  process.env.WILD_SPRING_DEMO_WORLD = small
  process.env.WILD_SPRING_LARGE_WORLD = large
}
