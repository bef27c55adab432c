import { z } from 'zod'
import { End, Id, Instant, Name } from './common.ts'
import { FeelWord } from './run.ts'

/** A word of a rider’s phone; the section is one of the trail’s, null: the whole run. */
const PadWord = z.strictObject({
  word: FeelWord,
  end: z.enum([...End.options, 'both']),
  strength: z.union([z.literal(1), z.literal(2), z.literal(3)]),
})

/** What a rider says on their own phone about one run. */
export const PadReport = z
  .strictObject({
    id: Id,
    /** By the phone’s clock. */
    at: Instant,
    /** The run that the phone had before it; null: one that the tent has not logged yet. */
    runId: Id.nullable(),
    /** Against the run before: -2 much worse … +2 much better; null: not said. */
    against: z.union([z.literal(-2), z.literal(-1), z.literal(0), z.literal(1), z.literal(2)]).nullable(),
    /** Empty: the whole run. */
    sectionIds: z.array(Id).max(30),
    words: z.array(PadWord).max(12),
    stopped: z.enum(['crashed', 'stopped']).nullable(),
    text: z.string().trim().max(300),
    /** Bytes of a spoken note, sent before; null: none. */
    voiceId: Id.nullable(),
  })
  .refine(
    (r) =>
      r.against !== null || r.words.length > 0 || r.stopped !== null || r.text !== '' || r.voiceId !== null,
    { error: 'Say at least one thing.' },
  )
export type PadReport = z.infer<typeof PadReport>

/** A report on its way: the phone’s clock when it was sent tells how wrong that clock is. */
export const SentPadReport = z.strictObject({ report: PadReport, phoneNow: Instant })
export type SentPadReport = z.infer<typeof SentPadReport>

/** What a phone hands over by a file or the picture of a code, where its link has ended. */
export const PadHandOver = z.strictObject({
  format: z.literal('wild-spring-pad/1'),
  dayId: Id,
  reports: z.array(SentPadReport).min(1).max(50),
})
export type PadHandOver = z.infer<typeof PadHandOver>

/** A report as the tent keeps it. */
export const KeptPadReport = z.strictObject({
  dayId: Id,
  report: PadReport,
  /** When it was said, by this server’s clock. */
  saidAt: Instant,
  /** The run it was taken for; null: nobody has said yet. */
  takenFor: Id.nullable(),
  /** When somebody said that it belongs to no run. */
  droppedAt: Instant.nullable(),
})
export type KeptPadReport = z.infer<typeof KeptPadReport>

/** Which run a report is for; null: none. `phoneIsRight`: its verdict takes the place of the tent's. */
export const TakeReport = z.strictObject({
  id: Id,
  runId: Id.nullable(),
  phoneIsRight: z.boolean().default(false),
})
export type TakeReport = z.infer<typeof TakeReport>

/** All that a rider’s phone is shown: no setting, no figure, no other rider, and no feel but what it said itself. */
export const PadView = z.strictObject({
  /** What a report is kept under on the phone, so that a new link of the same rider takes it along. */
  dayId: Id,
  riderName: Name,
  tentName: Name,
  /** In the order of the trail. */
  sections: z.array(z.strictObject({ id: Id, name: Name })),
  runs: z.array(
    z.strictObject({
      id: Id,
      /** As the tent counts them. */
      number: z.number().int().min(1),
      startedAt: Instant,
      /** Whether this phone has said how it was. */
      said: z.boolean(),
    }),
  ),
  expiresAt: Instant,
})
export type PadView = z.infer<typeof PadView>

/** A link for one rider and one tent, as the tent sees it. */
export const PadLink = z.strictObject({
  dayId: Id,
  createdAt: Instant,
  expiresAt: Instant,
  lastUsedAt: Instant.nullable(),
})
export type PadLink = z.infer<typeof PadLink>

/** The token is told once; only its hash is kept. */
export const GivenPadLink = z.strictObject({ link: PadLink, token: z.string() })
export type GivenPadLink = z.infer<typeof GivenPadLink>

/** A spoken note: half a minute of compressed voice is a tenth of this. */
export const voiceLimits = { bytes: 2_000_000, seconds: 30 } as const
/** What a phone may send as voice, by its first bytes; it is told to a browser as that and nothing else. */
export const voiceTypes = ['audio/webm', 'audio/ogg', 'audio/mp4'] as const
export type VoiceType = (typeof voiceTypes)[number]
