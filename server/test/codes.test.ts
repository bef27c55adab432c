import { readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { describe, expect, it } from 'vitest'
import { errorCodes } from '#contract/errors'
import { inputSentences } from '#contract/inputCodes'

const root = join(import.meta.dirname, '..', '..')
const sources = ['core', 'server', 'web', 'logger', 'demo'].flatMap((dir) =>
  readdirSync(join(root, dir), { recursive: true, encoding: 'utf8' })
    .filter((f) => /\.(ts|vue)$/.test(f) && !/\.test\.ts$/.test(f))
    .map((f) => readFileSync(join(root, dir, f), 'utf8')),
)
const said = new Set(
  sources.flatMap((text) => [...text.matchAll(/'([a-z-]+\.[a-z.-]+|internal)'/g)].map((m) => m[1])),
)

describe('codes', () => {
  it('each is said somewhere: a code that nothing refuses with is dead', () => {
    const all = [...Object.keys(errorCodes), ...Object.keys(inputSentences)]
    expect(all.filter((c) => !said.has(c))).toEqual([])
  })
  it('no code means two things', () => {
    expect(Object.keys(errorCodes).filter((c) => c in inputSentences)).toEqual([])
  })
  it('every sentence is one, and names what would be right', () => {
    for (const [code, words] of Object.entries(inputSentences)) {
      expect(words, code).toMatch(/^[A-Z{"].*\.$/s)
      expect(words.length, code).toBeGreaterThan(20)
    }
  })
})
