import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { describe, expect, it } from 'vitest'
import { inputSentences } from '#contract/inputCodes'
import { limits } from '#contract/limits'
import { LiveEvent } from '#contract/live'
import { loggerCodes, loggerProtocol } from '#contract/logger'
import { EndMetrics, SpanMetrics, type Recording } from '#contract/recording'
import { sideChannelNames } from '#core/telemetry/sideChannels'
import { channelsCsv, metricRows } from '#server/services/exports'
import { loggerApp } from '../logger/app.ts'
import { StandInLogger } from '../logger/device.ts'
import { screens } from '../web/screens.ts'

const formats = readFileSync(join(import.meta.dirname, '..', 'docs', 'file-formats.md'), 'utf8')

/** Cells of the table below a heading whose header row begins with the given word. */
function table(under: string, first: string): string[][] {
  const section = formats.split(/^## /m).find((s) => s.startsWith(under))
  if (!section) throw new Error(`docs/file-formats.md has no heading "${under}"`)
  const lines = section.split('\n')
  const at = lines.findIndex((l) => l.startsWith('|') && l.slice(1).trim().startsWith(first))
  const rows = lines.slice(at + 2)
  const end = rows.findIndex((l) => !l.startsWith('|'))
  return rows.slice(0, end < 0 ? undefined : end).map((l) =>
    l
      .split('|')
      .slice(1, -1)
      .map((c) => c.trim()),
  )
}
const quoted = (cell: string) => [...cell.matchAll(/`([^`]+)`/g)].map((m) => m[1])

describe('docs/file-formats.md says what the code does', () => {
  it('events: each type, and every field it carries', () => {
    const told = Object.fromEntries(
      table('Events', 'type').map(([type, carries]) => [quoted(type)[0], quoted(carries)]),
    )
    const meant = Object.fromEntries(
      LiveEvent.options.map((o) => {
        const { type, ...rest } = o.shape as Record<string, { value?: string }>
        return [String(type.value), Object.keys(rest)]
      }),
    )
    expect(told).toEqual(meant)
  })
  it('logger protocol: its name, each request, each code with its status', () => {
    expect(formats).toContain(`\`${loggerProtocol}\``)
    const routes = loggerApp(new StandInLogger('travel', () => 0, 1)).routes.map(
      (r) => `${r.method} ${r.path}`,
    )
    const told = table('Loggers', 'request').map(([request]) => quoted(request)[0])
    expect(told.sort()).toEqual([...new Set(routes.filter((r) => r.includes(' /v1/')))].sort())
    const stand = routes.filter((r) => r.startsWith('PUT /stand-in')).map((r) => r.split('/').at(-1)!)
    for (const path of stand) expect(formats).toContain(`/${path}\``)
    expect(
      Object.fromEntries(table('Loggers', 'code').map(([code, status]) => [quoted(code)[0], Number(status)])),
    ).toEqual(Object.fromEntries(Object.entries(loggerCodes).map(([code, { status }]) => [code, status])))
  })
  it('limits: the numbers of the table are those of the code, and the codes exist', () => {
    const rows = table('Sent', 'limit')
    const numbers = rows.map(([, most]) => most.match(/\d[\d,]*/g)!.map((n) => Number(n.replaceAll(',', ''))))
    expect(numbers).toEqual([
      [limits.fileSamples],
      [limits.fileGaps],
      [limits.fileColumns],
      [limits.gpxPoints, limits.gpxDepth],
      [limits.ingestSeconds, limits.ingestHeapMb / 1024],
    ])
    for (const code of rows.flatMap(([, , codes]) => quoted(codes)))
      expect(Object.keys(inputSentences)).toContain(code)
    expect(formats).toContain(`at most ${limits.uploadBytes / 1024 ** 2} MB`)
  })
  it('CSV of channels and of figures: every column', () => {
    const recording = {
      ends: ['front', 'rear'],
      samples: 1,
      sampleRateHz: 500,
      fullTravelMm: { front: null, rear: null },
    } as unknown as Recording
    const columns = (rearAt: 'axle' | 'shaft') => {
      const of = { ...recording, analysis: { rearAt } } as unknown as Recording
      const [header] = [
        ...channelsCsv(
          of,
          Array.from({ length: 7 }, () => new Float32Array(1)),
          sideChannelNames,
        ),
      ]
      return header.trim().split(',')
    }
    const described = (file: string) =>
      quoted(formats.slice(formats.indexOf(`/${file}\``) + file.length + 2).split(/^[-#]|^\n/m)[0]).filter(
        (w) => !/^GET|^\/|[.:]/.test(w),
      )
    expect(new Set([...columns('axle'), ...columns('shaft')])).toEqual(new Set(described('channels.csv')))
    const [row] = metricRows(fullRecording(), [])
    expect(described('metrics.csv')).toEqual(Object.keys(row))
  })
  it('every figure by its name, its unit and what it is, and none that is not there', () => {
    const names = new Set(metricRows(fullRecording(), []).map((r) => r.metric))
    const listed = table('Figures', 'figure')
    expect(new Set(listed.flatMap(([name]) => quoted(name)))).toEqual(names)
    for (const [name, unit, what] of listed) {
      expect(what.length, name).toBeGreaterThan(15)
      // A unit in the name is the unit that is said.
      const tail = /(Pct|MmS|Ms|PerS|MS2|PctPerG|PctPerHit|S)$/.exec(quoted(name)[0])?.[1]
      const said: Record<string, RegExp> = {
        Pct: /%/,
        MmS: /mm\/s/,
        Ms: /ms/,
        PerS: /1\/s/,
        MS2: /m\/s²/,
        PctPerG: /per g/,
        PctPerHit: /per hit/,
        S: /^s$/,
      }
      if (tail) expect(unit, name).toMatch(said[tail])
    }
  })
})

/** Every figure there is, each with a value of its own. */
function fullRecording(): Recording {
  let n = 0
  const figures = (schema: { shape: Record<string, unknown> }) =>
    Object.fromEntries(Object.keys(schema.shape).map((key) => [key, ++n]))
  const histograms = {
    depthHistogram: { start: 0, width: 1, share: [] },
    speedHistogram: { start: 0, width: 1, share: [] },
  }
  const whole = {
    ...figures(SpanMetrics),
    sectionId: null,
    front: { ...figures(EndMetrics), ...histograms },
    rear: { ...figures(EndMetrics), ...histograms },
  }
  return { analysis: { whole, sections: [] } } as unknown as Recording
}

describe('docs/guide/screens.md', () => {
  it('has the question of every screen, at its address', () => {
    const guide = readFileSync(join(import.meta.dirname, '..', 'docs', 'guide', 'screens.md'), 'utf8')
    const told = [...guide.matchAll(/^\| `(\/[^`?]*)/gm)].map(([, path]) => path)
    const { lost: _none, ...asked } = screens
    // Parts that may be left out are written as if they were there.
    expect(told.sort()).toEqual(
      Object.values(asked)
        .map((path) => path.replaceAll('?', ''))
        .sort(),
    )
  })
})

describe('the CSV of figures', () => {
  it('has every single figure of the schema, once an end or once for both', () => {
    const rows = metricRows(fullRecording(), [])
    const of = (end: string) => rows.filter((r) => r.end === end).map((r) => r.metric)
    const numbers = Object.keys(EndMetrics.shape).filter((k) => !k.endsWith('Histogram'))
    expect(of('front')).toEqual(numbers)
    expect(of('rear')).toEqual(numbers)
    expect(of('both')).toEqual(
      Object.keys(SpanMetrics.shape).filter(
        (k) => !['sectionId', 'startS', 'endS', 'front', 'rear'].includes(k),
      ),
    )
    expect(new Set(rows.map((r) => r.value)).size).toBe(rows.length)
  })
})
