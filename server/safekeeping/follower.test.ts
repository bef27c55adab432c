import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { describe, expect, it } from 'vitest'
import { Follower } from './follower.ts'

/** A process that follows nothing: it notes when it begins and ends, and takes its time to go. */
function standIn() {
  const dir = mkdtempSync(join(tmpdir(), 'follower-'))
  const notes = join(dir, 'notes')
  const entry = join(dir, 'entry.mjs')
  writeFileSync(notes, '')
  writeFileSync(
    entry,
    `import { appendFileSync } from 'node:fs'
     const note = (w) => appendFileSync(${JSON.stringify(notes)}, w + '\\n')
     note(JSON.parse(process.argv[2]).isAnew ? 'begins anew' : 'begins')
     const end = () => setTimeout(() => (note('ends'), process.exit(0)), 80)
     process.on('disconnect', end)
     if (!process.connected) end()`,
  )
  const faults: string[] = []
  const follower = new Follower(
    entry,
    { folder: join(dir, 'copy') } as ConstructorParameters<typeof Follower>[1],
    { error: (...said: unknown[]) => faults.push(said.join(' ')) } as ConstructorParameters<
      typeof Follower
    >[2],
  )
  const noted = () => readFileSync(notes, 'utf8').split('\n').filter(Boolean)
  const until = async (n: number) => {
    while (noted().length < n) await new Promise((next) => setTimeout(next, 10))
  }
  return {
    follower,
    noted,
    until,
    faults,
    note: (w: string) => writeFileSync(notes, `${w}\n`, { flag: 'a' }),
  }
}

describe('whoever follows', () => {
  it('steps aside for two who ask at once, one after the other, and is back when the last is done', async () => {
    const { follower, noted, until, faults, note } = standIn()
    follower.start()
    await until(1)
    const work = (name: string) => async () => {
      note(`${name} in`)
      await new Promise((next) => setTimeout(next, 30))
      note(`${name} out`)
      return name
    }
    expect(await Promise.all([follower.aside(work('a')), follower.aside(work('b'))])).toEqual(['a', 'b'])
    await follower.stop()
    const said = noted()
    // Nobody reads along while somebody works.
    expect(said.filter((w) => w !== 'begins anew' && w !== 'ends')).toEqual([
      'begins',
      'a in',
      'a out',
      'b in',
      'b out',
    ])
    for (const name of ['a', 'b']) {
      const [from, to] = [said.indexOf(`${name} in`), said.indexOf(`${name} out`)]
      expect(said.slice(from + 1, to)).toEqual([])
    }
    expect(said.at(-1)).toBe('ends')
    expect(faults).toEqual([])
  })
  it('is back, too, after work that failed', async () => {
    const { follower, until, noted, faults } = standIn()
    follower.start()
    await until(1)
    await expect(follower.aside(() => Promise.reject(new Error('no')))).rejects.toThrow('no')
    await until(3)
    expect(noted()).toEqual(['begins', 'ends', 'begins anew'])
    await follower.stop()
    expect(faults).toEqual([])
  })
})
