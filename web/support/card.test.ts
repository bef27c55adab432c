import { createHash } from 'node:crypto'
import { crc32 as zlibCrc32, deflateRawSync, inflateRawSync } from 'node:zlib'
import { describe, expect, it } from 'vitest'
import { cardVersion, SetupCard } from '#contract/card'
import type { SuspensionUnit } from '#contract/unit'
import type { InputError } from '#core/errors'
import { knownPlaces } from '#core/lineage/facts'
import { DayBuilder, fork, shock } from '#core/test/dayBuilder'
import { asItsBike, asWish, unitsAlike } from './bringCard.ts'
import { cardOf } from '#core/card/cardOf'
import { codeForm, dictionary, writeCode as write, type CardPacking } from '#core/card/code'
import { readCardJson, readCode } from './readCard.ts'
import { crc32 } from '#core/card/crc32'

const shared = { dictionary: Buffer.from(dictionary) }
const packing: CardPacking = {
  pack: (text) => deflateRawSync(text, shared).toString('base64url'),
  unpack: (packed) => inflateRawSync(Buffer.from(packed, 'base64url'), shared).toString('utf8'),
}
const writeCode = (c: SetupCard, packs: CardPacking) => write(JSON.stringify(c), packs)
const setup = new DayBuilder().history().setups[0]
const unread = { ...setup, positions: setup.positions.filter((p) => p.adjusterId !== 'rr') }
const [place] = knownPlaces(
  { bikeId: 'bike', setups: [unread], units: [fork, shock], kept: [], ridden: [] },
  setup.id,
)
const bike = { name: '150 mm bike', rearWheelTravelMm: 147 }
const card: SetupCard = {
  ...cardOf(place, bike, 'Łucja', [shock, fork], 'Wet roots', null),
  madeAt: '2026-10-10T12:00:00.000Z',
  words: 'Grips “at last”.',
}
const codeOf = (act: () => unknown) => {
  try {
    act()
  } catch (e) {
    return (e as InputError).code
  }
  return 'no fault'
}
let made = 0
const newId = () => `00000000-0000-4000-8000-${String(++made).padStart(12, '0')}`
const now = '2026-11-01T10:00:00.000Z'

describe('a card', () => {
  it('is what stands where, front first, with what nobody read left unread, and no weight', () => {
    expect(SetupCard.parse(card)).toEqual(card)
    expect(card.units.map((u) => u.end)).toEqual(['front', 'rear'])
    const rebound = card.units[1].dials.find((d) => d.role === 'rebound')!
    expect([rebound.value, rebound.how]).toEqual([null, null])
    expect(JSON.stringify(card)).toContain('"ridingMassKg":null')
    expect(JSON.stringify(card)).not.toContain('"id"')
  })
  it('comes back from its code letter by letter', () => {
    expect(readCode(writeCode(card, packing), packing)).toEqual(card)
  })
  it('is small enough for a camera, also with eight dials a unit and long names', () => {
    const dials = (u: (typeof card.units)[number]) =>
      Array.from({ length: 8 }, (_, i) => ({ ...u.dials[i % u.dials.length], alias: `printed name ${i}` }))
    const many = {
      ...card,
      name: 'The long way down past the old sheepfold and both of its crooked gates',
      units: card.units.map((u) => ({ ...u, dials: dials(u) })),
    }
    expect(writeCode(card, packing).length).toBeLessThan(400)
    expect(writeCode(many, packing).length).toBeLessThan(900)
  })
  it('the dictionary is frozen, and the form of the code is that of the card: they are on paper', () => {
    expect(codeForm).toBe(cardVersion)
    expect(createHash('sha256').update(dictionary).digest('hex').slice(0, 16)).toBe('4dfb1d59807125e0')
  })
  it('a code that was torn, changed or is somebody else’s is refused, each by its own sentence', () => {
    const code = writeCode(card, packing)
    expect(codeOf(() => readCode('https://example.invalid/menu', packing))).toBe('card.not-ours')
    expect(codeOf(() => readCode('', packing))).toBe('card.not-ours')
    for (const cut of [1, 5, 40, code.length - 30])
      expect(
        codeOf(() => readCode(code.slice(0, -cut), packing)),
        `${cut} cut off`,
      ).toBe('card.torn')
    for (let i = 25; i < code.length; i += 7) {
      const other = code[i] === 'A' ? 'B' : 'A'
      const changed = code.slice(0, i) + other + code.slice(i + 1)
      expect(['card.torn', 'no fault']).toContain(codeOf(() => readCode(changed, packing)))
      // Never read as other numbers.
      if (codeOf(() => readCode(changed, packing)) === 'no fault')
        expect(readCode(changed, packing)).toEqual(card)
    }
  })
  it('one of a newer version says so, as code and as file', () => {
    const newer = writeCode(card, packing).replace('WILDSPRING.1.', 'WILDSPRING.2.')
    expect(codeOf(() => readCode(newer, packing))).toBe('card.newer')
    expect(codeOf(() => readCardJson(JSON.stringify({ ...card, version: 2, extra: true })))).toBe(
      'card.newer',
    )
  })
  it('a file of something else, or with a number out of its range, is refused', () => {
    expect(codeOf(() => readCardJson('just words'))).toBe('card.not-ours')
    expect(codeOf(() => readCardJson('null'))).toBe('card.not-ours')
    expect(codeOf(() => readCardJson(JSON.stringify({ ...card, ridingMassKg: 7000 })))).toBe('card.torn')
  })
  it('has the check sum that zip and PNG have', () => {
    expect(crc32(new TextEncoder().encode('123456789'))).toBe(0xcbf43926)
    const text = new TextEncoder().encode('Wet roots')
    expect(crc32(text)).toBe(zlibCrc32(text))
  })
})

describe('a card brought in', () => {
  it('as its very bike: the same numbers, known as they were known there; unread stays unread', () => {
    const b = asItsBike(card, null, newId, now)
    expect(b.rider).toMatchObject({ name: 'Łucja', bodyMassKg: null, kitMassKg: null })
    expect(b.bike).toMatchObject({ name: '150 mm bike', currentSetupId: null, rearWheelTravelMm: 147 })
    const values = b.units.flatMap((u) =>
      u.adjusters.map((a) => b.setup.positions.find((p) => p.adjusterId === a.id)?.value ?? null),
    )
    expect(values).toEqual(card.units.flatMap((u) => u.dials.map((d) => d.value)))
    expect(values).toContain(null)
    expect(b.setup).toMatchObject({ wanted: false, parentId: null })
    for (const p of b.setup.positions) expect(p.known).toMatchObject({ how: 'set', at: card.madeAt })
    expect(b.kept).toMatchObject({ id: b.setup.id, name: 'Wet roots' })
  })
  it('of a rider who is here, makes none', () => {
    const b = asItsBike(card, newId(), newId, now)
    expect(b.rider).toBeNull()
  })
  it('onto a bike of the same model: a wish, on the dials of that bike, that turns nothing', () => {
    const own = asItsBike(card, null, newId, now)
    const alike = unitsAlike(card, own.units, newId)
    expect(alike).toEqual(own.units)
    const w = asWish(card, { ...own.bike!, currentSetupId: own.setup.id }, alike, newId, now)
    expect(w.setup).toMatchObject({ wanted: true, parentId: own.setup.id, bikeId: own.bike!.id })
    expect(w.setup.positions.map((p) => p.adjusterId).sort()).toEqual(
      own.setup.positions.map((p) => p.adjusterId).sort(),
    )
    expect([w.rider, w.bike, w.units]).toEqual([null, null, []])
  })
  it('where only one end is alike, only that end is wished for; re-valved or of another stroke is not alike', () => {
    const own = asItsBike(card, null, newId, now)
    const other = own.units.map((u): SuspensionUnit =>
      u.end === 'rear' ? { ...u, strokeMm: u.strokeMm + 5 } : u,
    )
    const alike = unitsAlike(card, other, newId)
    expect(alike.map((u) => u.end)).toEqual(['front'])
    const w = asWish(card, own.bike!, alike, newId, now)
    expect(new Set(w.setup.positions.map((p) => p.end))).toEqual(new Set(['front']))
    expect(
      unitsAlike(
        card,
        own.units.map((u) => ({ ...u, revalved: true })),
        newId,
      ),
    ).toEqual([])
  })
})
