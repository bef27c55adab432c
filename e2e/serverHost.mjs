// Serves many data folders, one after another or side by side, from one process: what a server reads at its start is
// read once for all tests of a worker. The built server itself; nothing of it is replaced.
import { join } from 'node:path'

process.umask(0o077)
process.on('disconnect', () => process.exit())

const builtDir = join(import.meta.dirname, '../dist/server')
// Built by then; whoever reads the code alone need not have it.
const { startServing } = await import(join(builtDir, 'serving.js'))

/** By the number of the order that started it. */
const serving = new Map()

async function start(number, { env, words }) {
  const said = []
  const started = await startServing({
    env,
    words,
    builtDir,
    say: (line) => said.push(line),
  })
  serving.set(number, started)
  return { address: started.address, said: said.join('\n') }
}

async function stop(number) {
  await serving.get(number).stop()
  serving.delete(number)
  return {}
}

process.on('message', ({ number, order }) => {
  const done = order ? start(number, order) : stop(number)
  done.then(
    (answer) => process.send({ number, ...answer }),
    (e) => process.send({ number, fault: e instanceof Error ? e.message : String(e) }),
  )
})
