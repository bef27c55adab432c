import { describe, expect, it } from 'vitest'
import { Trail } from '#contract/trail'
import { startApp } from './harness.ts'
import { startStory } from './story.ts'

const section = (over: object) => ({ name: 'Whole trail', kind: 'mixed', lengthM: 800, severity: 1, ...over })
/** As it stood before lengths could be left unsaid; opened again by the program of today. */
async function lifted(sections: object[], body?: string): Promise<unknown> {
  const t = await startApp()
  const { trail } = await startStory(t)
  const made = { ...trail, sections: sections.map((s, i) => ({ id: trail.sections[i].id, ...s })) }
  await t.store.client.execute({
    sql: 'update trails set body = ? where id = ?',
    args: [body ?? JSON.stringify(made), trail.id],
  })
  await t.store.client.execute(
    'delete from __drizzle_migrations where created_at = (select max(created_at) from __drizzle_migrations)',
  )
  await t.store.close()
  const again = await startApp(t.dir)
  const [row] = (await again.store.client.execute('select body from trails')).rows
  await again.store.close()
  return row.body
}
const lengthsOf = (body: unknown) => Trail.parse(JSON.parse(String(body))).sections.map((s) => s.lengthM)

describe('a trail from before lengths could be left unsaid', () => {
  it('loses the length that the program had put into it', async () => {
    expect(lengthsOf(await lifted([section({})]))).toEqual([null])
  })
  it.each([
    ['one that somebody typed', [section({ lengthM: 1250 })], [1250]],
    ['one of a section with a name', [section({ name: 'Long straight' })], [800]],
    ['one of known ground', [section({ kind: 'roots' })], [800]],
    ['those of a trail in parts', [section({}), section({ name: 'Roots', kind: 'roots' })], [800, 800]],
  ])('keeps %s', async (_, sections, lengths) => {
    expect(lengthsOf(await lifted(sections))).toEqual(lengths)
  })
  it('that is damaged stays as it is, and the file opens', async () => {
    expect(await lifted([], '{"sections":[{"name":"Whole tr')).toContain('"Whole tr')
  })
})
