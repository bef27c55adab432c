import { v7 as uuid } from 'uuid'
import type { Ref } from 'vue'
import type { DayBundle } from '#contract/endpoints'
import type { Proposal, ProposalRecord } from '#contract/proposal'
import { useOutbox } from '../outbox.ts'

/** Whether a card asked for something to be done to the bike. */
export const actsOn = (p: Proposal) => p.moves.length > 0 || p.setupId !== null

/** What was proposed on a day, and what was done with it. */
export function useDecisions(bundle: Ref<DayBundle | null>) {
  const outbox = useOutbox()
  /** The record of the card as it stands, if it was decided already. */
  function decided(p: Proposal): ProposalRecord | undefined {
    const last = bundle.value?.proposals.at(-1)
    const same = last?.afterRunId === (bundle.value?.runs.at(-1)?.id ?? null)
    return same &&
      JSON.stringify(last?.proposal.moves) === JSON.stringify(p.moves) &&
      last?.proposal.kind === p.kind
      ? last
      : undefined
  }

  /** Keeps what was proposed and what was done with it. */
  async function decide(p: Proposal, decision: ProposalRecord['decision']): Promise<string> {
    const b = bundle.value!
    const before = decided(p)
    if (before) {
      // The same card, decided again: "something else", then what it was.
      if (before.decision !== decision) await writeProposal({ ...before, decision })
      return before.id
    }
    const record: ProposalRecord = {
      id: uuid(),
      version: 0,
      dayId: b.day.id,
      afterRunId: b.runs.at(-1)?.id ?? null,
      shownAt: new Date().toISOString(),
      proposal: p,
      decision,
      note: '',
    }
    await writeProposal(record)
    return record.id
  }
  const writeProposal = (record: ProposalRecord) =>
    outbox.write({
      kind: 'proposal',
      key: `proposal:${record.id}`,
      params: { id: record.id },
      body: record,
      file: null,
    })
  return { decided, decide }
}
