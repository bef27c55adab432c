import type { z } from 'zod'
import { Baseline } from '#contract/baseline'
import { Bench } from '#contract/bench'
import { Bike } from '#contract/bike'
import { Gauge, ServiceEntry, StockItem } from '#contract/care'
import { TrailDay } from '#contract/day'
import { KeptSetup } from '#contract/kept'
import { Letterhead } from '#contract/letterhead'
import { PadReport } from '#contract/pad'
import { Profile } from '#contract/profile'
import { ProposalRecord } from '#contract/proposal'
import { ImportMapping } from '#contract/recording'
import { Rider } from '#contract/rider'
import { Feel, Run } from '#contract/run'
import { Setup } from '#contract/setup'
import { Tent, TentHour, TentNote, TentRider } from '#contract/tent'
import { Trail } from '#contract/trail'
import { SuspensionUnit } from '#contract/unit'

type Columns = Record<string, unknown>

/** A table whose records are documents, and what one has to be. */
export interface DocumentTable {
  table: string
  key: string
  /** null: any JSON will do, what reads it takes care of itself. */
  schema: z.ZodType | null
  /** Nothing else refers to its records: one can be left out. */
  isLeaf?: true
  /** An empty record of the same place, from columns beside the document: nothing in it is made up. */
  emptied?: { columns: string; of: (columns: Columns) => unknown }
  /** The empty one is out of sight. */
  isPutAway?: true
}

const couldNot = 'This record could not be read any more; its bytes are kept.'

/** Every table of documents. A further one is one more line here; a test holds the list to the tables there are. */
export const documentTables: readonly DocumentTable[] = [
  { table: 'riders', key: 'id', schema: Rider },
  { table: 'units', key: 'id', schema: SuspensionUnit },
  { table: 'bikes', key: 'id', schema: Bike },
  { table: 'trails', key: 'id', schema: Trail },
  { table: 'days', key: 'id', schema: TrailDay },
  { table: 'tents', key: 'id', schema: Tent },
  {
    table: 'setups',
    key: 'id',
    schema: Setup,
    emptied: {
      columns: 'id, bike_id, parent_id, day_id, wanted',
      of: (c) => ({
        id: c.id,
        bikeId: c.bike_id,
        parentId: c.parent_id,
        dayId: c.day_id,
        madeAt: '1970-01-01T00:00:00.000Z',
        name: null,
        frontUnitId: null,
        rearUnitId: null,
        // No position at all: every dial is unread.
        positions: [],
        reason: { text: couldNot, source: 'reading', linked: false, proposalId: null },
        wanted: c.wanted === 1,
      }),
    },
  },
  {
    table: 'runs',
    key: 'id',
    schema: Run,
    emptied: {
      columns: 'id, version, day_id, setup_id, started_at',
      of: (c) => ({
        id: c.id,
        version: c.version,
        dayId: c.day_id,
        setupId: c.setup_id,
        startedAt: c.started_at,
        kind: 'void',
        voidReason: couldNot,
        durationS: null,
        mind: 'normal',
        ringFrontMm: null,
        ringRearMm: null,
        tyreFrontPsi: null,
        tyreRearPsi: null,
        note: '',
      }),
    },
  },
  {
    table: 'recordings',
    key: 'id',
    schema: null,
    emptied: { columns: 'id', of: (c) => ({ id: c.id, fileName: couldNot }) },
    isPutAway: true,
  },
  { table: 'feels', key: 'run_id', schema: Feel, isLeaf: true },
  { table: 'proposals', key: 'id', schema: ProposalRecord, isLeaf: true },
  { table: 'gauges', key: 'id', schema: Gauge, isLeaf: true },
  { table: 'stock', key: 'id', schema: StockItem, isLeaf: true },
  { table: 'services', key: 'id', schema: ServiceEntry, isLeaf: true },
  { table: 'baselines', key: 'id', schema: Baseline, isLeaf: true },
  { table: 'benches', key: 'id', schema: Bench, isLeaf: true },
  { table: 'kept', key: 'id', schema: KeptSetup, isLeaf: true },
  { table: 'profiles', key: 'id', schema: Profile, isLeaf: true },
  { table: 'letterheads', key: 'id', schema: Letterhead, isLeaf: true },
  { table: 'mappings', key: 'fingerprint', schema: ImportMapping, isLeaf: true },
  { table: 'tent_riders', key: 'id', schema: TentRider, isLeaf: true },
  { table: 'tent_hours', key: 'id', schema: TentHour, isLeaf: true },
  { table: 'tent_notes', key: 'id', schema: TentNote, isLeaf: true },
  { table: 'pad_reports', key: 'id', schema: PadReport, isLeaf: true },
]
