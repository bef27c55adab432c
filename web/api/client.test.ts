import { afterEach, describe, expect, it, vi } from 'vitest'
import { endpoints } from '#contract/endpoints'
import { ApiError, call, reach } from './client.ts'

const answer = (status: number, body: unknown) =>
  vi.stubGlobal(
    'fetch',
    vi.fn(async () => new Response(typeof body === 'string' ? body : JSON.stringify(body), { status })),
  )
const failure = async (work: Promise<unknown>) => {
  try {
    await work
  } catch (e) {
    return e as ApiError
  }
  throw new Error('it went through')
}
afterEach(() => vi.unstubAllGlobals())

const health = { ok: true, version: '1' }
const id = '018f3b1c-0000-7000-8000-000000000001'

describe('calling the server', () => {
  it('puts parameters into the address and checks the reply', async () => {
    answer(200, {})
    await call(endpoints.deleteRun, { id })
    expect(vi.mocked(fetch).mock.calls[0][0]).toBe(`/api/v1/runs/${id}`)
    expect(vi.mocked(fetch).mock.calls[0][1]).toMatchObject({ method: 'DELETE' })
  })
  it('a reply that does not keep the contract is a fault, not a guess', async () => {
    answer(200, { ...health, ok: 'yes' })
    await expect(call(endpoints.health, {})).rejects.toThrow()
  })
  it('a problem carries its sentence and its code', async () => {
    answer(409, {
      type: 'x',
      title: 'Changed',
      status: 409,
      detail: 'It was changed elsewhere.',
      code: 'record.stale',
      current: { version: 3 },
    })
    const e = await failure(call(endpoints.health, {}))
    expect(e).toBeInstanceOf(ApiError)
    expect(e.message).toBe('It was changed elsewhere.')
    expect(e.problem).toMatchObject({ code: 'record.stale', current: { version: 3 } })
  })
  it('an answer from something else between is told by its number', async () => {
    answer(502, '<h1>Bad gateway</h1>')
    expect((await failure(reach('/x'))).message).toBe('The server answered with 502.')
  })
  it('no server at all says that nothing typed is lost', async () => {
    vi.stubGlobal('fetch', () => Promise.reject(new TypeError('refused')))
    const e = await failure(reach('/x'))
    expect(e.message).toMatch(/What you typed is kept here/)
    expect(e.problem).toBeNull()
  })
})
