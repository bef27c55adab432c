import type { DayStory } from '../days.ts'

/** What one of them rode the Saturday before, at another place: what the morning check lays beside the present. */
export const weekBefore = (date: string): DayStory => ({
  key: 'obi larch',
  date,
  rider: 'obi',
  bike: 'obi',
  trail: 'larch',
  conditions: { airTempC: 19, altitudeM: 560, surface: 'dry-hard' },
  readAt: '09:10',
  start: {
    'obi fork psi': 87,
    'obi fork lsc': 7,
    'obi fork rebound': 6,
    'obi shock psi': 205,
    'obi shock lsc': 9,
    'obi shock rebound': 6,
  },
  settled: true,
  steps: [
    { do: 'run', at: '09:40', kind: 'warm-up' },
    { do: 'run', at: '10:05', rating: 6, marks: [{ word: 'dives', section: 'Stone steps', end: 'front' }] },
    { do: 'change', at: '10:20', to: { 'obi fork psi': 89 }, why: 'dives into the stone steps' },
    { do: 'run', at: '10:50', rating: 7, marks: [{ word: 'wallows', section: 'Two berms', end: 'rear' }] },
    { do: 'change', at: '11:10', to: { 'obi shock lsc': 8 }, why: 'firmer for the berms' },
    { do: 'run', at: '11:35', rating: 8, marks: [{ word: 'holds-up', section: 'Two berms', end: 'rear' }] },
  ],
})
