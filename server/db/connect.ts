import { pathToFileURL } from 'node:url'
import { createClient, type Client } from '@libsql/client'

/** A connection to a data file, without any of the safety settings. */
export function connect(file: string): Client {
  // The settings are of a connection, not of the file: with more than one, those opened later would lack them.
  return createClient({ url: pathToFileURL(file).href, concurrency: 1, timeout: 5000 })
}
