import { startServing } from './serving.ts'

/** The server as a program; its settings are in `serving.ts`. */
async function main(): Promise<void> {
  // What is kept here is nobody else's on this machine.
  process.umask(0o077)
  const { stop } = await startServing({
    env: process.env,
    words: process.argv.slice(2),
    builtDir: import.meta.dirname,
    say: (line) => console.log(line),
  })
  for (const signal of ['SIGINT', 'SIGTERM'] as const)
    process.on(signal, () => void stop().then(() => process.exit(0)))
}

main().catch((e: unknown) => {
  console.error(e instanceof Error ? e.message : e)
  process.exit(1)
})
