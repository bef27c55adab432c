import type { Content, TDocumentDefinitions } from 'pdfmake/interfaces'
import type { Bike } from '#contract/bike'
import type { Setup } from '#contract/setup'
import type { SuspensionUnit } from '#contract/unit'
import { countBaseWords } from '#core/adjusters/count'
import { adjusterName, positionWords, toolWord } from '#core/adjusters/words'
import { sagTargetMm } from '#core/spring/sag'
import { say, type UnitChoice } from '#core/units/choice'
import { lettered } from './fonts.ts'

const ink = '#1b2723'
const soft = '#3f4b45'
const endWords = { front: 'Front', rear: 'Rear' }

/** Said on every sheet that leaves the house. */
const cautions = [
  'Makers’ manuals and qualified technicians come first; this sheet is an aid to judgement.',
  'Shock pump only. Never above the pressure printed on the unit.',
  'Try every change at low speed in a safe place first. A wrong rebound setting can throw a rider.',
  'Never ride with a unit that leaks, clanks or won’t return.',
]
const recheck =
  'Read the pressure again before a day of riding, after two weeks, at a new venue, when it is more than 10 °C warmer or colder, more than 500 m higher or lower, and after any service.'

/**
 * One page to take home: where everything stands and how it is counted. No weight: sheets lie about.
 * @param riderName a first name is enough
 */
export function baselineSheet(
  bike: Pick<Bike, 'name'>,
  riderName: string,
  setup: Setup,
  units: readonly SuspensionUnit[],
  choice: UnitChoice,
): TDocumentDefinitions {
  const found = setup.foundIn
  const facts = [
    setup.madeAt.slice(0, 10),
    found?.place || null,
    typeof found?.airTempC !== 'number' ? null : say('temperature', found.airTempC, choice),
    typeof found?.altitudeM !== 'number' ? null : `${say('altitude', found.altitudeM, choice)} up`,
  ].filter((x) => x !== null)
  const content: Content[] = [
    { ...lettered(setup.name ?? 'Where it stands'), fontSize: 20, bold: true },
    { ...lettered(`${bike.name}, ${riderName}`), fontSize: 12, margin: [0, 2, 0, 0] },
    { ...lettered(facts.join(' · ')), color: soft, margin: [0, 2, 0, 10] },
    ...units.flatMap((u) => unitPart(u, setup, choice)),
    { text: recheck, margin: [0, 14, 0, 6] },
    { ul: cautions, color: soft },
    { text: 'Notes', bold: true, margin: [0, 16, 0, 4] },
    ...Array.from({ length: 6 }, () => ({
      canvas: [{ type: 'line' as const, x1: 0, y1: 18, x2: 515, y2: 18, lineWidth: 0.4, lineColor: soft }],
    })),
  ]
  return {
    pageSize: 'A4',
    pageMargins: [40, 40, 40, 40],
    info: { title: `${setup.name ?? 'Baseline'}, ${bike.name}`, creator: 'Wild Spring' },
    defaultStyle: { font: 'Latin', fontSize: 10.5, color: ink },
    content,
  }
}

function unitPart(u: SuspensionUnit, setup: Setup, choice: UnitChoice): Content[] {
  const sag = u.end === 'front' ? setup.foundIn?.sagFrontPct : setup.foundIn?.sagRearPct
  const target = `target ${u.sagTargetPct} % = ${say('length', sagTargetMm(u.sagTargetPct, u.strokeMm), choice)} of ${say('length', u.strokeMm, choice)}`
  const rows = u.adjusters.map((a) => {
    const at = setup.positions.find((p) => p.adjusterId === a.id)?.value
    return [
      lettered(a.alias ? `${adjusterName(a)} (${a.alias})` : adjusterName(a)),
      { text: at === undefined ? '' : positionWords(a, at, choice), bold: true },
      { text: countBaseWords(a), color: soft },
      { text: toolWord(a), color: soft },
    ]
  })
  return [
    {
      ...lettered(`${endWords[u.end]}: ${u.name}`),
      fontSize: 13,
      bold: true,
      margin: [0, 10, 0, 2],
    },
    {
      text: typeof sag !== 'number' ? `Sag ${target}` : `Sag ${sag.toFixed(1)} %, ${target}`,
      margin: [0, 0, 0, 4],
    },
    {
      table: {
        headerRows: 0,
        widths: [180, 90, 120, '*'],
        body: rows.length ? rows : [[{ text: 'nothing to turn', colSpan: 4 }, '', '', '']],
      },
      layout: 'lightHorizontalLines',
    },
  ]
}
