import type { BikeSetups } from '#contract/bikeSetups'
import type { Setup } from '#contract/setup'
import { knownPlaces } from '#core/lineage/facts'
import { anything, answers } from '#core/lineage/find'
import { foldPlaces } from '#core/lineage/fold'
import { layLanes } from '#core/lineage/lanes'
import { DayBuilder, fork, shock } from '#core/test/dayBuilder'
import { idOf } from '../demo/ids.ts'
import { fillDemo, startProcess } from '../e2e/server.ts'
import { builtBrowser } from './builtBrowser.ts'
import { seededRandom } from '#core/numeric/random'
import { medianMs, timesAsLong, type Row } from './measure.ts'

const [start] = new DayBuilder().history().setups

/** A bike that was turned `n` times, now on from the last setup, now from an earlier one; each ridden on a day. */
function longHistory(n: number): BikeSetups {
  const random = seededRandom(n)
  const setups: Setup[] = [{ ...start, id: 'setup 0' }]
  for (let i = 1; i < n; i++) {
    const parent = setups[random() < 0.7 ? i - 1 : Math.floor(random() * i)]
    const positions = parent.positions.map((p, k) =>
      k === i % parent.positions.length ? { ...p, value: p.value + (i % 3) - 1 + i / 1000 } : p,
    )
    setups.push({ ...start, id: `setup ${i}`, parentId: parent.id, positions })
  }
  const ridden = setups.map((s, i) => ({
    setupId: s.id,
    dayId: `day ${i}`,
    date: `2026-${String(1 + (i % 12)).padStart(2, '0')}-10`,
    trailName: 'Larch Bank',
    place: 'Fernhollow',
    conditions: {
      airTempC: i % 30,
      altitudeM: 500,
      surface: i % 2 ? ('wet' as const) : ('dry-hard' as const),
    },
    purpose: 'testing' as const,
    runs: 3,
    countedRuns: 2,
    ratings: [6, 7],
    words: [{ word: 'grips' as const, end: 'front' as const, runs: 1 }],
    tyreFrontPsi: null,
    tyreRearPsi: null,
    settled: i % 7 === 0,
  }))
  return { bikeId: start.bikeId, setups, units: [], kept: [], ridden }
}

/** From what a bike has stood at to what is drawn, and a search among it. */
export async function setupMapRows(): Promise<Row[]> {
  const map = (all: BikeSetups) => layLanes(foldPlaces(knownPlaces(all, all.setups.at(-1)!.id), () => true))
  const some = longHistory(150)
  const many = longHistory(600)
  const places = knownPlaces(some, null)
  const wanted = { ...anything, text: 'october grips', surfaces: ['wet' as const] }
  return [
    {
      work: 'map of 150 setups, places, folds and lanes',
      figure: medianMs(() => map(some), 9),
      unit: 'ms',
      against: `bar ≤ 100 ms drawn; 600 setups take ${timesAsLong(
        () => map(many),
        () => map(some),
      ).toFixed(1)} × as long`,
    },
    {
      work: 'finding among 150 setups by ground, month and word',
      figure: medianMs(() => places.filter((p) => answers(p, wanted)), 9),
      unit: 'ms',
      against: '',
    },
    ...(await drawnRows()),
  ]
}

/** The same with ids as the page demands them. */
const withIds = (all: BikeSetups): BikeSetups =>
  JSON.parse(JSON.stringify({ ...all, units: [fork, shock] }), (key, v: unknown) =>
    typeof v === 'string' && /^id$|Id$/.test(key) ? idOf(v) : v,
  ) as BikeSetups

/** 150 setups of one bike with every try shown: from the key that shows the last of them to the second frame. */
async function drawnRows(): Promise<Row[]> {
  const browser = await builtBrowser()
  if (!browser) return []
  const server = await startProcess()
  try {
    await fillDemo(server.base)
    const page = await browser.newPage({ viewport: { width: 1280, height: 800 } })
    const bikeId = idOf('tarek bike')
    const json = { ...withIds(longHistory(150)), bikeId }
    await page.route(`**/api/v1/bikes/${bikeId}/setups`, (r) => r.fulfill({ json }))
    await page.goto(`${server.base}/setups/${bikeId}`)
    const folds = page.getByRole('button', { name: /^Show \d+ tr/ })
    await folds.first().waitFor()
    let took = 0
    while ((await folds.count()) > 0)
      took = await folds.first().evaluate(async (key: HTMLElement) => {
        const start = performance.now()
        key.click()
        await new Promise((next) => requestAnimationFrame(() => requestAnimationFrame(next)))
        return performance.now() - start
      })
    const rows = await page.getByRole('listitem').count()
    return [
      {
        work: `drawing the map with all ${rows} places of 150 setups shown, to the second frame`,
        figure: took,
        unit: 'ms',
        against: 'bar ≤ 100 ms',
      },
    ]
  } finally {
    await browser.close()
    await server.stop()
  }
}
