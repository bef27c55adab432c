import { describe, expect, it } from 'vitest'
import { typedOver } from './typedOver.ts'

const opened = { id: 'r', version: 1, name: 'Oda', kitMassKg: 5, note: '', parts: [{ size: 1 }] }

describe('what was typed over what others saved', () => {
  it('keeps both where different fields were touched', () => {
    const { record, collide } = typedOver(
      opened,
      { ...opened, note: 'stiff in the cold' },
      { ...opened, version: 3, kitMassKg: 7 },
    )
    expect(record).toEqual({ ...opened, version: 3, kitMassKg: 7, note: 'stiff in the cold' })
    expect(collide).toEqual([])
  })
  it('asks where the same field was touched to different ends, and not where to the same', () => {
    const typed = { ...opened, kitMassKg: 6 }
    expect(typedOver(opened, typed, { ...opened, version: 2, kitMassKg: 7 }).collide).toEqual(['kitMassKg'])
    expect(typedOver(opened, typed, { ...opened, version: 2, kitMassKg: 6 }).collide).toEqual([])
  })
  it('takes a list as one field', () => {
    const typed = { ...opened, parts: [{ size: 1 }, { size: 2 }] }
    const elsewhere = { ...opened, version: 2, parts: [{ size: 3 }] }
    expect(typedOver(opened, typed, elsewhere)).toMatchObject({
      collide: ['parts'],
      record: { parts: typed.parts },
    })
  })
  it('never brings back what nobody typed, nor an old version', () => {
    const { record } = typedOver(opened, { ...opened }, { ...opened, version: 9, name: 'Odalys' })
    expect(record).toEqual({ ...opened, version: 9, name: 'Odalys' })
  })
})
