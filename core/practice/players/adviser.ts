import { advise } from '../../adviser/advise.ts'
import { historyOf, spaceOfDay } from '../../adviser/history.ts'
import type { Player } from './play.ts'

/** A rider is asked no more than this between two runs. */
const mostAsked = 3

/** Does what the cards of the product say, to the letter. @param sensors on the bike, too */
export function followsAdviser(sensors = false): Player {
  return {
    sensors,
    act: ({ bundle, since }) => {
      // A change was made: it is ridden before anything else. Of what was gone back to the next card tells.
      if (since.some((a) => a.do === 'turn' && a.source !== 'revert')) return 'ride'
      const p = advise(historyOf(bundle), spaceOfDay(bundle))
      if (p.kind === 'settled') return { do: 'settle' }
      const [look] = p.lookAt
      if (look) return { do: 'look', adjusterId: look }
      if (since.filter((a) => a.do !== 'look').length < mostAsked) {
        if (p.question) return { do: 'ask', question: p.question.id, end: p.question.end }
        if (p.readEnd) return { do: 'read', end: p.readEnd }
      }
      const back = p.setupId && bundle.setups.find((s) => s.id === p.setupId)
      const to = back
        ? Object.fromEntries(back.positions.map((x) => [x.adjusterId, x.value]))
        : Object.fromEntries(p.moves.map((m) => [m.adjusterId, m.to]))
      if (Object.keys(to).length === 0) return 'ride'
      return {
        do: 'turn',
        to,
        linked: p.moves.length > 1,
        text: p.headline,
        source: back ? 'revert' : 'proposal',
      }
    },
  }
}
