import type { AdjusterRole } from '#contract/adjuster'
import type { End } from '#contract/common'
import type { Drill, DrillGroup, Fault, Temper } from './drill.ts'

const between = (low: number, high: number, random: () => number) =>
  low + Math.floor((high - low + 1) * random())
const side = (random: () => number) => (random() < 0.5 ? -1 : 1)
const fault = (end: End, role: AdjusterRole, clicks: number): Fault => ({ end, role, clicks })

const plain: Temper = { noise: 0.5, right: 0.75, misled: 0.05, manner: 'clear' }

/** Dials of the usual bike, one of which is drawn. */
const usualDials: readonly [End, AdjusterRole][] = [
  ['rear', 'rebound'],
  ['front', 'rebound'],
  ['front', 'low-speed-compression'],
  ['front', 'main-pressure'],
  ['rear', 'main-pressure'],
]
function someFaults(count: number, random: () => number): Fault[] {
  const left = [...usualDials]
  return Array.from({ length: count }, () => {
    const [[end, role]] = left.splice(Math.floor(random() * left.length), 1)
    return fault(end, role, side(random) * between(3, 5, random))
  })
}

/** From easy to hard. The first is the lesson of the empty start. */
export const drills: readonly Drill[] = [
  {
    key: 'first-lesson',
    group: 'first',
    title: 'First lesson: one dial',
    before: 'One dial, rear rebound, stands wrong. Four runs are enough. You are told what to do.',
    after: 'One dial that stood wrong. Turn it, ride, keep what is better, ride again, stop.',
    kit: 'one-dial',
    faults: (random) => [fault('rear', 'rebound', 4 * side(random))],
    keen: true,
    temper: {
      ...plain,
      noise: 0.25,
      right: 1,
      misled: 0,
      says: {
        'rebound-fast': [['pogo', 1]],
        'rebound-slow': [['harsh-gets-worse', 1]],
      },
    },
  },
  {
    key: 'one-fault',
    group: 'faults',
    title: 'One thing is wrong',
    before: 'One dial or one pressure stands wrong, either way. The rider speaks plainly.',
    after: 'A single fault: the words point at it, one change at a time shows it.',
    kit: 'usual',
    faults: (random) => someFaults(1, random),
    temper: plain,
  },
  {
    key: 'two-faults',
    group: 'faults',
    title: 'Two things are wrong',
    before: 'Two things stand wrong. The rider names the worse one first.',
    after: 'Two faults: mend the one that is named, then listen again.',
    kit: 'usual',
    faults: (random) => someFaults(2, random),
    temper: plain,
  },
  {
    key: 'something-behind',
    group: 'faults',
    title: 'Something hides behind something',
    before: 'What is complained about is not all that is wrong.',
    after: 'A spring fault behind a damper fault: read sag before a damper is turned.',
    kit: 'usual',
    faults: (random) => [
      fault('rear', 'main-pressure', -between(4, 5, random)),
      fault('rear', 'rebound', -between(2, 3, random)),
    ],
    temper: {
      ...plain,
      says: {
        'spring-soft': [
          ['kicks', 3],
          ['harsh-gets-worse', 2],
        ],
      },
    },
  },
  {
    key: 'sent-to-you',
    group: 'faults',
    title: 'Is anything wrong?',
    before: 'A rider who was sent to you. Find out whether there is anything to turn.',
    after: 'Nothing was wrong. To ride it twice, hear no complaint and leave it alone is the whole of it.',
    kit: 'usual',
    faults: () => [],
    temper: plain,
  },
  {
    key: 'kicks',
    group: 'look-alikes',
    title: 'A rear that kicks',
    before: '“Kicks” is all that is said at first.',
    after:
      'A kick off a lip from a spring that is too soft: it was deep before the lip. Rebound only hides it.',
    kit: 'usual',
    faults: (random) => [fault('rear', 'main-pressure', -between(4, 5, random))],
    temper: {
      ...plain,
      says: {
        'spring-soft': [
          ['kicks', 4],
          ['bottoms', 1],
        ],
      },
    },
  },
  {
    key: 'kicks-again',
    group: 'look-alikes',
    title: 'Another rear that kicks',
    before: 'The rear kicks, says the rider.',
    after: 'A kick that was packing: rebound too slow along a row of hits. Slower makes it worse.',
    kit: 'usual',
    faults: (random) => [fault('rear', 'rebound', -between(3, 4, random))],
    temper: {
      ...plain,
      says: {
        'rebound-slow': [
          ['kicks', 3],
          ['harsh-gets-worse', 1],
        ],
      },
    },
  },
  {
    key: 'dives',
    group: 'look-alikes',
    title: 'It dives',
    before: 'The front dives, says the rider. There is a compression dial.',
    after:
      'A dive that wanted air: it sank everywhere, not on the brakes alone. Compression stands in for a spring.',
    kit: 'usual',
    faults: (random) => [fault('front', 'main-pressure', -between(4, 5, random))],
    temper: {
      ...plain,
      says: {
        'spring-soft': [
          ['dives', 4],
          ['wallows', 1],
        ],
      },
    },
  },
  {
    key: 'bottoms',
    group: 'look-alikes',
    title: 'It bottoms',
    before: 'The rear bottoms, says the rider. Sag is yours to read.',
    after: 'Bottoming at right sag: a spacer, not air.',
    kit: 'spacers',
    faults: () => [fault('rear', 'spacers', -6)],
    temper: plain,
  },
  {
    key: 'made-firmer',
    group: 'look-alikes',
    title: 'Somebody made it firmer',
    before: 'The rider asked for a firmer fork, and got it. Now it is harsh.',
    after:
      'High-speed compression closed to make it “firmer”: support comes from low speed, edges from high speed.',
    kit: 'many',
    faults: (random) => [fault('front', 'high-speed-compression', -between(3, 4, random))],
    temper: {
      ...plain,
      says: {
        'hsc-closed': [
          ['harsh-everywhere', 3],
          ['harsh-square-edge', 2],
        ],
      },
    },
  },
  {
    key: 'front-heavy',
    group: 'look-alikes',
    title: 'It is heavy in front',
    before: 'Nose-heavy, says the rider; the front is blamed.',
    after: 'A rear that stands too tall tips the bike onto its front. The fork was right.',
    kit: 'usual',
    faults: (random) => [fault('rear', 'main-pressure', between(4, 5, random))],
    temper: {
      ...plain,
      says: {
        'spring-firm': [
          ['nose-heavy', 3, 'front'],
          ['harsh-everywhere', 1],
        ],
      },
    },
  },
  {
    key: 'long',
    group: 'look-alikes',
    title: 'It feels long',
    before: 'Long in the turns, says the rider.',
    after: 'A rear that stands too tall, not one that sits low: sag tells which.',
    kit: 'usual',
    faults: (random) => [fault('rear', 'main-pressure', between(4, 5, random))],
    temper: {
      ...plain,
      says: {
        'spring-firm': [
          ['stretched', 3],
          ['unused-travel', 1],
        ],
      },
    },
  },
  {
    key: 'car-park',
    group: 'look-alikes',
    title: 'Lovely in the car park',
    before: 'Soft and quick: everybody who pushed on it in the car park liked it.',
    after: 'Quick rebound and open compression feel lovely by hand. Only the trail counts.',
    kit: 'usual',
    faults: (random) => [
      fault('rear', 'rebound', between(3, 4, random)),
      fault('front', 'low-speed-compression', between(4, 5, random)),
    ],
    temper: plain,
  },
  {
    key: 'noisy-rider',
    group: 'riders',
    title: 'A rider who is all over the place',
    before: 'Ratings of the same setup scatter by more than a point.',
    after: 'With this scatter one run proves little: bold steps, and the same again before it is believed.',
    kit: 'usual',
    faults: (random) => someFaults(2, random),
    temper: { ...plain, noise: 1.1 },
  },
  {
    key: 'learning-rider',
    group: 'riders',
    title: 'A rider who learns the track',
    before: 'The track is new to the rider.',
    after:
      'Ratings rose by themselves. To go back to the first setup shows what was the bike and what the rider.',
    kit: 'usual',
    faults: (random) => someFaults(2, random),
    temper: { ...plain, drift: 0.25, minds: ['track-new', 'track-new'] },
  },
  {
    key: 'misled-rider',
    group: 'riders',
    title: 'A rider who names the wrong thing',
    before: 'Every third word is about something else.',
    after: 'Words are evidence, never proof: what is said twice, at the same place, counts.',
    kit: 'usual',
    faults: (random) => someFaults(1, random),
    temper: { ...plain, right: 0.5, misled: 0.35 },
  },
  {
    key: 'nervous-rider',
    group: 'riders',
    title: 'A nervous rider',
    before: 'It is the first day back after a crash.',
    after: 'The first runs said how the rider was, not how the bike was. They count for less.',
    kit: 'few',
    faults: (random) => [fault('rear', 'rebound', -between(3, 4, random))],
    temper: { ...plain, noise: 0.7, drift: 0.2, minds: ['nervous', 'nervous', 'nervous'] },
  },
  {
    key: 'noon-heat',
    group: 'bikes',
    title: 'It was right this morning',
    before: 'A cool morning, a hot noon. Nothing was touched.',
    after: 'Heat thins the oil and raises the pressure: what was right at 12 °C is fast and tall at 30 °C.',
    kit: 'few',
    faults: () => [],
    temper: plain,
    heatC: [12, 31],
  },
  {
    key: 'lost-count',
    group: 'bikes',
    title: 'As the card says',
    before: 'Everything stands as the card of the last time says, the rider tells you. Nobody has looked.',
    after:
      'The card was right and the bike was not: a dial had been turned since. To count it takes a minute and no run.',
    kit: 'usual',
    faults: (random) => [fault('rear', 'rebound', side(random) * between(3, 4, random))],
    miscounted: [{ end: 'rear', role: 'rebound' }],
    temper: plain,
  },
  {
    key: 'slow-leak',
    group: 'bikes',
    title: 'It gets worse by itself',
    before: 'The first run is fine, the rider says, and nobody touches anything.',
    after:
      'The shock lost air with every run. A gauge says so; clicks only hide it. Then it is for the workshop.',
    kit: 'few',
    faults: () => [],
    leaks: { end: 'rear', clicks: 1 },
    temper: plain,
  },
  {
    key: 'creeping-sensor',
    group: 'bikes',
    title: 'What the sensor says',
    before: 'Sensors ride along. The trace of the fork looks worse from run to run.',
    after:
      'The zero of the front sensor crept. The ring stood where it always stood, and the rider said nothing of the front.',
    kit: 'usual',
    faults: (random) => [fault('rear', 'rebound', side(random) * between(3, 4, random))],
    creeps: { end: 'front', pct: 4 },
    temper: plain,
  },
  {
    key: 'few-dials',
    group: 'bikes',
    title: 'Hardly anything to turn',
    before: 'Rebound and air at both ends: that is all there is.',
    after: 'With few dials air does what compression would do.',
    kit: 'few',
    faults: (random) => [
      fault('front', 'main-pressure', side(random) * between(3, 4, random)),
      fault('rear', 'rebound', side(random) * between(3, 4, random)),
    ],
    temper: plain,
  },
  {
    key: 'dials-everywhere',
    group: 'bikes',
    title: 'Dials everywhere',
    before: 'Eight things to turn. Some do nothing that this rider could feel.',
    after: 'A dial that changed nothing in two clear steps is put back and left alone.',
    kit: 'many',
    faults: (random) => [fault('rear', 'rebound', side(random) * between(3, 4, random))],
    temper: plain,
    dead: [
      { end: 'rear', role: 'low-speed-compression' },
      { end: 'front', role: 'high-speed-compression' },
    ],
  },
]

export const drillGroups: Record<DrillGroup, string> = {
  first: 'Begin here',
  faults: 'Faults',
  'look-alikes': 'One word, two causes',
  riders: 'Riders',
  bikes: 'Bikes and weather',
}

/** The drill of an address; undefined when there is none. */
export const drillOf = (key: string): Drill | undefined => drills.find((d) => d.key === key)
