import { gzipSync } from 'node:zlib'

/** Bytes of a recording that one row holds, before they are compressed. */
export const pieceBytes = 1 << 20

export const packPiece = (bytes: Uint8Array): Uint8Array => gzipSync(bytes, { level: 4 })

/** Each piece is compressed by itself, so that none is large in memory or in a row. */
export function packPieces(bytes: Uint8Array): Uint8Array[] {
  const pieces: Uint8Array[] = []
  for (let i = 0; i < bytes.length; i += pieceBytes) pieces.push(packPiece(bytes.subarray(i, i + pieceBytes)))
  return pieces
}
