import { existsSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { describe, expect, it } from 'vitest'

const root = join(import.meta.dirname, '..', '..')
const text = readFileSync(join(root, 'docs', 'security.md'), 'utf8')

describe('docs/security.md', () => {
  it('names only what is there', () => {
    const paths = [...text.matchAll(/`((?:server|e2e|contract|docs|eslint)[\w./-]*)`/g)].map((m) => m[1])
    expect(paths.length).toBeGreaterThan(40)
    expect(paths.filter((p) => !existsSync(join(root, p)))).toEqual([])
  })
  it('has for every row a test, a place, or why it does not apply', () => {
    const rows = text.split('\n').filter((l) => /^\| V\d/.test(l))
    expect(rows.length).toBeGreaterThan(40)
    const bare = rows.filter(
      (r) => !/`[\w./-]+`|[Dd]oes not apply: |None: |No deprecated|Open, see below|\(README\)/.test(r),
    )
    expect(bare).toEqual([])
  })
})
