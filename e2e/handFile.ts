/**
 * A sensor file as some logger might write it and none of our code does: semicolons, decimal commas, milliseconds
 * that do not start at 0, Windows line ends, a byte order mark, comment lines and columns nobody asked for.
 */
export function handFile(options: { sinking: number; seconds?: number }): Buffer {
  const { sinking, seconds = 40 } = options
  const comma = (x: number, digits = 2) => x.toFixed(digits).replace('.', ',')
  const lines = ['# ride 7', 'Stamp [ms];Batt [V];Fork [mm];Shock [mm];Temp']
  for (let i = 0; i < seconds * 200; i++) {
    const t = i / 200
    // Trains of six hits every five seconds; between hits the rear comes back less far each time.
    const phase = t % 5
    const k = Math.floor(phase / 0.35)
    const inTrain = k < 6
    const bump = inTrain ? 0.5 * (1 - Math.cos((2 * Math.PI * (phase - k * 0.35)) / 0.35)) : 0
    const sunk = inTrain ? sinking * (phase / 0.35) : sinking * 6 * Math.exp(-3 * (phase - 2.1))
    const front = 30 + 40 * bump + 2 * Math.sin(t)
    const rearPct = 30 + 28 * bump + sunk + Math.sin(t * 1.3)
    lines.push(
      [81_234 + i * 5, comma(3.91), comma(front), comma((rearPct / 100) * 55), comma(17.5, 1)].join(';'),
    )
  }
  return Buffer.from('\uFEFF' + lines.join('\r\n') + '\r\n', 'utf8')
}
