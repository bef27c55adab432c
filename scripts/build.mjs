// Builds page and server into dist/. `npm run build`
import { cpSync, rmSync } from 'node:fs'
import { join } from 'node:path'
import { ensurePackages, root, run } from './ensure.mjs'

ensurePackages()
await buildAll()

/** The stand-in loggers, a program of their own. */
async function buildLogger() {
  const esbuild = await import('esbuild')
  await esbuild.build({
    absWorkingDir: root,
    entryPoints: { index: 'logger/start.ts' },
    outdir: 'dist/logger',
    bundle: true,
    platform: 'node',
    format: 'esm',
    target: 'node20',
    packages: 'external',
    logLevel: 'warning',
  })
}

export async function buildAll() {
  const [{ build: vite }, esbuild] = await Promise.all([import('vite'), import('esbuild')])
  rmSync(join(root, 'dist'), { recursive: true, force: true })
  await vite({ root, logLevel: 'warn' })
  await esbuild.build({
    absWorkingDir: root,
    entryPoints: { index: 'server/listen.ts', ingestWorker: 'server/ingest/worker.ts' },
    outdir: 'dist/server',
    bundle: true,
    platform: 'node',
    format: 'esm',
    target: 'node20',
    packages: 'external',
    sourcemap: true,
    logLevel: 'warning',
  })
  await buildLogger()
  // What an empty start offers to try, told by the demo world's own words.
  if (
    run(process.execPath, [
      'node_modules/tsx/dist/cli.mjs',
      'demo/sampleDay.ts',
      'dist/web/sample-day.json',
    ]) !== 0
  )
    throw new Error('demo/sampleDay.ts failed')
  cpSync(join(root, 'server/db/migrations'), join(root, 'dist/server/migrations'), { recursive: true })
}
