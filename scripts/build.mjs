// Builds page and server into dist/. `npm run build`
import { cpSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { createHash } from 'node:crypto'
import { brotliCompressSync, gzipSync } from 'node:zlib'
import { ensurePackages, root, run } from './ensure.mjs'
import { writeLicences } from './licences.mjs'

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

/** What a start reads in hundreds of small files is built in; the rest, native or seldom needed, stays a package. */
function external() {
  const builtIn = ['hono', '@hono/node-server', 'zod', 'drizzle-orm']
  const { dependencies } = JSON.parse(readFileSync(join(root, 'package.json'), 'utf8'))
  return Object.keys(dependencies)
    .filter((name) => !builtIn.includes(name))
    .flatMap((name) => [name, `${name}/*`])
}

/** The worker that keeps the page on a device: it names every file as it was built, so it comes last. */
async function buildWorker(esbuild) {
  const dir = join(root, 'dist/web')
  const files = readdirSync(dir, { recursive: true, withFileTypes: true })
    .filter((e) => e.isFile())
    .map((e) => join(e.parentPath, e.name))
    .map((file) => ({
      url: file.slice(dir.length).replaceAll('\\', '/'),
      revision: createHash('sha256').update(readFileSync(file)).digest('hex').slice(0, 16),
    }))
    // Names under /assets/ carry a hash of their content.
    .map((f) => (f.url.startsWith('/assets/') ? { ...f, revision: null } : f))
  await esbuild.build({
    absWorkingDir: root,
    entryPoints: { worker: 'web/offline/worker.ts' },
    outdir: 'dist/web',
    bundle: true,
    minify: true,
    format: 'iife',
    target: 'es2022',
    define: { builtFiles: JSON.stringify(files), 'process.env.NODE_ENV': '"production"' },
    logLevel: 'warning',
  })
}

/** Smaller forms beside every text of the page: nobody waits for the server to make them. */
function compressOnce(dir) {
  for (const entry of readdirSync(dir, { recursive: true, withFileTypes: true })) {
    if (!entry.isFile() || !/\.(js|css|html|json|svg)$/.test(entry.name)) continue
    const file = join(entry.parentPath, entry.name)
    const bytes = readFileSync(file)
    writeFileSync(`${file}.gz`, gzipSync(bytes, { level: 9 }))
    writeFileSync(`${file}.br`, brotliCompressSync(bytes))
  }
}

export async function buildAll() {
  const [{ build: vite }, esbuild] = await Promise.all([import('vite'), import('esbuild')])
  rmSync(join(root, 'dist'), { recursive: true, force: true })
  await vite({ root, logLevel: 'warn' })
  // The phone's page shares no file with the rest: it would be cut into crumbs for its sake.
  await vite({
    root,
    logLevel: 'warn',
    build: { emptyOutDir: false, rolldownOptions: { input: join(root, 'pad.html') } },
  })
  await esbuild.build({
    absWorkingDir: root,
    entryPoints: {
      index: 'server/listen.ts',
      // For who hosts several in one process, as the browser tests do.
      serving: 'server/serving.ts',
      ingestWorker: 'server/ingest/worker.ts',
      bundler: 'server/bundle/worker.ts',
      copier: 'server/safekeeping/copier.ts',
      rewriter: 'server/safekeeping/rewriter.ts',
      follower: 'server/safekeeping/followerProcess.ts',
      restore: 'server/safekeeping/restoreCommand.ts',
      check: 'server/safekeeping/checkCommand.ts',
    },
    outdir: 'dist/server',
    bundle: true,
    platform: 'node',
    format: 'esm',
    target: 'node20',
    external: external(),
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
  await buildWorker(esbuild)
  // After it: no device keeps these of its own accord.
  writeLicences(join(root, 'dist/web/licences.json'))
  compressOnce(join(root, 'dist/web'))
  cpSync(join(root, 'server/db/migrations'), join(root, 'dist/server/migrations'), { recursive: true })
}
