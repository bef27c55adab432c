import { v7 as uuid } from 'uuid'
import { describe, expect, it } from 'vitest'
import { startApp } from './harness.ts'
import { makeRider, startStory } from './story.ts'

describe('the log of requests', () => {
  it('has a line for each, by the kind of address, and nothing of anybody in it', async () => {
    const t = await startApp()
    const s = await startStory(t)
    t.requests.length = 0
    const secret = makeRider({ name: 'Quillon', bodyMassKg: 43.21 })
    await t.put(`/riders/${secret.id}`, secret)
    await t.put(`/riders/${secret.id}`, { ...secret, bodyMassKg: 4000 })
    await t.get(`/days/${s.day.id}?who=Quillon`)
    await t.get(`/recordings/${uuid()}/original`)
    await t.send('PUT', `/uploads/${uuid()}`, 'bytes', { 'content-type': 'application/octet-stream' })
    await t.get('/no/such/place/Quillon')
    const lines = t.requests.map((l) => l.replace(/^\S+ /, '').replace(/\d+ ms$/, 'ms'))
    expect(lines).toEqual([
      'PUT /api/v1/riders/:id 200 ms',
      'PUT /api/v1/riders/:id 422 ms',
      'GET /api/v1/days/:id 200 ms',
      'GET /api/v1/recordings/:id/original 404 ms',
      'PUT /api/v1/uploads/:id 200 ms',
      'GET /api/ (no such address) 404 ms',
    ])
    for (const l of t.requests) expect(l).toMatch(/^\d{4}-\d\d-\d\dT[\d:.]+Z /)
    const all = t.requests.join()
    for (const word of ['Quillon', '43.21', secret.id, s.day.id, 'who=']) expect(all).not.toContain(word)
    await t.store.close()
  })
})
