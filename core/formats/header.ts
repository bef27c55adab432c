import type { FileLayout } from './layout.ts'

/**
 * The bytes of the header line, which name a kind of file: mappings are remembered by their hash.
 * The layout keeps one letter a byte, so the text turns straight back into the file's bytes.
 * @returns null when the file has no header
 */
export function headerBytes(layout: FileLayout): Uint8Array<ArrayBuffer> | null {
  if (layout.headerLine === '') return null
  return Uint8Array.from(layout.headerLine, (c) => c.charCodeAt(0) & 255)
}
