/** Faults of a logger that can be told from what it sends. */
export const faultNames = ['leak', 'drop-outs', 'clock-jump', 'battery', 'range', 'stuck'] as const
export type FaultName = (typeof faultNames)[number]

export interface FaultWords {
  title: string
  /** What it does to the figures, what is safe, and the way out of it. */
  means: string
  todo: string[]
}

export const faultWords: Record<FaultName, FaultWords> = {
  leak: {
    title: 'The adapter leaks',
    means:
      'Pressure falls while nothing moves, so every depth read from it drifts. What was ridden before is safe.',
    todo: [
      'Let the air out, unscrew the adapter and look at its seal for dirt or a cut.',
      'Screw it on again by hand until it stops, no tool, then fill to the start pressure.',
      'Equalise, take the baseline again, and watch it for a minute.',
    ],
  },
  'drop-outs': {
    title: 'The connection drops out',
    means:
      'Live values stop for moments. The device still records; stretches it lost stay gaps and are not guessed.',
    todo: [
      'Come closer, with no body or frame between the device and this machine.',
      'Look at the plug of the sensor cable and at the cable where it bends.',
      'If gaps show in a finished recording, ride it again before you judge by it.',
    ],
  },
  'clock-jump': {
    title: 'The clock was set while it ran',
    means: 'Times before and after do not fit together. Reading continues time across the jump and says so.',
    todo: [
      'Finish or break off this recording; what it holds is kept.',
      'Switch the device off and on once, then record anew.',
      'Lay GPS tracks on this recording by hand: its dates are wrong.',
    ],
  },
  battery: {
    title: 'The battery is nearly flat',
    means: 'The device breaks recordings off, or does not start them. What it stored is safe.',
    todo: [
      'Offload what it holds now.',
      'Charge it before the next run; feel alone is enough to go on until then.',
    ],
  },
  range: {
    title: 'The sensor’s range is too small',
    means: 'Readings stand at their highest value and cannot go on, so deep hits are cut off.',
    todo: [
      'Choose the range that covers the end of the stroke: for pressure, baseline × compression ratio and some more.',
      'For a travel sensor, mount it so that it reaches from full extension to full compression, then calibrate again.',
    ],
  },
  stuck: {
    title: 'A channel does not move',
    means: 'It reads the same whatever the bike does, so nothing can be told from it.',
    todo: [
      'Look at the plug and the mount of that sensor.',
      'Compress the bike by hand and watch the live value before you ride.',
    ],
  },
}
