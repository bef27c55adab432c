import IconBook from '~icons/lucide/book-open'
import IconGarage from '~icons/lucide/warehouse'
import IconSetups from '~icons/lucide/milestone'
import IconPractice from '~icons/lucide/flask-conical'
import IconToday from '~icons/lucide/map-pin'
import type { Component } from 'vue'
import type { Screen } from '../screens.ts'

/** A place of the main bar: on a laptop along the top, on a phone along the foot. */
export interface Place {
  screen: Screen
  words: string
  icon: Component
  /** Screens that are looked at from here: the place stays marked there. */
  holds: readonly Screen[]
  /** On a phone it stands under More: nobody practises with gloves on. */
  underMore?: boolean
}

/** In the order of a day. A further screen is one more line here. */
export const places: readonly Place[] = [
  {
    screen: 'today',
    words: 'Today',
    icon: IconToday,
    holds: ['today', 'setup', 'day', 'trace', 'compare', 'logger'],
  },
  { screen: 'garage', words: 'Garage', icon: IconGarage, holds: ['garage', 'bench'] },
  { screen: 'setups', words: 'Setups', icon: IconSetups, holds: ['setups'] },
  { screen: 'practice', words: 'Practice', icon: IconPractice, holds: ['practice'], underMore: true },
  { screen: 'handbook', words: 'Handbook', icon: IconBook, holds: ['handbook'] },
]
