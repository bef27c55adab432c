/** A kind of record that goes into a bundle: a table of the data file. */
export interface Kind {
  table: string
  key: string
  /** Columns that say again what stands in the record: name of the column, name of the field. */
  mirrors: Record<string, string>
  /** Has a `deleted_at`: can be put away and brought back. */
  isShelved?: true
}

const editable = { id: 'id', version: 'version' }

/** Every kind, those that others stand on first. What is of the door, of the disk or of a moment is in no bundle. */
export const kinds: readonly Kind[] = [
  { table: 'riders', key: 'id', mirrors: editable, isShelved: true },
  { table: 'units', key: 'id', mirrors: editable, isShelved: true },
  {
    table: 'bikes',
    key: 'id',
    mirrors: { ...editable, rider_id: 'riderId', front_unit_id: 'frontUnitId', rear_unit_id: 'rearUnitId' },
    isShelved: true,
  },
  { table: 'trails', key: 'id', mirrors: editable, isShelved: true },
  { table: 'tents', key: 'id', mirrors: { ...editable, date: 'date' }, isShelved: true },
  {
    table: 'setups',
    key: 'id',
    mirrors: { id: 'id', bike_id: 'bikeId', parent_id: 'parentId', day_id: 'dayId', wanted: 'wanted' },
    isShelved: true,
  },
  {
    table: 'days',
    key: 'id',
    mirrors: {
      ...editable,
      date: 'date',
      rider_id: 'riderId',
      bike_id: 'bikeId',
      trail_id: 'trailId',
      start_setup_id: 'startSetupId',
    },
    isShelved: true,
  },
  {
    table: 'runs',
    key: 'id',
    mirrors: { ...editable, day_id: 'dayId', setup_id: 'setupId', started_at: 'startedAt' },
    isShelved: true,
  },
  { table: 'feels', key: 'run_id', mirrors: { run_id: 'runId', version: 'version' } },
  { table: 'proposals', key: 'id', mirrors: { ...editable, day_id: 'dayId' }, isShelved: true },
  { table: 'recordings', key: 'id', mirrors: { id: 'id', run_id: 'runId' }, isShelved: true },
  { table: 'gauges', key: 'id', mirrors: editable, isShelved: true },
  { table: 'stock', key: 'id', mirrors: editable, isShelved: true },
  {
    table: 'services',
    key: 'id',
    mirrors: { ...editable, bike_id: 'bikeId', date: 'date' },
    isShelved: true,
  },
  { table: 'baselines', key: 'id', mirrors: { ...editable, bike_id: 'bikeId' }, isShelved: true },
  {
    table: 'benches',
    key: 'id',
    mirrors: { ...editable, bike_id: 'bikeId', started_at: 'startedAt' },
    isShelved: true,
  },
  { table: 'kept', key: 'id', mirrors: { ...editable, bike_id: 'bikeId' }, isShelved: true },
  { table: 'profiles', key: 'id', mirrors: editable, isShelved: true },
  { table: 'letterheads', key: 'id', mirrors: editable },
  { table: 'mappings', key: 'fingerprint', mirrors: {} },
  { table: 'tent_riders', key: 'id', mirrors: { ...editable, tent_id: 'tentId' }, isShelved: true },
  { table: 'tent_hours', key: 'id', mirrors: { ...editable, tent_id: 'tentId', at: 'at' }, isShelved: true },
  { table: 'tent_notes', key: 'id', mirrors: { ...editable, tent_id: 'tentId', at: 'at' }, isShelved: true },
  { table: 'pad_reports', key: 'id', mirrors: { id: 'id' } },
  // Its bytes are a file of their own.
  { table: 'voices', key: 'id', mirrors: {} },
]
