import { Hono, type Context } from 'hono'
import { Id } from '#contract/common'
import type { Deps } from '../deps.ts'
import { checked } from '../mount.ts'
import { bikeSetupsCsv, dayCsv, dayJson, everythingCsv, plainKinds } from '../services/plainFiles.ts'

const csvType = 'text/csv; charset=utf-8'
const asFile = (c: Context, name: string, type: string) => {
  c.header('Content-Type', type)
  c.header('Content-Disposition', `attachment; filename="${name}"`)
}

/** What is kept, as files that any spreadsheet opens. Weights are in none of them. */
export function plainFileRoutes({ store }: Deps): Hono {
  const app = new Hono()
  for (const kind of ['runs', 'changes'] as const)
    app.get(`/days/:id/${kind}.csv`, async (c) => {
      const csv = await dayCsv(store, checked(Id, c.req.param('id')), kind)
      asFile(c, `${kind}.csv`, csvType)
      return c.body(csv)
    })
  app.get('/days/:id/day.json', async (c) => {
    const json = await dayJson(store, checked(Id, c.req.param('id')))
    asFile(c, 'day.json', 'application/json')
    return c.body(json)
  })
  app.get('/bikes/:id/setups.csv', async (c) => {
    const csv = await bikeSetupsCsv(store, checked(Id, c.req.param('id')))
    asFile(c, 'setups.csv', csvType)
    return c.body(csv)
  })
  for (const kind of plainKinds)
    app.get(`/data/${kind}.csv`, (c) => {
      const pieces = everythingCsv(store, kind)
      const encoder = new TextEncoder()
      asFile(c, `${kind}.csv`, csvType)
      // Pulled as it is sent: whoever reads slowly does not make the server hold the text.
      return c.body(
        new ReadableStream<Uint8Array>({
          async pull(controller) {
            const next = await pieces.next()
            if (next.done) controller.close()
            else controller.enqueue(encoder.encode(next.value))
          },
          cancel: () => void pieces.return(undefined),
        }),
      )
    })
  return app
}
