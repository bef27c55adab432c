/** A part of the handbook by the name it is looked up under. */
export const anchorOf = (kind: 'dial' | 'term', name: string): string =>
  `${kind}-${name.toLowerCase().replace(/[^a-z]+/g, '-')}`

/** Dials, by what they do to the ride. */
export const dials = [
  {
    name: 'Low-speed compression',
    text: 'Slows compression while the shaft moves slowly: weight shifts, braking, pedalling, berms. Firmer holds the bike up; softer is calmer over small bumps.',
  },
  {
    name: 'High-speed compression',
    text: 'Acts while the shaft moves fast: square edges, landings. It is the last dial to touch, for fine tuning only. It does not cure a dive.',
  },
  {
    name: 'Rebound',
    text: 'Slows the way back out. Faster keeps up with repeated hits; slower calms a kick. As fast as it goes without kicking. Novices are safer one click on the slow side.',
  },
  {
    name: 'Low-speed rebound',
    text: 'Slows the way back out while the shaft moves slowly: from small bumps, after braking, out of a berm. Where there is one rebound dial only, it is mostly this one.',
  },
  {
    name: 'High-speed rebound',
    text: 'Slows the way back out while the shaft moves fast: the first part of the return from deep, after landings and square edges. Slower calms a kick off a lip; faster lets it get back out between big hits.',
  },
  {
    name: 'Pressure or spring',
    text: 'Holds the rider up. It comes first: no damper setting repairs a wrong spring. With a stiffer spring, rebound must be slower.',
  },
  {
    name: 'Spacers',
    text: 'More end-of-stroke ramp, little change at sag. Never above the number the unit allows.',
  },
  { name: 'Lever', text: 'Open for descents and for measuring sag. A firm position never fully locks.' },
]
/** Words of the bench. */
export const terms = [
  {
    name: 'Sag',
    text: 'How far the unit sits into its travel under the still rider, as a share of travel (fork) or of the shaft’s stroke (shock). On a progressive linkage, per cent of the stroke and per cent of wheel travel are not the same.',
  },
  { name: 'Ring', text: 'The rubber ring on the shaft. It is about 2 mm thick: say which edge is read.' },
  {
    name: 'Equalise',
    text: 'Cycling the unit so that the positive and the negative chamber come to one pressure. Inflating without it leaves the unit stuck down or locked.',
  },
  {
    name: 'Spring rate',
    text: 'Force per travel of a coil. Preload lifts the bike; it does not make a spring firmer.',
  },
  { name: 'Leverage', text: 'Wheel movement per shaft movement. Falling through the stroke = progressive.' },
  {
    name: 'Packing',
    text: 'Hits come faster than the unit gets back out: it sinks hit by hit and turns harsh.',
  },
  {
    name: 'Damping ratio',
    text: 'Damping over what would just stop a swing. About 0.55 to 0.7 for rebound: back once, no bobbing.',
  },
  {
    name: 'One to one',
    text: 'Two rules of one name: kg of riding weight = psi for some forks, lb = psi for many shocks. A factor of 2.2 lies between them, so the rule is never said without unit and part.',
  },
  { name: 'Re-valved', text: 'Changed inside by a workshop: its dials no longer mean the maker’s chart.' },
  {
    name: 'Hot day',
    text: 'The air spring gains pressure, the oil gets thin. It feels soft because of the oil.',
  },
]
