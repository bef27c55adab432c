/** Limits in one table, unit in the name. */
export const limits = {
  bodyBytes: 1_000_000,
  /** Windows that are told live, of all devices together. */
  liveStreams: 200,
  /** Events that a window may lag behind. */
  unreadEvents: 200,
  connections: 1000,
  /** A device that says nothing for this long is gone. */
  deviceSilentSeconds: 5,
  /** A request that is still coming in must bring at least so much in so long. */
  slowestBytes: 2000 as number,
  slowestSeconds: 10 as number,
  /** A connection between two requests. Proxies keep theirs for 60: ours must not shut as they send the next one. */
  idleSeconds: 65,
  uploadBytes: 512 * 1024 * 1024,
  bundleBytes: 8 * 1024 ** 3,
  /** Unpacked, all files of a bundle together; files in it; letters of one record. */
  bundleUnpackedBytes: 24 * 1024 ** 3,
  bundleEntries: 100_000,
  bundleLineBytes: 4_000_000,
  /** Bytes that nobody has named by then are forgotten. */
  uploadKeptHours: 24,
  fileColumns: 200,
  /** Letters of one line of a sensor file. */
  rowLetters: 100_000,
  maxSampleRateHz: 20_000,
  /** Evenly timed samples that a file may become: rate × duration. Two hours at 1000 Hz. */
  fileSamples: 7_200_000,
  /** Pauses and leaps of a file's clock. */
  fileGaps: 5000,
  gpxPoints: 500_000,
  gpxDepth: 40,
  addedFiles: 6,
  /** One reading of a recording, with all its files. */
  ingestSeconds: 120,
  ingestHeapMb: 3072,
} as const
