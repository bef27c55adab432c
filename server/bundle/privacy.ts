import type { BundleWith } from '#contract/bundle'

/** A record as it lies in the file: JSON of whichever version wrote it. */
export type Body = Record<string, unknown>

/** Services whose notes tell what is inside a fork or shock. */
const insideServices = new Set(['re-valved', 'seals', 'oil', 'new-part'])
const noMasses = { bodyMassKg: null, kitMassKg: null, waterL: 0 }
/** What of a rider is only assumed, of the body or of the rest. */
const assumedOf = (body: Body, ofBody: boolean) =>
  (Array.isArray(body.assumed) ? body.assumed : []).filter((key) => String(key) in noMasses === ofBody)

/** One thing that stays here unless it is asked for: takes it out of a record, and back in from another. */
interface Secret {
  table: string
  withheld: (w: BundleWith) => boolean
  remove: (body: Body) => Body
  keep: (theirs: Body, ours: Body) => Body
}

const fields = (table: string, withheld: Secret['withheld'], blank: Body): Secret => ({
  table,
  withheld,
  remove: (body) => ({ ...body, ...blank }),
  keep: (theirs, ours) => ({
    ...theirs,
    ...Object.fromEntries(Object.keys(blank).map((k) => [k, ours[k]])),
  }),
})
const noWeights: Secret['withheld'] = (w) => !w.weights
const noInside: Secret['withheld'] = (w) => !w.inside

const mass = 'riding-mass'
type Steps = { step: string; basis: Body }[]
const stepsOf = (body: Body) => (body.steps ?? []) as Steps

const secrets: readonly Secret[] = [
  fields('riders', noWeights, noMasses),
  {
    table: 'riders',
    withheld: noWeights,
    remove: (body) => ({ ...body, assumed: assumedOf(body, false) }),
    keep: (theirs, ours) => ({ ...theirs, assumed: [...assumedOf(theirs, false), ...assumedOf(ours, true)] }),
  },
  fields('baselines', noWeights, { riderMassKg: null }),
  {
    table: 'kept',
    withheld: noWeights,
    remove: (body) => ({ ...body, found: { ...(body.found as Body), kitMassKg: null } }),
    keep: (theirs, ours) => ({
      ...theirs,
      found: { ...(theirs.found as Body), kitMassKg: (ours.found as Body).kitMassKg },
    }),
  },
  {
    // What a step of the bench rested on.
    table: 'benches',
    withheld: noWeights,
    remove: (body) => ({
      ...body,
      steps: stepsOf(body).map((s) => (mass in s.basis ? { ...s, basis: { ...s.basis, [mass]: null } } : s)),
    }),
    keep: (theirs, ours) => ({
      ...theirs,
      steps: stepsOf(theirs).map((s) => {
        const own = stepsOf(ours).find((o) => o.step === s.step)
        return own && mass in own.basis && mass in s.basis
          ? { ...s, basis: { ...s.basis, [mass]: own.basis[mass] } }
          : s
      }),
    }),
  },
  fields('units', noInside, { note: '', idNote: '' }),
  {
    table: 'services',
    withheld: noInside,
    remove: (body) => (insideServices.has(String(body.kind)) ? { ...body, note: '' } : body),
    keep: (theirs, ours) =>
      insideServices.has(String(theirs.kind)) ? { ...theirs, note: ours.note } : theirs,
  },
  fields('pad_reports', (w) => !w.voices, { voiceId: null }),
]

/** A record without what stays here. */
export const withoutSecrets = (table: string, body: Body, w: BundleWith): Body =>
  secrets.filter((s) => s.table === table && s.withheld(w)).reduce((b, s) => s.remove(b), body)

/** Their record, with ours in the places that a bundle left out. */
export const withOurSecrets = (table: string, theirs: Body, ours: Body, w: BundleWith): Body =>
  secrets.filter((s) => s.table === table && s.withheld(w)).reduce((b, s) => s.keep(b, ours), theirs)

/** A rider who is in a bundle for the sake of a bike: a name, and nothing of the body or said of them. */
export const asGuest = (body: Body): Body => ({
  ...body,
  ...noMasses,
  assumed: assumedOf(body, false),
  note: '',
})

/** Whether a report of a phone says anything but what was spoken. */
export const saysWithoutVoice = (body: Body): boolean =>
  body.against !== null || (body.words as unknown[]).length > 0 || body.stopped !== null || body.text !== ''
