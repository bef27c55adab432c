/** What bench, weather, tyres, levers and rings say, as numbers the diagnosis uses and words the handbook prints. */
export const facts = {
  /** °C from which the oil alone explains a lot. */
  hotC: 28,
  coldC: 4,
  weather: 0.6,
  /** Change of air temperature since the setup was found, °C. */
  temperatureJumpC: 10,
  temperatureJump: 0.5,
  /** Sag at the baseline off its target, % points. */
  sagBandPct: 5,
  sag: 0.9,
  /** Read this near to its target it speaks against its spring, % points: what a ring can show. */
  sagRightPct: 2.5,
  sagRight: 0.5,
  lever: 1,
  tyreSpreadPsi: 2,
  tyre: 0.8,
  /** A tyre this far from the bike's own pressure, psi. */
  tyreOffPsi: 3,
  ringFullPct: 98,
  ringFull: 0.5,
  ringShortPct: 75,
  ringShortSpring: 0.5,
  ringShortRamp: 0.4,
  /** How much a ring at full travel, and one with travel left, weigh on a run so ridden; not said: as usual. */
  ringEffort: {
    'held-back': { full: 1.4, short: 0 },
    usual: { full: 1, short: 1 },
    'all-out': { full: 0.5, short: 1.3 },
  },
  /** Counted by ear: so many bottom-outs are one too many on a run so ridden. */
  heardFrom: { 'held-back': 1, usual: 2, 'all-out': 3 },
  heard: 0.5,
}

export const factRules: { topic: string; label: string; says: string }[] = [
  {
    topic: 'weather',
    label: 'Air temperature',
    says: `from ${facts.hotC} °C for thin, hot oil ${facts.weather}; up to ${facts.coldC} °C for thick, cold oil ${facts.weather}; ${facts.temperatureJumpC} °C or more away from where the setup was found ${facts.temperatureJump}`,
  },
  {
    topic: 'sag',
    label: 'Sag of the baseline',
    says: `more than ${facts.sagBandPct} points off its target: spring too soft or too firm ${facts.sag}; within ${facts.sagRightPct} points of it: either ${facts.sagRight} less`,
  },
  {
    topic: 'lever',
    label: 'Lever',
    says: `not fully open: low-speed compression too firm ${facts.lever}`,
  },
  {
    topic: 'tyres',
    label: 'Tyre pressure',
    says: `more than ${facts.tyreSpreadPsi} psi between runs, or ${facts.tyreOffPsi} psi and more from the bike’s own: tyre pressure ${facts.tyre}`,
  },
  {
    topic: 'ring',
    label: 'Ring, where no sensor tells',
    says: `from ${facts.ringFullPct} % of travel: too little ramp ${facts.ringFull}, spring too soft ${facts.ringFull}; below ${facts.ringShortPct} %: spring too firm ${facts.ringShortSpring}, too much ramp ${facts.ringShortRamp}. Held back, travel left says nothing and full travel weighs ${facts.ringEffort['held-back'].full} times; ridden all out, full travel weighs ${facts.ringEffort['all-out'].full} times and travel left ${facts.ringEffort['all-out'].short} times`,
  },
  {
    topic: 'heard',
    label: 'Bottom-outs counted by ear',
    says: `from ${facts.heardFrom.usual} on a usual run, ${facts.heardFrom['held-back']} held back, ${facts.heardFrom['all-out']} all out: too little ramp ${facts.heard}, spring too soft ${facts.heard}; none: both ${facts.heard} less`,
  },
]
