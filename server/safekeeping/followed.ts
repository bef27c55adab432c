import { spawn } from 'node:child_process'
import { existsSync, readdirSync, rmSync, statSync } from 'node:fs'
import { join } from 'node:path'
import { checkData } from './copyFile.ts'

/** Whether a folder holds a copy that follows. */
export const isFollowing = (path: string): boolean =>
  existsSync(generationsOf(path)) && statSync(path).isDirectory()

/** Takes the copy away with all its past; only while nobody follows. */
export const forgetFollowed = (folder: string): void =>
  rmSync(generationsOf(folder), { recursive: true, force: true })

/** Beginnings of a copy, newest first: one for each time it could not simply go on. */
export function beginnings(folder: string): string[] {
  const path = generationsOf(folder)
  if (!existsSync(path)) return []
  const born = (name: string) => statSync(join(path, name)).birthtimeMs
  return readdirSync(path).sort((a, b) => born(b) - born(a))
}

/**
 * The last state of a beginning, as a data file that was opened and checked.
 * @param to where nothing is yet
 * @throws Error when it cannot be put together or is not sound; nothing is left then
 */
export async function putTogether(
  program: string,
  folder: string,
  generation: string,
  to: string,
  migrationsFolder: string,
): Promise<void> {
  const forget = () => {
    for (const end of ['', '-wal', '-shm', '.tmp', '.tmp-wal', '.tmp-shm'])
      rmSync(`${to}${end}`, { force: true })
  }
  forget()
  try {
    await run(program, ['restore', '-generation', generation, '-o', to, `file://${folder}`])
    await checkData(to, migrationsFolder)
  } catch (e) {
    forget()
    throw e
  }
}

function run(program: string, words: readonly string[]): Promise<void> {
  return new Promise((resolve, reject) => {
    const child = spawn(program, words, { stdio: ['ignore', 'ignore', 'pipe'] })
    let said = ''
    child.stderr.on('data', (piece: Buffer) => (said = (said + piece.toString()).slice(-4000)))
    child.on('error', reject)
    child.on('exit', (code) =>
      code === 0 ? resolve() : reject(new Error(said.trim().split('\n').pop() ?? `it ended with ${code}`)),
    )
  })
}

const generationsOf = (folder: string) => join(folder, 'generations')
