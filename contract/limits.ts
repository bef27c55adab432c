/** Limits in one table, unit in the name. */
export const limits = {
  bodyBytes: 1_000_000,
  uploadBytes: 512 * 1024 * 1024,
  fileColumns: 200,
  maxSampleRateHz: 20_000,
} as const
