import { z } from 'zod'
import { Id, Instant, Name } from './common.ts'

/**
 * owner: everything · coach: all but access and removing records · wall: looks at one tent. A rider’s phone is no role:
 * its link opens nothing but itself (pad.ts).
 */
export const Role = z.enum(['owner', 'coach', 'wall'])
export type Role = z.infer<typeof Role>

/** open: on this machine alone, nothing asks · unset: others could come, and nobody has locked it yet · locked */
export const DoorState = z.enum(['open', 'unset', 'locked'])
export type DoorState = z.infer<typeof DoorState>

/** How this window stands to the door. */
export const Access = z.strictObject({
  door: DoorState,
  /** null: to be asked. */
  role: Role.nullable(),
  /** What a wall looks at. */
  tentId: Id.nullable(),
  /** Whether what travels is encrypted: a phone on plain http can neither install the page nor record a voice. */
  encrypted: z.boolean(),
  /** Where another device finds this server; empty: it answers to this machine alone. */
  addresses: z.array(z.url()),
})
export type Access = z.infer<typeof Access>

const fewest = 12
const Passphrase = z
  .string()
  .min(fewest, `Take at least ${fewest} letters; four words that do not belong together are good.`)
  .max(200, 'A passphrase may have at most 200 letters.')
const Typed = z.string().min(1, 'Type it first.').max(200)
const Device = Name

export const FirstLock = z.strictObject({
  /** What the server printed where it was started. */
  setupCode: Typed,
  passphrase: Passphrase,
  device: Device,
})
export const SignIn = z.strictObject({ passphrase: Typed, device: Device })
export const Recovery = z.strictObject({ recoveryCode: Typed, passphrase: Passphrase, device: Device })
export const NewPassphrase = z.strictObject({ before: Typed, passphrase: Passphrase })
/** Shown once and kept nowhere: it opens the door when the passphrase is lost. */
export const RecoveryCode = z.strictObject({ recoveryCode: z.string() })
export const EnterByPass = z.strictObject({ token: Typed, device: Device })

/** A device that is signed in. */
export const Session = z.strictObject({
  id: Id,
  role: Role,
  tentId: Id.nullable(),
  device: Name,
  createdAt: Instant,
  lastSeenAt: Instant,
  expiresAt: Instant,
  /** The device that asks. */
  here: z.boolean(),
})
export type Session = z.infer<typeof Session>

/** A way in for one other device, used once. */
export const NewPass = z
  .strictObject({ id: Id, role: z.enum(['coach', 'wall']), name: Name, tentId: Id.nullable() })
  .refine((p) => (p.role === 'wall') === (p.tentId !== null), {
    error: 'A wall looks at one tent; a coach at all.',
    path: ['tentId'],
  })
export type NewPass = z.infer<typeof NewPass>
export const Pass = z.strictObject({
  id: Id,
  role: z.enum(['coach', 'wall']),
  name: Name,
  tentId: Id.nullable(),
  expiresAt: Instant,
})
export type Pass = z.infer<typeof Pass>
/** The token is told once; only its hash is kept. */
export const GivenPass = z.strictObject({ pass: Pass, token: z.string() })
export type GivenPass = z.infer<typeof GivenPass>

/** A try at the door. */
export const Attempt = z.strictObject({
  at: Instant,
  from: z.string(),
  what: z.enum(['passphrase', 'recovery', 'setup', 'pass']),
  opened: z.boolean(),
})
export type Attempt = z.infer<typeof Attempt>

export const AccessBook = z.strictObject({
  sessions: z.array(Session),
  /** Not used yet. */
  passes: z.array(Pass),
  /** Newest first. */
  attempts: z.array(Attempt),
})
export type AccessBook = z.infer<typeof AccessBook>
