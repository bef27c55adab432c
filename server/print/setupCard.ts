import type { Content, ContentColumns, TableCell, TDocumentDefinitions } from 'pdfmake/interfaces'
import type { Adjuster } from '#contract/adjuster'
import type { CardDial, CardUnit, SetupCard } from '#contract/card'
import type { End } from '#contract/common'
import type { Letterhead } from '#contract/letterhead'
import { stepWords } from '#core/bench/stepWords'
import { countBaseWords } from '#core/adjusters/count'
import { adjusterRange } from '#core/adjusters/range'
import { adjusterName, familyOf, positionWords, toolWord } from '#core/adjusters/words'
import { knownWords } from '#core/setup/known'
import { sagTargetMm } from '#core/spring/sag'
import { say, type UnitChoice } from '#core/units/choice'
import { localDate } from '#core/units/localDate'
import { lettered } from './fonts.ts'

export const papers = ['A4', 'LETTER', 'A6'] as const
export type Paper = (typeof papers)[number]

export interface CardLook {
  paper: Paper
  choice: UnitChoice
  /** Of whoever asks; left out: of the server. */
  zone?: string
  /** Whose card it is. */
  letterhead: Pick<Letterhead, 'line' | 'mark'>
  /** Of the usual sizes; smaller where a bike has many dials with long names. */
  scale: number
  /** What is in the code; null: too much for one, the file goes along. */
  code: string | null
}

const ink = '#1b2723'
const soft = '#3f4b45'
const line = '#b9b09a'
const ends: Record<End, { word: string; colour: string }> = {
  front: { word: 'Front', colour: '#0c534d' },
  rear: { word: 'Rear', colour: '#74335a' },
}
const dots = { rebound: '#b7352c', compression: '#2f63a8', lever: '#2f63a8', spring: '', other: '' }
const surfaces: Record<NonNullable<SetupCard['found']['surface']>, string> = {
  'dry-hard': 'dry, hard',
  'dry-loose': 'dry, loose',
  damp: 'damp',
  wet: 'wet',
  mud: 'mud',
  snow: 'snow',
}

/** Said on every sheet that leaves the house. */
const cautions = [
  'Makers’ manuals and qualified technicians come first; this card is an aid to judgement.',
  'Shock pump only. Never above the pressure printed on the unit.',
  'Try every change at low speed in a safe place first. A wrong rebound setting can throw a rider.',
  'Never ride with a unit that leaks, clanks or won’t return.',
]
const recheck =
  'Read the pressure again before a day of riding, after two weeks, at a new venue, when it is more than 10 °C warmer or colder, more than 500 m higher or lower, and after any service.'

/** Sizes of a whole page, pt, and of one that goes into a pocket. */
const sizes = {
  page: { margin: 34, text: 10, small: 8.3, title: 20, unit: 13, rail: 150, row: 3.2, code: 118, name: 132 },
  pocket: { margin: 15, text: 6.6, small: 5.6, title: 11, unit: 8, rail: 62, row: 0.6, code: 74, name: 66 },
}
type Sizes = (typeof sizes)['page']

/** One page to take along: every dial on its rail, in its own count, and what it was found in. */
export function setupCard(card: SetupCard, look: CardLook): TDocumentDefinitions {
  const usual = look.paper === 'A6' ? sizes.pocket : sizes.page
  const s = {
    ...usual,
    text: usual.text * look.scale,
    small: usual.small * look.scale,
    title: usual.title * look.scale,
    unit: usual.unit * look.scale,
    row: usual.row * look.scale,
  }
  const { choice } = look
  const f = card.found
  const facts = [
    localDate(card.madeAt, look.zone),
    f.place || null,
    f.airTempC === null ? null : say('temperature', f.airTempC, choice),
    f.altitudeM === null ? null : `${say('altitude', f.altitudeM, choice)} up`,
    f.surface && surfaces[f.surface],
    card.purposes.length ? `for ${card.purposes.join(', ')}` : null,
  ].filter(Boolean)
  const tyre = (psi: number | null) => (psi === null ? 'not noted' : say('pressure', psi, choice))
  const more = [
    `Tyres: front ${tyre(card.tyreFrontPsi)}, rear ${tyre(card.tyreRearPsi)}`,
    card.geometry && `Geometry: ${card.geometry}`,
    card.ridingMassKg !== null && `Riding weight ${say('mass', card.ridingMassKg, choice)}`,
    card.by && `Set up by ${card.by}, ${localDate(card.madeAt, look.zone)}`,
    card.notDone.length > 0 &&
      `Not done: ${card.notDone.map((s) => [stepWords[s.step].toLowerCase(), s.reason].filter(Boolean).join(', ')).join('; ')}`,
    card.words && `“${card.words}”`,
  ].filter((x): x is string => typeof x === 'string' && x !== '')
  const head: Content[] = [
    ...letterhead(look.letterhead, s),
    { ...lettered(card.name), fontSize: s.title, bold: true },
    { ...lettered([card.bike, card.rider].filter(Boolean).join(', ')), fontSize: s.text + 1.5 },
    { ...lettered(facts.join(' · ')), color: soft, margin: [0, 1, 0, 0] },
    ...more.map((m): Content => ({ ...lettered(m), margin: [0, 1, 0, 0] })),
  ]
  const top: ContentColumns = {
    columns: look.code
      ? [
          { width: '*', stack: head },
          {
            width: s.code,
            stack: [
              { qr: look.code, fit: s.code, eccLevel: 'L', foreground: ink, alignment: 'right' },
              {
                text: 'brings it into Wild Spring',
                fontSize: s.small - 0.8,
                alignment: 'right',
                margin: [0, 2, 0, 0],
                color: soft,
              },
            ],
          },
        ]
      : [{ width: '*', stack: head }],
    columnGap: s.margin / 2,
  }
  return {
    pageSize: look.paper,
    pageMargins: [s.margin, s.margin, s.margin, s.margin],
    info: { title: `${card.name}, ${card.bike}`, creator: 'Wild Spring' },
    defaultStyle: { font: 'Latin', fontSize: s.text, color: ink },
    content: [
      top,
      ...card.units.flatMap((u) => unitPart(u, card, choice, s)),
      { text: recheck, fontSize: s.small, margin: [0, s.text * 0.8, 0, s.text * 0.4] },
      { ul: cautions, color: soft, fontSize: s.small },
    ],
  }
}

/** The mark beside the line; nothing where there is neither. */
function letterhead({ line: words, mark }: CardLook['letterhead'], s: Sizes): Content[] {
  const said = { ...lettered(words), fontSize: s.small, color: soft }
  const high = s.text * 2.4
  const picture = mark && { image: mark, fit: [high * 4, high] as [number, number] }
  if (!picture) return words ? [{ ...said, margin: [0, 0, 0, 2] }] : []
  return [
    {
      columns: [{ width: 'auto', stack: [picture] }, ...(words ? [{ width: '*', ...said }] : [])],
      columnGap: s.text * 0.7,
      margin: [0, 0, 0, s.text * 0.4],
    },
  ]
}

/** A dial with an id that nothing refers to: the words and ranges of the core speak of adjusters. */
function adjusterOf(dial: CardDial): Adjuster {
  const { value: _value, how: _how, ...shape } = dial
  return { ...shape, id: '' } as Adjuster
}

function unitPart(u: CardUnit, card: SetupCard, choice: UnitChoice, s: Sizes): Content[] {
  const { word, colour } = ends[u.end]
  const pct = u.end === 'front' ? card.sag.frontPct : card.sag.rearPct
  const posture = u.end === 'front' ? card.sag.front : card.sag.rear
  const mm = (share: number) => say('length', sagTargetMm(share, u.strokeMm), choice)
  const target = `target ${u.sagTargetPct} % = ${mm(u.sagTargetPct)} of ${say('length', u.strokeMm, choice)}`
  const sag =
    pct === null
      ? `Sag not noted, ${target}`
      : `Sag ${pct.toFixed(1)} % = ${mm(pct)}${posture ? `, read ${posture === 'seated' ? 'seated' : 'standing ready'}` : ''}; ${target}`
  return [
    {
      ...lettered(`${word}: ${u.name}${u.revalved ? ', re-valved' : ''}`),
      fontSize: s.unit,
      bold: true,
      color: colour,
      margin: [0, s.text * 0.8, 0, 0],
    },
    { text: sag, fontSize: s.small + 0.5, margin: [0, 0, 0, 2] },
    {
      table: {
        widths: [s.name, s.rail, '*'],
        body: u.dials.length
          ? u.dials.map((d) => dialRow(d, colour, choice, s))
          : [[{ text: 'nothing to turn', colSpan: 3 }, '', '']],
      },
      layout: {
        hLineWidth: (i, node) => (i === 0 || i === node.table.body.length ? 0 : 0.4),
        vLineWidth: () => 0,
        hLineColor: () => line,
        paddingTop: () => s.row,
        paddingBottom: () => s.row,
        paddingLeft: () => 0,
        paddingRight: () => 4,
      },
    },
  ]
}

function dialRow(d: CardDial, colour: string, choice: UnitChoice, s: Sizes): TableCell[] {
  const a = adjusterOf(d)
  const known = d.how === null || d.value === null ? 'unread' : d.how
  const base = countBaseWords(a)
  const dial = a.kind === 'click' || a.kind === 'turn'
  const of = a.kind === 'click' ? `of ${a.clicks}` : a.kind === 'turn' ? `of ${a.turns}` : ''
  const family = familyOf(a)
  const way = !dial ? '' : family === 'rebound' ? '↻ slower' : family === 'compression' ? '↻ firmer' : ''
  const notes = [
    known === 'assumed' ? 'assumed' : '',
    [of, base].filter(Boolean).join(' '),
    // The fonts have no turning arrows: in words.
    way.replace('↻', 'clockwise ='),
    toolWord(a),
  ].filter(Boolean)
  const name = lettered(a.alias ? `${adjusterName(a)} (${a.alias})` : adjusterName(a))
  return [
    {
      columns: [
        ...(dots[family]
          ? [
              {
                width: s.text * 0.8,
                canvas: [
                  {
                    type: 'ellipse' as const,
                    x: s.text * 0.25,
                    y: s.text * 0.55,
                    r1: s.text * 0.24,
                    r2: s.text * 0.24,
                    color: dots[family],
                  },
                ],
              },
            ]
          : []),
        { width: '*', ...name },
      ],
    },
    { canvas: rail(a, d.value, colour, s) },
    {
      text: [
        {
          text: d.value === null ? knownWords.unread : positionWords(a, d.value, choice),
          bold: d.value !== null,
        },
        { text: `  ${notes.join(', ')}`, fontSize: s.small, color: soft },
      ],
    },
  ]
}

/** The range of a dial with a mark for each place (at most thirty) and a peg where it stands. */
function rail(a: Adjuster, value: number | null, colour: string, s: Sizes) {
  const { min, max, step, allowed } = adjusterRange(a)
  const width = s.rail - 10
  const y = s.text * 0.6
  const at = (v: number) => 5 + (max === min ? width / 2 : (width * (v - min)) / (max - min))
  const stroke = (x: number, half: number) => ({
    type: 'line' as const,
    x1: x,
    x2: x,
    y1: y - half,
    y2: y + half,
    lineWidth: 0.4,
    lineColor: soft,
  })
  const mostMarks = 30
  const n = Math.round((max - min) / (step || 1))
  const each = Math.ceil(n / mostMarks)
  const marks =
    allowed ?? Array.from({ length: Math.floor(n / each) + 1 }, (_, i) => min + i * each * (step || 1))
  return [
    { type: 'line' as const, x1: 5, x2: 5 + width, y1: y, y2: y, lineWidth: 0.7, lineColor: soft },
    ...marks.map((v) => stroke(at(v), s.text * 0.2)),
    stroke(5, s.text * 0.4),
    stroke(5 + width, s.text * 0.4),
    ...(value === null
      ? []
      : [{ type: 'ellipse' as const, x: at(value), y, r1: s.text * 0.36, r2: s.text * 0.36, color: colour }]),
  ]
}
