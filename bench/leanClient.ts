import { Agent, request } from 'node:http'

/**
 * Puts JSON over connections that stay open, at about half of what `fetch` costs: fifty hands sit at fifty machines, and
 * what asks for all of them in one thread must not be what is measured.
 */
export class LeanClient {
  private readonly agent = new Agent({ keepAlive: true })

  constructor(private readonly base: string) {}

  /** @throws with the answer's text where the status is not 200 */
  put(path: string, body: unknown): Promise<void> {
    const text = Buffer.from(JSON.stringify(body))
    return new Promise((done, fail) => {
      const asking = request(
        this.base + path,
        {
          method: 'PUT',
          agent: this.agent,
          headers: { 'content-type': 'application/json', 'content-length': text.length },
        },
        (answer) => {
          const pieces: Buffer[] = []
          answer.on('data', (piece: Buffer) => void pieces.push(piece))
          answer.on('error', fail)
          answer.on('end', () =>
            answer.statusCode === 200
              ? done()
              : fail(new Error(`${path}: ${answer.statusCode} ${Buffer.concat(pieces).toString()}`)),
          )
        },
      )
      asking.on('error', fail)
      asking.end(text)
    })
  }

  close(): void {
    this.agent.destroy()
  }
}
