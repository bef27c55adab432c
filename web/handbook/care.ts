import type { TextPage } from './page.ts'

/** What keeps a unit worth tuning. Intervals are the maker's; these are what they hang on. */
export const carePages: TextPage[] = [
  {
    key: 'service',
    title: 'Service',
    also: 'seals oil hours lower leg damper stiction workshop',
    text: [
      'Lubricant under the seals dries and gets dirty long before anything leaks. A unit that sticks cannot be tuned: it feels harsh at every click.',
      'Hours count from the maker’s manual. Many ask for the lower legs or the air can after some 50 hours of riding, and for the damper after 100 to 200, or once a year.',
    ],
    lists: [
      {
        title: 'Signs that it is due',
        items: [
          'It sticks, then jumps, when it is pushed very slowly.',
          'Oil on the stanchion or the shaft, more than a film.',
          'A clicking or sucking sound inside; a dial without effect.',
        ],
      },
    ],
    cautions: ['manuals', 'trapped', 'unsound'],
    see: ['words/stiction', 'care/leaks'],
  },
  {
    key: 'leaks',
    title: 'Leaks',
    also: 'loses pressure air gone psi less',
    text: [
      'Every air spring loses a little. More than a few psi in two weeks at the same temperature is a leak: from the valve, the seals, or between the chambers.',
      'Screwing a pump on fills its hose and costs some psi; the hiss on taking it off comes from the hose. Read with one gauge, before anything is pumped.',
      'A unit that sinks in and stays down has lost air from one chamber to the other.',
    ],
    cautions: ['unsound', 'trapped'],
    see: ['words/gauge', 'works/negative-chamber'],
  },
  {
    key: 'cold',
    title: 'Cold',
    also: 'winter frost freezing sluggish',
    text: [
      'Oil is thick and the air has lost pressure: about 6 psi from 20 °C to 5 in a unit set to 100. Cycle it twenty times and ride ten minutes before it is judged.',
      'For a whole cold season one or two clicks more open at both ends is a usual beginning. Note it: it is taken back as it warms.',
    ],
    see: ['works/heat-and-height', 'feels/slow-when-cold'],
  },
  {
    key: 'storage',
    title: 'Storage',
    also: 'winter break hanging upside down months',
    text: [
      'Clean and dry it, wipe the stanchions, leave some air in, and let nothing press on it for months. Turned upside down for a night, oil finds its way back to the upper seals.',
      'Before the first ride: pressure, a look for oil, twenty slow cycles, every dial moved once through its range and back to its count.',
    ],
    cautions: ['stop'],
    see: ['care/leaks', 'works/counting-clicks'],
  },
  {
    key: 'travel',
    title: 'On the road and in the air',
    also: 'flight aeroplane car transport altitude',
    text: [
      'In a hold that is not kept at pressure a unit only reads higher; it stays far below its maximum. Airlines may ask for something else: note the pressures before any air is let out.',
      'At the place: read again once it has the temperature of the place. Height and heat both shift the reading; the day screen says by how much.',
    ],
    cautions: ['maximum'],
    see: ['works/heat-and-height'],
  },
  {
    key: 'before-riding',
    title: 'Before every ride',
    also: 'check tyres headset bolts morning',
    text: ['What makes a good setup feel bad is often no setup at all.'],
    lists: [
      {
        title: 'A minute',
        items: [
          'Tyre pressures, on one gauge. Two psi are more than two clicks.',
          'Air pressures once in two weeks, and on every day that matters.',
          'Lever open, dials where they were counted.',
          'Play in headset, linkage and bolts of the shock: none.',
        ],
      },
    ],
    cautions: ['unsound'],
    see: ['care/leaks', 'words/tyre-pressure'],
  },
]
