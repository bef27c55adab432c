import type { Put } from './fillDay.ts'

/** Sends records to a running server, one after the other, as the page would. @throws Error with what the server said */
export function sender(address: string): {
  send: (path: string, body: BodyInit, headers?: Record<string, string>) => Promise<void>
  put: Put
} {
  async function send(path: string, body: BodyInit, headers: Record<string, string> = {}): Promise<void> {
    const ask = () =>
      fetch(`${address}/api/v1${path}`, {
        method: 'PUT',
        body,
        headers: { ...headers, 'Content-Type': 'application/json' },
      })
    // Riding a file takes longer than an idle connection is kept: the server may close it just as it is used again.
    const response = await ask().catch(ask)
    if (!response.ok) throw new Error(`${path}: ${await response.text()}`)
  }
  return { send, put: (endpoint, id, body) => send(endpoint.path.replace(':id', id), JSON.stringify(body)) }
}
