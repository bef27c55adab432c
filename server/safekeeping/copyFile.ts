import {
  chmodSync,
  closeSync,
  copyFileSync,
  existsSync,
  fsyncSync,
  openSync,
  renameSync,
  rmSync,
  statSync,
} from 'node:fs'
import { dirname } from 'node:path'
import type { DataCounts } from '#contract/data'
import { connect } from '../db/connect.ts'
import { shapeOf } from '../db/shape.ts'
import { countsOf } from './facts.ts'

/**
 * Copies a data file that is in use, by SQLite's own means: one moment of it, whole, compact. The copy bears its name only
 * once it was opened and checked.
 * @throws Error when it cannot be made or is not sound; nothing is left behind
 */
export async function copyData(file: string, to: string, migrationsFolder: string): Promise<DataCounts> {
  const part = `${to}.part`
  removePart(to)
  try {
    closeSync(openSync(part, 'wx', 0o600))
    const client = connect(file)
    try {
      await client.execute({ sql: 'VACUUM INTO ?', args: [part] })
    } finally {
      client.close()
    }
    const counts = await checkData(part, migrationsFolder)
    flush(part)
    renameSync(part, to)
    flush(dirname(to))
    return counts
  } catch (e) {
    removePart(to)
    throw e
  }
}

/** Takes away what is there of a copy that was not made. */
export function removePart(to: string): void {
  for (const end of ['', '-journal', '-wal', '-shm']) rmSync(`${to}.part${end}`, { force: true })
}

/**
 * Opens a data file and checks every page, index and reference of it.
 * @throws Error with what is wrong, as a sentence
 */
export async function checkData(file: string, migrationsFolder: string): Promise<DataCounts> {
  if (!existsSync(file) || statSync(file).size === 0) throw new Error(`There is no data in ${file}.`)
  const client = connect(file)
  try {
    const shape = await shapeOf(client, migrationsFolder)
    if (shape === 'newer')
      throw new Error(`${file} was written by a newer version of Wild Spring; start that one.`)
    if (shape === 'foreign' || shape === 'empty') throw new Error(`${file} holds no data of Wild Spring.`)
    const [found] = (await client.execute('PRAGMA integrity_check(1)')).rows
    if (found[0] !== 'ok') throw new Error(`${file} is damaged: ${String(found[0])}.`)
    const [loose] = (await client.execute('PRAGMA foreign_key_check')).rows
    if (loose)
      throw new Error(`${file} is damaged: a record of ${String(loose[0])} refers to something that is gone.`)
    return await countsOf(client)
  } catch (e) {
    const code = String((e as { code?: string }).code)
    if (!/^SQLITE_(NOTADB|CORRUPT)/.test(code)) throw e
    throw new Error(`${file} is damaged, or no data file.`, { cause: e })
  } finally {
    client.close()
  }
}

/** Copies a file so that it is there whole under its name, or not at all. */
export function placeWhole(from: string, to: string): void {
  const part = `${to}.part`
  copyFileSync(from, part)
  chmodSync(part, 0o600)
  flush(part)
  renameSync(part, to)
  flush(dirname(to))
}

/** Waits until the disk has it. */
function flush(path: string): void {
  const at = openSync(path, 'r')
  try {
    fsyncSync(at)
  } finally {
    closeSync(at)
  }
}
