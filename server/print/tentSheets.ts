import type { Content, TableCell, TDocumentDefinitions } from 'pdfmake/interfaces'
import type { DayBundle } from '#contract/endpoints'
import type { TentBundle, TentNoteKind } from '#contract/tent'
import { adjusterName, positionWords } from '#core/adjusters/words'
import { countBaseWords } from '#core/adjusters/count'
import { wordRules } from '#core/causes/words'
import { moveWords, type Move } from '#core/setup/diff'
import { knownWords } from '#core/setup/known'
import { changedSinceStart, laneOf } from '#core/tent/lane'
import { say, type UnitChoice } from '#core/units/choice'
import { lettered } from './fonts.ts'

export interface SheetLook {
  paper: 'A4' | 'LETTER'
  choice: UnitChoice
  /** Time zone of the clock on the wall, IANA. */
  zone: string
}

const ink = '#1b2723'
const soft = '#3f4b45'
const line = '#b9b09a'
const noteWords: Record<TentNoteKind, string> = {
  'left-alone': 'left alone',
  later: 'after the next run',
  plan: 'planned',
  'no-time': 'no time between runs',
}
const verdictWords = ['much worse', 'worse', 'the same', 'better', 'much better']

/** One row of a sheet that has as many cells as its head. */
const table = (head: string[], widths: (string | number)[], rows: string[][]): Content => ({
  table: {
    headerRows: 1,
    widths,
    body: [
      head.map((h): TableCell => ({ text: h, bold: true, color: soft })),
      ...rows.map((r) => r.map((c): TableCell => lettered(c))),
    ],
  },
  layout: {
    hLineWidth: (i, node) => (i === 0 || i === node.table.body.length ? 0 : 0.4),
    vLineWidth: () => 0,
    hLineColor: () => line,
    paddingLeft: () => 0,
    paddingTop: () => 2.4,
    paddingBottom: () => 2.4,
  },
  margin: [0, 2, 0, 8],
})
/** The fonts have no arrows: in words. */
const turned = (m: Move, choice: UnitChoice) => moveWords(m, choice).replace('→', 'to')
const title = (text: string): Content => ({
  ...lettered(text),
  fontSize: 12,
  bold: true,
  margin: [0, 6, 0, 0],
})

/**
 * A page for the tent, then one for each rider: runs, changes, verdicts, what stands at the end and what is left for
 * tomorrow. No weights, and on a rider's page nobody else.
 */
export function tentSheets(
  tent: TentBundle,
  days: readonly DayBundle[],
  /** What each day leaves open, by its id. */
  questions: ReadonlyMap<string, readonly string[]>,
  look: SheetLook,
): TDocumentDefinitions {
  const { choice } = look
  const clock = (iso: string) =>
    new Date(iso).toLocaleTimeString('en-GB', { hour: '2-digit', minute: '2-digit', timeZone: look.zone })
  const rows = tent.riders.flatMap((rider) => {
    const day = days.find((d) => d.day.id === rider.id)
    return day ? [{ rider, day, notes: tent.notes.filter((n) => n.dayId === rider.id) }] : []
  })
  const open = (r: (typeof rows)[number]) => questions.get(r.day.day.id) ?? []
  const ratings = (d: DayBundle) =>
    d.runs
      .filter((r) => r.kind === 'counted')
      .flatMap((r) => d.feels.find((f) => f.runId === r.id)?.rating ?? [])
  const end = (d: DayBundle) =>
    d.day.settledSetupId !== null ? 'settled' : d.runs.length === 0 ? 'not ridden' : 'open'
  const changed = (d: DayBundle) =>
    changedSinceStart(d)
      .map((m) => turned(m, choice))
      .join('; ') || 'all as it started'

  const first: Content[] = [
    { ...lettered(tent.tent.name), fontSize: 20, bold: true },
    {
      ...lettered(`${tent.tent.date} · ${tent.trail.name}${tent.trail.place ? `, ${tent.trail.place}` : ''}`),
      fontSize: 11,
    },
    title('Riders'),
    table(
      ['No.', 'Rider and bike', 'Runs', 'Rated', 'Changed since the start', 'Ends'],
      [24, 120, 30, 52, '*', 46],
      rows.map(({ rider, day }) => [
        String(rider.number),
        `${day.rider.name}, ${day.bike.name}`,
        String(day.runs.length),
        ratings(day).join(', ') || 'not rated',
        changed(day),
        end(day),
      ]),
    ),
    ...(tent.hours.length
      ? [
          title('Air, ground and track'),
          table(
            ['At', 'Air', 'Height', 'Ground', 'Track', ''],
            [36, 48, 48, 80, 90, '*'],
            tent.hours.map((h) => [
              clock(h.at),
              h.airTempC === null ? '' : say('temperature', h.airTempC, choice),
              h.altitudeM === null ? '' : say('altitude', h.altitudeM, choice),
              (h.surface ?? '').replace('-', ', '),
              h.track.join(', '),
              h.note,
            ]),
          ),
        ]
      : []),
    title('Open for tomorrow'),
    ...(rows.some((r) => open(r).length)
      ? [
          {
            ul: rows.flatMap((r) => open(r).map((text) => lettered(`${r.day.rider.name}: ${text}`))),
          } as Content,
        ]
      : [{ text: 'Nothing is open.', color: soft } as Content]),
  ]

  const pageOf = ({ rider, day, notes }: (typeof rows)[number]): Content[] => {
    const now = day.setups.filter((s) => s.dayId === day.day.id && !s.wanted).at(-1)
    const start = day.setups.find((s) => s.id === day.day.startSetupId)
    const stands = now ?? start
    const number = (runId: string) => day.runs.findIndex((r) => r.id === runId) + 1
    const events = [
      ...day.runs.map((r) => {
        const feel = day.feels.find((f) => f.runId === r.id)
        const words = (feel?.marks ?? []).map((m) => {
          const section = day.trail.sections.find((s) => s.id === m.sectionId)?.name
          return [wordRules[m.word].label, m.end === 'both' ? '' : m.end, section ? `(${section})` : '']
            .filter(Boolean)
            .join(' ')
        })
        const verdicts = (feel?.verdicts ?? []).map(
          (v) => `${verdictWords[v.value + 2]} than run ${number(v.againstRunId)}`,
        )
        return {
          at: r.startedAt,
          what: `Run ${number(r.id)}${r.kind === 'counted' ? '' : `, ${r.kind === 'void' ? 'does not count' : 'warm-up'}`}`,
          rated: feel?.rating === null || feel?.rating === undefined ? '' : String(feel.rating),
          said: [...verdicts, ...words, feel?.note ?? ''].filter(Boolean).join('; '),
        }
      }),
      ...laneOf(day).changes.map((c) => {
        const made = day.setups.find((s) => s.id === c.setupId)
        return {
          at: new Date(c.atMs).toISOString(),
          what: 'Changed',
          rated: '',
          said: [c.moves.map((m) => turned(m, choice)).join('; '), made?.reason.text ?? '']
            .filter(Boolean)
            .join(': '),
        }
      }),
      ...notes
        .filter((n) => n.kind !== 'later' && n.kind !== 'plan')
        .map((n) => ({
          at: n.at,
          what: 'Decided',
          rated: '',
          said: [noteWords[n.kind], n.text].filter(Boolean).join(': '),
        })),
    ].sort((a, b) => a.at.localeCompare(b.at))
    return [
      { ...lettered(day.rider.name), fontSize: 20, bold: true, pageBreak: 'before' },
      {
        ...lettered(
          `${day.bike.name} · number ${rider.number} · ${tent.tent.name}, ${tent.tent.date} · ${day.trail.name}`,
        ),
        fontSize: 10.5,
      },
      title('The day'),
      events.length
        ? table(
            ['At', '', 'Rated', ''],
            [36, 84, 34, '*'],
            events.map((e) => [clock(e.at), e.what, e.rated, e.said]),
          )
        : { text: 'Nothing ridden, nothing changed.', color: soft },
      title('What stands at the end'),
      table(
        ['', 'Dial', 'Stands at', 'Known'],
        [40, 140, '*', 60],
        day.units.flatMap((u) =>
          u.adjusters.map((a) => {
            const p = stands?.positions.find((x) => x.adjusterId === a.id)
            return [
              u.end,
              adjusterName(a),
              p
                ? [positionWords(a, p.value, choice), countBaseWords(a)].filter(Boolean).join(' ')
                : 'not read',
              p ? knownWords[p.known.how] : '',
            ]
          }),
        ),
      ),
      ...(open({ rider, day, notes }).length
        ? [title('Open for tomorrow'), { ul: open({ rider, day, notes }).map((x) => lettered(x)) } as Content]
        : []),
      {
        text: 'Makers’ manuals and qualified technicians come first. Shock pump only, never above the printed maximum. Try every change at low speed in a safe place first.',
        color: soft,
        fontSize: 8.5,
        margin: [0, 8, 0, 0],
      },
    ]
  }
  return {
    pageSize: look.paper,
    pageMargins: [40, 36, 40, 36],
    info: { title: `${tent.tent.name}, ${tent.tent.date}`, creator: 'Wild Spring' },
    defaultStyle: { font: 'Latin', fontSize: 9.5, color: ink },
    content: [...first, ...rows.flatMap(pageOf)],
  }
}
