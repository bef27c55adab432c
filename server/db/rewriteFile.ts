import { connect } from './connect.ts'

/**
 * Writes a data file in use anew, on a connection of its own, and takes the -wal file up into it. Others read on
 * meanwhile; whoever writes has to wait.
 * @throws Error of SQLite when it cannot be done; the file is as it was then
 */
export async function rewriteFile(file: string): Promise<void> {
  const client = connect(file)
  try {
    // Freed space is written over with zeros, and not only given back.
    await client.execute('PRAGMA secure_delete = ON')
    await client.execute('VACUUM')
    // Here, and not in the thread that answers: all of the file lies in the -wal file now.
    await client.execute('PRAGMA wal_checkpoint(TRUNCATE)')
  } finally {
    client.close()
  }
}
