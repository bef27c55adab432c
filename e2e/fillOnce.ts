import { fillDemo, startServer } from './server.ts'

/** Fills both demo worlds once; every test file that needs one starts on a copy of its own. */
export default async function fillOnce(): Promise<void> {
  const fill = async (size: 'small' | 'large') => {
    const server = await startServer()
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
