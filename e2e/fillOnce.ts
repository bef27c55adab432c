import { fillDemo, startServer } from './server.ts'

/** Fills the demo world once; every test file that needs it starts on a copy of its own. */
export default async function fillOnce(): Promise<void> {
  const server = await startServer()
  try {
    await fillDemo(server.base)
  } finally {
    await server.stop()
  }
  process.env.WILD_SPRING_DEMO_WORLD = server.dataDir
}
