import type { TextPage } from './page.ts'

/** Each dial: what it does, which way, where it is found, and when it is not the answer. */
export const dialPages: TextPage[] = [
  {
    key: 'low-speed-compression',
    title: 'Low-speed compression',
    also: 'LSC compression platform blue support',
    text: [
      'Slows compression while the shaft moves slowly: weight shifts, braking, pedalling, berms. Firmer holds the bike up; softer is calmer over small bumps.',
    ],
    lists: [
      {
        title: 'Which way',
        items: [
          'Clockwise, seen at the knob, closes: firmer.',
          'Two to four clicks are a big difference on smooth, bermed trails.',
          'Open it for straight, rough and fast ground.',
        ],
      },
      {
        title: 'Where it is found',
        items: [
          'Fork: at the top of the damper leg, often blue. Shock: on the reservoir or beside the shaft.',
        ],
      },
      {
        title: 'When it is not the answer',
        items: ['Sag is too deep: spring first.', 'It dives only at the very end of the stroke: ramp.'],
      },
    ],
    cautions: ['stop', 'oneChange'],
    signs: ['blue', 'clockwise', 'plus', 'minus'],
    see: ['works/low-and-high-speed', 'feels/dives', 'feels/wallows'],
  },
  {
    key: 'high-speed-compression',
    title: 'High-speed compression',
    also: 'HSC compression square edge landing',
    text: [
      'Acts while the shaft moves fast: square edges, landings. It is the last dial to touch, for fine tuning only. It does not cure a dive.',
    ],
    lists: [
      {
        title: 'Which way',
        items: ['Clockwise closes: firmer.', 'Count it in single clicks; its range is short on most units.'],
      },
      {
        title: 'When it is not the answer',
        items: [
          'It dives under braking: that is slow, so low speed or spring.',
          'It bottoms with sag right: a spacer first.',
        ],
      },
    ],
    cautions: ['stop', 'oneChange'],
    signs: ['blue', 'clockwise', 'plus', 'minus'],
    see: ['works/low-and-high-speed', 'feels/harsh-square-edge', 'feels/bottoms'],
  },
  {
    key: 'rebound',
    title: 'Rebound',
    also: 'red return speed extension',
    text: [
      'Slows the way back out. Faster keeps up with repeated hits; slower calms a kick. As fast as it goes without kicking. Novices are safer one click on the slow side.',
    ],
    lists: [
      {
        title: 'Which way',
        items: ['Clockwise closes: slower.', 'A stiffer spring or higher pressure needs slower rebound.'],
      },
      {
        title: 'Where it is found',
        items: ['Fork: at the foot of a leg, often red. Shock: at one eye, often red.'],
      },
      {
        title: 'When it is not the answer',
        items: [
          'It kicks only off a lip, deep before it: the spring is soft.',
          'It is slow only in the cold: ride it warm before anything is turned.',
        ],
      },
    ],
    cautions: ['rebound', 'stop'],
    signs: ['tortoise', 'hare', 'red', 'clockwise', 'plus', 'minus'],
    see: ['works/packing', 'feels/kicks', 'feels/harsh-gets-worse', 'works/spring-and-damper'],
  },
  {
    key: 'low-speed-rebound',
    title: 'Low-speed rebound',
    also: 'LSR red',
    text: [
      'Slows the way back out while the shaft moves slowly: from small bumps, after braking, out of a berm. Where there is one rebound dial only, it is mostly this one.',
    ],
    lists: [{ title: 'Which way', items: ['Clockwise closes: slower.'] }],
    cautions: ['rebound', 'stop'],
    see: ['dials/rebound', 'dials/high-speed-rebound'],
  },
  {
    key: 'high-speed-rebound',
    title: 'High-speed rebound',
    also: 'HSR red',
    text: [
      'Slows the way back out while the shaft moves fast: the first part of the return from deep, after landings and square edges. Slower calms a kick off a lip; faster lets it get back out between big hits.',
    ],
    lists: [
      {
        title: 'Which way',
        items: ['Clockwise closes: slower.', 'Often turned with a hex key, with few clicks.'],
      },
    ],
    cautions: ['rebound', 'stop'],
    see: ['dials/rebound', 'dials/low-speed-rebound'],
  },
  {
    key: 'pressure',
    title: 'Pressure or spring',
    also: 'air psi bar coil rate spring',
    text: [
      'Holds the rider up. It comes first: no damper setting repairs a wrong spring. With a stiffer spring, rebound must be slower.',
    ],
    lists: [
      {
        title: 'How it is set',
        items: [
          'By sag: the same rider, kit and posture every time.',
          'After sag is right, the pressure is the reference, with its gauge and the temperature.',
          'In small steps: 5 to 10 psi far from the target, 2 to 4 near it.',
        ],
      },
    ],
    cautions: ['pump', 'maximum', 'lockedSolid'],
    see: ['works/sag', 'works/negative-chamber', 'works/air-spring-and-spacers'],
  },
  {
    key: 'spacers',
    title: 'Spacers',
    also: 'volume tokens ramp progressive pieces',
    text: [
      'They make the air chamber smaller: more end-of-stroke ramp, little change at sag. Never above the number the unit allows.',
    ],
    lists: [
      {
        title: 'When',
        items: [
          'It bottoms with sag right: add one, and let a little air out for the same sag.',
          'It never reaches nine tenths of its travel on the hardest trail: take one out.',
        ],
      },
    ],
    cautions: ['trapped', 'maximum'],
    see: ['works/air-spring-and-spacers', 'feels/bottoms', 'feels/unused-travel'],
  },
  {
    key: 'lever',
    title: 'Lever',
    also: 'open middle firm lockout climb switch',
    text: ['Open for descents and for measuring sag. A firm position never fully locks.'],
    lists: [
      {
        title: 'Look first',
        items: ['A lever left at firm feels like too much compression at every click.'],
      },
    ],
    signs: ['open', 'shut'],
    see: ['dials/low-speed-compression', 'feels/harsh-everywhere'],
  },
  {
    key: 'preload',
    title: 'Preload',
    also: 'collar coil turns',
    text: [
      'Turns of a collar that hold a coil spring pressed at rest. It lifts the bike; it does not make a spring firmer.',
    ],
    lists: [
      {
        title: 'How far',
        items: [
          'Enough that the spring is not loose, about two turns more at most. Beyond that another spring is due.',
        ],
      },
    ],
    see: ['words/spring-rate', 'works/sag'],
  },
  {
    key: 'reservoir',
    title: 'Reservoir and negative pressure',
    also: 'reservoir negative start-of-stroke',
    text: [
      'Some units let the pressure behind the damping, or in the chamber that helps the start of the stroke, be set by hand. Each has its own least and most, printed on the unit or in its manual.',
    ],
    lists: [
      {
        title: 'Which way',
        items: [
          'More in the reservoir: firmer all along the stroke.',
          'More negative pressure: softer at the start, and deeper sag.',
        ],
      },
    ],
    cautions: ['manuals', 'pump', 'maximum'],
    see: ['works/negative-chamber'],
  },
]
