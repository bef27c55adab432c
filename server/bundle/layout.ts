/** Where everything lies in a bundle (docs/file-formats.md). */
export const layout = {
  head: 'bundle.json',
  checksums: 'checksums.sha256',
  records: (table: string) => `records/${table}.jsonl`,
  schema: (table: string) => `schemas/${table}.json`,
  /** A sensor file as it came, once however many recordings are of it. */
  file: (sha256: string) => `files/${sha256}`,
  /** A cleaned channel: little-endian Float32. */
  channel: (recordingId: string, part: string) => `channels/${recordingId}/${encodeURIComponent(part)}.f32`,
  voice: (id: string) => `voices/${id}`,
} as const

const uuid = '[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}'
export const asFile = /^files\/([0-9a-f]{64})$/
export const asChannel = new RegExp(`^channels/(${uuid})/([A-Za-z0-9_.%²-]{1,60})\\.f32$`)
export const asVoice = new RegExp(`^voices/(${uuid})$`)
export const asRecords = /^records\/([a-z_]{1,40})\.jsonl$/
export const asSchema = /^schemas\/([a-z_]{1,40})\.json$/
