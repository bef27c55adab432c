/**
 * Wire form of cleaned channels: little-endian Float32, one channel after another, in the order of
 * `Recording.ends`. Each value is depth in % of travel (0 = extended); NaN = gap.
 */
export const channelContentType = 'application/vnd.wildspring.channels+octet-stream'
