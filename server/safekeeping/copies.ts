import { existsSync, mkdirSync, readdirSync, readFileSync, rmSync, statSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { CopyName, DataCounts, type SafeCopy } from '#contract/data'
import type { Reason } from './rotation.ts'

/** `20310502T120000Z` for 2031-05-02 12:00:00 UTC. */
const stampOf = (at: string) => `${at.slice(0, 19).replace(/[-:]/g, '')}Z`

export const copyNameOf = (at: string, why: Reason) => `wild-spring-${stampOf(at)}-${why}.sqlite`

const noted = (folder: string, name: string) => join(folder, `${name}.json`)

/** Safe copies in a folder, newest first. */
export function listCopies(folder: string): SafeCopy[] {
  let names: string[]
  try {
    names = readdirSync(folder)
  } catch {
    return []
  }
  return names
    .filter((name) => CopyName.safeParse(name).success)
    .map((name) => {
      const [, d, t, why] = /^wild-spring-(\d{8})T(\d{6})Z-(.+)\.sqlite$/.exec(name)!
      const at = `${d.slice(0, 4)}-${d.slice(4, 6)}-${d.slice(6)}T${t.slice(0, 2)}:${t.slice(2, 4)}:${t.slice(4)}Z`
      const path = join(folder, name)
      return {
        name,
        at,
        why: why as Reason,
        bytes: statSync(path, { throwIfNoEntry: false })?.size ?? 0,
        counts: countsNoted(folder, name),
      }
    })
    .sort((a, b) => b.at.localeCompare(a.at))
}

/** Written down beside a copy, so that a list opens none of them. */
export const noteCounts = (folder: string, name: string, counts: DataCounts): void =>
  writeFileSync(noted(folder, name), JSON.stringify(counts), { mode: 0o600 })

function countsNoted(folder: string, name: string): DataCounts | null {
  try {
    return DataCounts.safeParse(JSON.parse(readFileSync(noted(folder, name), 'utf8'))).data ?? null
  } catch {
    return null
  }
}

export function removeCopy(folder: string, name: string): void {
  rmSync(join(folder, name), { force: true })
  rmSync(noted(folder, name), { force: true })
}

export const makeFolder = (folder: string): void => void mkdirSync(folder, { recursive: true, mode: 0o700 })

/** Takes away what a killed process left of a copy it was making. */
export function clearParts(folder: string): void {
  for (const name of existsSync(folder) ? readdirSync(folder) : [])
    if (/\.sqlite\.part(-\w+)?$/.test(name)) rmSync(join(folder, name), { force: true })
}
