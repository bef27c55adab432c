import { inflateRawSync } from 'node:zlib'
import decodeQR from 'qr/decode.js'
import { describe, expect, it } from 'vitest'
import { SetupCard } from '#contract/card'
import { letterheadId } from '#contract/letterhead'
import type { SuspensionUnit } from '#contract/unit'
import { dictionary, openCode } from '#core/card/code'
import { benchOn } from '#core/test/dayBuilder'
import { startApp } from './harness.ts'
import { drawPdf } from '../../e2e/pdfPicture.ts'
import { makeSetup, makeUnit, startStory } from './story.ts'

const shared = { dictionary: Buffer.from(dictionary) }
const unpack = (packed: string) => inflateRawSync(Buffer.from(packed, 'base64url'), shared).toString('utf8')
/** What a camera makes of a printed page. */
const readOff = (page: Parameters<typeof decodeQR>[0]) =>
  SetupCard.parse(JSON.parse(openCode(decodeQR(page), { unpack })))

/** A unit with eight dials, each with the longest name its print may have. */
function fullUnit(end: 'front' | 'rear'): SuspensionUnit {
  const unit = makeUnit(end)
  const [pressure, dial] = unit.adjusters
  const roles = [
    'low-speed-compression',
    'high-speed-compression',
    'low-speed-rebound',
    'high-speed-rebound',
    'compression',
    'rebound',
    'rebound',
  ] as const
  return {
    ...unit,
    name: 'The long-travel unit with the second chamber and the lockout cable, left',
    adjusters: [
      pressure,
      ...roles.map((role, i) => ({
        ...dial,
        id: `0${i}a21259-5d75-71e8-8587-${end === 'front' ? 'e' : 'f'}53156d25a8${i}`,
        role,
        alias: 'Printed in full beside the dial, no. 12',
      })),
    ] as SuspensionUnit['adjusters'],
  }
}
async function fullBike() {
  const t = await startApp()
  const s = await startStory(t)
  const front = fullUnit('front')
  const rear = fullUnit('rear')
  for (const u of [front, rear]) await t.put(`/units/${u.id}`, u)
  const bike = {
    ...s.bike,
    version: 0,
    id: '03a21259-5d75-71e8-8587-e53156d25a83',
    name: 'The long-travel bike that was built up over two winters in the shed',
    frontUnitId: front.id,
    rearUnitId: rear.id,
    currentSetupId: null,
  }
  await t.put(`/bikes/${bike.id}`, bike)
  const setup = makeSetup(bike, [front, rear], {
    name: 'Wet roots past the old sheepfold and both of its gates',
  })
  // One was never read.
  setup.positions.pop()
  await t.put(`/setups/${setup.id}`, setup)
  return { t, s, bike, setup }
}

describe('the setup card', () => {
  it.each([
    ['A4', 210, 297],
    ['LETTER', 216, 279],
    ['A6', 105, 148],
  ])(
    'is one %s page with eight dials a unit and long names, and its code is read off the picture',
    async (paper, w, h) => {
      const { t, bike, setup } = await fullBike()
      const asked = `/bikes/${bike.id}/card`
      const file = SetupCard.parse((await t.get(`${asked}.json`)).body)
      const top = { id: letterheadId, version: 0, line: 'The shed, Mill Lane 12', mark: null }
      await t.put(`/letterheads/${letterheadId}`, top)
      const answer = await t.get(`${asked}.pdf?paper=${paper}`)
      expect(answer.headers.get('content-type')).toBe('application/pdf')
      const pages = await drawPdf(answer.body, 200)
      expect(pages).toHaveLength(1)
      const [page] = pages
      expect([page.width, page.height].map((px) => Math.round((px * 25.4) / 200))).toEqual([w, h])
      for (const words of [
        'Wet roots past',
        'The shed, Mill Lane 12',
        'not read',
        '80 psi',
        'clockwise =',
        'Shock pump only',
      ])
        expect(page.text).toContain(words)
      const read = readOff(page)
      expect(read).toEqual(file)
      expect(read.units.flatMap((u) => u.dials.map((d) => d.value))).toEqual([
        ...setup.positions.map((p) => p.value),
        null,
      ])
      await t.store.close()
    },
  )
  it('speaks the reader’s units; its code stays canonical', async () => {
    const { t, bike } = await fullBike()
    const [page] = await drawPdf((await t.get(`/bikes/${bike.id}/card.pdf?pressure=bar`)).body, 200)
    expect(page.text).toContain('5.52 bar')
    expect(readOff(page).units[0].dials[0].value).toBe(80)
    await t.store.close()
  })
  it('is dated on the wall of whoever asks, not of the server', async () => {
    const { t, s } = await fullBike()
    const late = makeSetup(s.bike, [s.front, s.rear], {
      parentId: s.setup.id,
      madeAt: '2031-05-02T23:30:00.000Z',
    })
    late.reason.linked = true
    expect((await t.put(`/setups/${late.id}`, late)).status).toBe(200)
    const dated = async (zone: string) =>
      (await drawPdf((await t.get(`/bikes/${s.bike.id}/card.pdf?zone=${zone}`)).body))[0].text
    expect(await dated('America/Vancouver')).toContain('2031-05-02')
    expect(await dated('Pacific/Auckland')).toContain('2031-05-03')
    await t.store.close()
  })
  it('carries no weight unless it is asked for, on paper, in the code and in the file', async () => {
    const { t, bike } = await fullBike()
    const [plain] = await drawPdf((await t.get(`/bikes/${bike.id}/card.pdf`)).body, 200)
    expect(plain.text).not.toMatch(/weight|\d kg/)
    expect(readOff(plain).ridingMassKg).toBeNull()
    expect(((await t.get(`/bikes/${bike.id}/card.json`)).body as SetupCard).ridingMassKg).toBeNull()
    const [asked] = await drawPdf((await t.get(`/bikes/${bike.id}/card.pdf?weight=yes`)).body, 200)
    expect(asked.text).toContain('Riding weight 73 kg')
    await t.store.close()
  })
  it('carries none of a rider whose kit nobody has weighed: body alone is another number', async () => {
    const { t, s, bike } = await fullBike()
    await t.put(`/riders/${s.rider.id}`, { ...s.rider, version: 1, kitMassKg: null })
    const [asked] = await drawPdf((await t.get(`/bikes/${bike.id}/card.pdf?weight=yes`)).body, 200)
    expect(asked.text).not.toMatch(/weight|\d kg/)
    await t.put(`/riders/${s.rider.id}`, { ...s.rider, version: 2, kitMassKg: 0 })
    const card = (await t.get(`/bikes/${bike.id}/card.json?weight=yes`)).body as SetupCard
    expect(card.ridingMassKg).toBe(s.rider.bodyMassKg! + s.rider.waterL)
    await t.store.close()
  })
  it('is of the setup that was asked for, with the letters of every name', async () => {
    const { t, s } = await fullBike()
    await t.put(`/riders/${s.rider.id}`, { ...s.rider, version: 1, name: 'Łucja Żółć' })
    const next = makeSetup(s.bike, [s.front, s.rear], { parentId: s.setup.id, name: 'Later' })
    next.positions[0].value = 91
    next.reason.linked = true
    await t.put(`/setups/${next.id}`, next)
    const [then] = await drawPdf((await t.get(`/bikes/${s.bike.id}/card.pdf?setup=${s.setup.id}`)).body)
    expect(then.text).toContain('80 psi')
    expect(then.text).not.toContain('91 psi')
    expect(then.text.replaceAll(/\s/g, '')).toContain('ŁucjaŻółć')
    const [now] = await drawPdf((await t.get(`/bikes/${s.bike.id}/card.pdf`)).body)
    expect(now.text).toContain('91 psi')
    await t.store.close()
  })
  it('says what was left out on the bench it came from, and why', async () => {
    const { t, s } = await fullBike()
    const at = '2031-04-02T09:00:00.000Z'
    const bench = benchOn({
      id: '03a21259-5d75-71e8-8587-e53156d25a84',
      version: 0,
      bikeId: s.bike.id,
      positions: [],
      finishedSetupId: s.setup.id,
      steps: [
        { step: 'prepare', state: 'done', at, reason: '', basis: {} },
        { step: 'rebound', state: 'skipped', at, reason: 'no time before the start', basis: {} },
        { step: 'sag-front', state: 'out', at, reason: '', basis: {} },
      ],
    })
    expect((await t.put(`/benches/${bench.id}`, bench)).status).toBe(200)
    const [page] = await drawPdf((await t.get(`/bikes/${s.bike.id}/card.pdf`)).body, 200)
    expect(page.text).toContain('Not done: rebound, no time before the start; sag, front')
    expect(readOff(page).notDone.map((x) => [x.step, x.state])).toEqual([
      ['rebound', 'skipped'],
      ['sag-front', 'out'],
    ])
    await t.store.close()
  })
  it('refuses another bike’s setup, an unknown bike, a paper and a unit nobody has', async () => {
    const { t, s, bike, setup } = await fullBike()
    const code = async (path: string) => ((await t.get(path)).body as { code?: string }).code
    expect(await code(`/bikes/${s.bike.id}/card.pdf?setup=${setup.id}`)).toBe('reference.missing')
    expect(await code(`/bikes/${setup.id}/card.pdf`)).toBe('record.not-found')
    expect(await code(`/bikes/${bike.id}/card.pdf?paper=A3`)).toBe('request.invalid')
    expect(await code(`/bikes/${bike.id}/card.pdf?zone=Nowhere`)).toBe('request.invalid')
    expect(await code(`/bikes/${bike.id}/card.pdf?pressure=kPa`)).toBe('request.invalid')
    await t.store.close()
  })
})
