import { afterEach, beforeEach, describe, expect, it } from 'vitest'
import { startApp, type TestApp } from './harness.ts'
import { makeRider, startStory } from './story.ts'

let t: TestApp
beforeEach(async () => void (t = await startApp()))
afterEach(() => t.store.close())

describe('what an answer tells the browser', () => {
  it('is the same strictness for data, files, faults, and what is not there', async () => {
    const s = await startStory(t)
    for (const path of [
      '/garage',
      `/days/${s.day.id}/runs.csv`,
      '/openapi.json',
      '/docs',
      '/days/no-day',
      '/no/such/address',
    ]) {
      const { headers } = await t.get(path)
      expect(headers.get('x-content-type-options'), path).toBe('nosniff')
      expect(headers.get('referrer-policy'), path).toBe('no-referrer')
      const policy = headers.get('content-security-policy')!
      for (const part of [
        "frame-ancestors 'none'",
        "script-src 'self'",
        "object-src 'none'",
        "form-action 'self'",
      ])
        expect(policy, path).toContain(part)
      expect(
        policy.split(';').find((p) => p.includes('script-src')),
        path,
      ).not.toContain('unsafe')
      expect(headers.get('cache-control'), path).toBe('no-store')
    }
  })
  it('lets no other origin read, whoever asks', async () => {
    const origin = 'https://elsewhere.example'
    for (const [method, path] of [
      ['GET', '/garage'],
      ['OPTIONS', '/garage'],
      ['PUT', `/riders/${makeRider().id}`],
    ] as const) {
      const { headers } = await t.send(method, path, method === 'PUT' ? makeRider() : undefined, { origin })
      const other = [...headers.keys()].filter((name) => name.startsWith('access-control'))
      expect(other, `${method} ${path}`).toEqual([])
    }
  })
})

describe('a body that means ill', () => {
  it('that names a prototype is refused, and nothing learns of it', async () => {
    const rider = makeRider()
    for (const field of ['__proto__', 'constructor', 'prototype']) {
      const text = JSON.stringify(rider).replace('{', `{"${field}":{"isOwner":true},`)
      const answer = await t.put(`/riders/${rider.id}`, text)
      expect([200, 422], field).toContain(answer.status)
      expect(({} as { isOwner?: boolean }).isOwner, field).toBeUndefined()
      expect(JSON.stringify((await t.get('/garage')).body), field).not.toContain('isOwner')
    }
  })
  it('that sets what the server decides is not believed', async () => {
    const rider = makeRider()
    expect((await t.put(`/riders/${rider.id}`, { ...rider, deletedAt: null })).status).toBe(422)
    const saved = await t.put(`/riders/${rider.id}`, { ...rider, version: 0 })
    expect(saved.body).toMatchObject({ version: 1 })
    expect((await t.put(`/riders/${rider.id}`, { ...rider, name: 'Other', version: 41 })).status).toBe(409)
  })
  it('a parameter that is said twice is read as one, or refused', async () => {
    const s = await startStory(t)
    const twice = await t.get(`/bikes/${s.bike.id}/figures?before=${s.day.id}&before=x`)
    expect(twice.status).toBeLessThan(500)
  })
})
