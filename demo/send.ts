import type { Put } from './fillDay.ts'

/** Sends records to a running server, one after the other, as the page would. @throws Error with what the server said */
export function sender(address: string): { send: (path: string, body: BodyInit) => Promise<void>; put: Put } {
  async function send(path: string, body: BodyInit): Promise<void> {
    const response = await fetch(`${address}/api/v1${path}`, {
      method: 'PUT',
      body,
      headers: { 'Content-Type': 'application/json' },
    })
    if (!response.ok) throw new Error(`${path}: ${await response.text()}`)
  }
  return { send, put: (endpoint, id, body) => send(endpoint.path.replace(':id', id), JSON.stringify(body)) }
}
