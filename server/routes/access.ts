import { Hono } from 'hono'
import type { Access } from '#contract/access'
import { endpoints } from '#contract/endpoints'
import { deviceOf, giveToken, takeToken } from '../access/gate.ts'
import type { Lock } from '../access/lock.ts'
import { cameFrom } from '../access/visitor.ts'
import type { Deps } from '../deps.ts'
import { mount } from '../mount.ts'
import { sameId } from './garage.ts'

/** The lock, who is signed in, and ways in for others. */
export function accessRoutes({ door }: Deps, lock: Lock): Hono {
  const app = new Hono()
  const access = async (role: Access['role'], tentId: string | null): Promise<Access> => ({
    door: await lock.state(),
    role,
    tentId,
    encrypted: door.encrypted,
    // Where we are is told to those who are in.
    addresses: role === null ? [] : door.addresses,
  })
  mount(app, endpoints.getAccess, async ({ c }) => {
    if ((await lock.state()) === 'open') return access('owner', null)
    const device = await deviceOf(c, door, lock)
    return access(device?.role ?? null, device?.tentId ?? null)
  })
  mount(app, endpoints.setLock, async ({ body, c }) => {
    const { recoveryCode, letIn } = await lock.setFirst(
      cameFrom(c, door),
      body.setupCode,
      body.passphrase,
      body.device,
    )
    giveToken(c, door, letIn)
    return { recoveryCode }
  })
  mount(app, endpoints.signIn, async ({ body, c }) => {
    const letIn = await lock.signIn(cameFrom(c, door), body.passphrase, body.device)
    giveToken(c, door, letIn)
    return access(letIn.role, letIn.tentId)
  })
  mount(app, endpoints.signOut, async ({ c }) => {
    const device = await deviceOf(c, door, lock)
    await lock.sessions.end((s) => s.id === device?.id)
    takeToken(c, door)
    return {}
  })
  mount(app, endpoints.recover, async ({ body, c }) => {
    const { recoveryCode, letIn } = await lock.recover(
      cameFrom(c, door),
      body.recoveryCode,
      body.passphrase,
      body.device,
    )
    giveToken(c, door, letIn)
    return { recoveryCode }
  })
  mount(app, endpoints.enter, async ({ body, c }) => {
    const letIn = await lock.enter(cameFrom(c, door), body.token, body.device)
    giveToken(c, door, letIn)
    return access(letIn.role, letIn.tentId)
  })
  mount(app, endpoints.getAccessBook, ({ c }) => lock.book(c.get('visitor').sessionId))
  mount(app, endpoints.changePassphrase, async ({ body, c }) => ({
    recoveryCode: await lock.change(
      cameFrom(c, door),
      body.before,
      body.passphrase,
      c.get('visitor').sessionId,
    ),
  }))
  mount(app, endpoints.endSession, async ({ params }) => {
    await lock.sessions.end((s) => s.id === params.id)
    return {}
  })
  mount(app, endpoints.endSessions, async ({ c }) => {
    await lock.endAll()
    takeToken(c, door)
    return {}
  })
  mount(app, endpoints.givePass, ({ params, body }) => lock.givePass(sameId(params.id, body)))
  mount(app, endpoints.takeBackPass, async ({ params }) => {
    await lock.takeBackPass(params.id)
    return {}
  })
  return app
}
