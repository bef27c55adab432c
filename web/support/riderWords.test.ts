import { describe, expect, it } from 'vitest'
import { riderWords, saidLevel } from './riderWords.ts'

const rider = (assumed: string[]) => ({ level: 'advanced' as const, taste: 'lively' as const, assumed })

describe('how a rider rides', () => {
  it('is told as far as somebody said it', () => {
    expect(riderWords(rider([]))).toBe('advanced, prefers a quick feel')
    expect(riderWords(rider(['kitMassKg', 'taste']))).toBe('advanced')
    expect(riderWords(rider(['level']))).toBe('prefers a quick feel')
    expect(riderWords(rider(['level', 'taste']))).toBe('')
    expect([saidLevel(rider([])), saidLevel(rider(['level']))]).toEqual(['advanced', null])
  })
})
