import type { Content, TDocumentDefinitions } from 'pdfmake/interfaces'
import type { SuspensionUnit } from '#contract/unit'
import { sagTargetMm, sagWindowPct } from '#core/spring/sag'
import { say, type UnitChoice } from '#core/units/choice'
import { lettered } from './fonts.ts'
import { pointsPerMm } from './render.ts'

/** What the person holds against a ruler before trusting the strip. */
export const checkLengthMm = 100
/** What fits on the page above the check line; sag lies far within it. */
export const longestStripMm = 235

const mm = (x: number) => x * pointsPerMm
const strip = { left: 30, top: 38, width: 26, gap: 62 }
const ink = '#1b2723'
const ends = {
  front: { name: 'Front', tint: '#c4ddd8', line: '#0c534d' },
  rear: { name: 'Rear', tint: '#e2cdd9', line: '#74335a' },
}

/**
 * Paper strips to hold beside the shaft, drawn 1:1 in millimetres: stroke, a mark each mm, the target window; with a
 * length to check the printer by. The upper edge goes to the wiper.
 */
export function sagStrip(
  units: readonly SuspensionUnit[],
  title: string,
  choice: UnitChoice,
): TDocumentDefinitions {
  const at = (x: number, y: number) => ({ absolutePosition: { x: mm(x), y: mm(y) } })
  const line = (x1: number, y1: number, x2: number, y2: number, width = 0.2, colour = ink) => ({
    type: 'line' as const,
    x1: mm(x1),
    y1: mm(y1),
    x2: mm(x2),
    y2: mm(y2),
    lineWidth: mm(width),
    lineColor: colour,
  })
  const content: Content[] = [
    { ...at(15, 12), ...lettered(`Sag strip, ${title}`), fontSize: 15, bold: true },
    {
      ...at(15, 20),
      text: 'Print at 100 %, not fitted to the page. Hold the check line against a ruler before use.',
      fontSize: 9.5,
    },
    {
      ...at(15, 25),
      text: 'Cut out, put the upper edge to the wiper, read where the ring’s facing edge stands.',
      fontSize: 9.5,
    },
  ]
  units.forEach((u, i) => {
    const x = strip.left + i * strip.gap
    const { name, tint, line: colour } = ends[u.end]
    const target = sagTargetMm(u.sagTargetPct, u.strokeMm)
    const drawn = Math.min(u.strokeMm, longestStripMm)
    const half = sagTargetMm(sagWindowPct(u.strokeMm), u.strokeMm)
    const ticks = Array.from({ length: Math.floor(drawn) + 1 }, (_, y) =>
      line(0, y, y % 10 === 0 ? 10 : y % 5 === 0 ? 7 : 4, y, y % 10 === 0 ? 0.25 : 0.12),
    )
    content.push({
      ...at(x, strip.top),
      canvas: [
        { type: 'rect', x: 0, y: mm(target - half), w: mm(strip.width), h: mm(2 * half), color: tint },
        {
          type: 'rect',
          x: 0,
          y: 0,
          w: mm(strip.width),
          h: mm(drawn),
          lineWidth: mm(0.25),
          lineColor: ink,
        },
        ...ticks,
        line(0, target, strip.width, target, 0.5, colour),
      ],
    })
    // A number under the target line could not be read.
    for (let y = 10; y < drawn - 2; y += 10)
      if (Math.abs(y - target) > 3)
        content.push({ ...at(x + 11, strip.top + y - 1.5), text: String(y), fontSize: 8 })
    content.push(
      { ...at(x, strip.top - 6), ...lettered(`${name}: ${u.name}`), fontSize: 9.5, bold: true },
      {
        ...at(x + strip.width + 2, strip.top + target - 4),
        text: `${u.sagTargetPct} %\n${say('length', target, choice)}`,
        fontSize: 9.5,
        bold: true,
        color: colour,
      },
      {
        ...at(x, strip.top + drawn + 1.5),
        text: `${drawn < u.strokeMm ? 'cut short; ' : ''}whole ${u.end === 'front' ? 'travel' : 'stroke'}: ${say('length', u.strokeMm, choice)}`,
        fontSize: 8,
      },
    )
  })
  const checkX = 15
  const checkY = 283
  content.push(
    {
      ...at(checkX, checkY),
      canvas: [
        line(0, 0, checkLengthMm, 0, 0.4),
        line(0, -2, 0, 2, 0.4),
        line(checkLengthMm, -2, checkLengthMm, 2, 0.4),
      ],
    },
    {
      ...at(checkX + checkLengthMm + 4, checkY - 2),
      text: `This line is ${checkLengthMm} mm long.`,
      fontSize: 9.5,
    },
  )
  return {
    pageSize: 'A4',
    pageMargins: 0,
    info: { title: `Sag strip, ${title}`, creator: 'Wild Spring' },
    defaultStyle: { font: 'Latin', color: ink },
    content,
  }
}
