import type { Lacking } from '#core/setup/ownNumbers'

/** Why a figure does not open with the numbers of a bike, and what would change that. */
export const lackingWords: Record<Lacking, string> = {
  unit: 'It has none at this end.',
  air: 'It has a coil here.',
  chambers: 'The sizes of its chambers are not noted in the garage.',
  stroke: 'Its stroke is only typical: measure it, or read it off the print, and note it in the garage.',
  pressure: 'Nobody has set or read its pressure.',
  spacers: 'Nobody has noted how many spacers are in it.',
  sag: 'Nobody has read its sag at the pressure that is in it.',
  leverage: 'Its leverage is not noted in the garage.',
  dial: 'It has no rebound dial whose clicks were counted.',
  place: 'Nobody has counted where its rebound stands.',
  'two-dials': 'It has no two compression dials here whose clicks were counted.',
  'two-places': 'Nobody has counted where both its compression dials stand.',
  repeats: 'Too few of its settings were ridden twice on one day.',
}
