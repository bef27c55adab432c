import type { AddedFile } from '#contract/recording'

export interface FileKind {
  /** Endings of its file names, lower case, with the dot. */
  endings: string[]
  /** What a file chooser offers beside the endings. */
  mediaTypes: string[]
  /** Its columns have to be named before it can be read. */
  mapped: boolean
  /** Why it cannot be the first file of a recording; null: it can. */
  neverFirst: string | null
}

/** What a page has to know of each kind of file before it is sent; how it is read stands in the server's ingest. */
export const fileKinds: Record<AddedFile['kind'], FileKind> = {
  delimited: {
    endings: ['.csv', '.tsv', '.txt', '.log'],
    mediaTypes: ['text/*'],
    mapped: true,
    neverFirst: null,
  },
  gpx: {
    endings: ['.gpx'],
    mediaTypes: [],
    mapped: false,
    neverFirst:
      'A GPX track is laid on a recording: add the sensor file first, then the track on its trace screen.',
  },
}

/** The kind that a file's name says; whatever is not known is tried as delimited text. */
export function kindOfFile(name: string): AddedFile['kind'] {
  const kinds = Object.keys(fileKinds) as AddedFile['kind'][]
  const ends = (kind: AddedFile['kind']) =>
    fileKinds[kind].endings.some((e) => name.toLowerCase().endsWith(e))
  return kinds.find(ends) ?? 'delimited'
}

/** For the `accept` of a file chooser. */
export const acceptedFiles = Object.values(fileKinds)
  .flatMap((k) => [...k.endings, ...k.mediaTypes])
  .join(',')
