import { open } from 'node:fs/promises'

/**
 * Brings what SQLite has written into the -wal file of a data file to the disk, outside of the thread that answers. The
 * -wal file bears no locks, so that opening and closing it takes none away (of the data file itself it would).
 * @param file path of the data file
 * @throws Error of the operating system when the disk does not take it
 */
export async function toDisk(file: string): Promise<void> {
  const wal = await open(`${file}-wal`, 'r+').catch((e: unknown) => {
    // Taken up into the data file, which SQLite brings to the disk before it lets go of the -wal file.
    if ((e as NodeJS.ErrnoException).code === 'ENOENT') return null
    throw e
  })
  if (!wal) return
  try {
    await wal.datasync()
  } finally {
    await wal.close()
  }
}
