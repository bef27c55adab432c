import 'fake-indexeddb/auto'
import { afterEach, expect, it } from 'vitest'
import { forgetHeld } from '../../api/held.ts'
import { fingerprint } from '../../support/fingerprint.ts'
import { workedOut } from './workedOut.ts'

afterEach(forgetHeld)
/** What was asked for last is written within a second. */
const written = () => new Promise((r) => setTimeout(r, 1200))
let worked = 0
const work = (result: string) => async () => (worked++, result)

it('what was worked out is not worked out again while nothing it rests on has changed', async () => {
  worked = 0
  expect(await workedOut('a', 'rated 6', 'judge-1.js', work('slower'))).toBe('slower')
  await written()
  expect(await workedOut('a', 'rated 6', 'judge-1.js', work('never asked'))).toBe('slower')
  expect(worked).toBe(1)
  // Another rating, another day, another version of the judge.
  expect(await workedOut('a', 'rated 7', 'judge-1.js', work('leave it'))).toBe('leave it')
  expect(await workedOut('b', 'rated 6', 'judge-1.js', work('faster'))).toBe('faster')
  expect(await workedOut('a', 'rated 6', 'judge-2.js', work('sag first'))).toBe('sag first')
  expect(worked).toBe(4)
})

it('a judge that fails leaves nothing behind', async () => {
  await expect(workedOut('a', 'x', 'j', () => Promise.reject(new Error('out of order')))).rejects.toThrow()
  await written()
  expect(await workedOut('a', 'x', 'j', work('mended'))).toBe('mended')
})

it('whoever signs out takes it along', async () => {
  await workedOut('a', 'x', 'j', work('theirs'))
  await written()
  await forgetHeld()
  expect(await workedOut('a', 'x', 'j', work('mine'))).toBe('mine')
})

it('texts that differ in little have different fingerprints', () => {
  const near = ['', '0', '1', '01', '10', '11', '001', '100', 'ab', 'ba', 'é', 'e', '6.5', '65', '5.6']
  const many = Array.from({ length: 20_000 }, (_, i) => `{"rating":${i / 2},"runs":[${i % 7}]}`)
  const all = [...near, ...many]
  expect(new Set(all.map(fingerprint)).size).toBe(all.length)
  expect(fingerprint('a')).toMatch(/^[0-9a-f]{16}$/)
  // Where two letters are exchanged in a long text, too.
  const long = 'x'.repeat(100_000)
  expect(fingerprint(`ab${long}`)).not.toBe(fingerprint(`ba${long}`))
  expect(fingerprint(`${long}ab`)).not.toBe(fingerprint(`${long}ba`))
})
