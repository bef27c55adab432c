import { Hono } from 'hono'
import { endpoints } from '#contract/endpoints'
import type { Deps } from '../deps.ts'
import { baselines, benches, gauges, services, stock } from '../db/schema.ts'
import { mount } from '../mount.ts'
import {
  listBenches,
  saveBaseline,
  saveBench,
  saveGauge,
  saveService,
  saveStockItem,
} from '../services/workshop.ts'
import { mountPutAway, sameId } from './garage.ts'

/** Gauges, shelf, service log, recommended starting points, and times on the bench. */
export function workshopRoutes(deps: Deps): Hono {
  const { store, events } = deps
  const told = async <T>(work: Promise<T>): Promise<T> => {
    const result = await work
    events.emit({ type: 'stale', what: 'garage', id: null })
    return result
  }
  const app = new Hono()
  mount(app, endpoints.putGauge, ({ params, body }) => told(saveGauge(store, sameId(params.id, body))))
  mount(app, endpoints.putStockItem, ({ params, body }) =>
    told(saveStockItem(store, sameId(params.id, body))),
  )
  mount(app, endpoints.putService, ({ params, body }) => told(saveService(store, sameId(params.id, body))))
  mount(app, endpoints.putBaseline, ({ params, body }) => told(saveBaseline(store, sameId(params.id, body))))
  mount(app, endpoints.putBench, async ({ params, body }) => {
    const bench = await saveBench(store, sameId(params.id, body))
    events.emit({ type: 'bench', bench })
    return bench
  })
  mount(app, endpoints.listBenches, ({ params }) => listBenches(store, params.id))
  mountPutAway(app, deps, [
    [endpoints.deleteGauge, endpoints.restoreGauge, gauges],
    [endpoints.deleteStockItem, endpoints.restoreStockItem, stock],
    [endpoints.deleteService, endpoints.restoreService, services],
    [endpoints.deleteBaseline, endpoints.restoreBaseline, baselines],
    [endpoints.deleteBench, endpoints.restoreBench, benches],
  ])
  return app
}
