import { existsSync } from 'node:fs'
import { createRequire } from 'node:module'

/**
 * Path of Litestream: as named, or that of its package.
 * @throws Error when there is none here
 */
export function litestreamProgram(named: string | undefined): string {
  if (named !== undefined) {
    if (!existsSync(named)) throw new Error(`There is no program ${named}, as WILD_SPRING_LITESTREAM says.`)
    return named
  }
  try {
    return createRequire(import.meta.url).resolve(
      `@flydotio/litestream-${process.platform}-${process.arch}/litestream`,
    )
  } catch (e) {
    throw new Error(
      'A copy that follows needs Litestream, and its package brings none for this machine: name its program with WILD_SPRING_LITESTREAM.',
      { cause: e },
    )
  }
}
