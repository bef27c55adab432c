import type { Cause, Evidence, Proposal, ProposalKind } from '#contract/proposal'
import type { HistoryRun } from './dayHistory.ts'

/** A card that turns nothing. */
export function plain(
  kind: ProposalKind,
  headline: string,
  watchFor: string,
  changeOurMind: string,
): Proposal {
  return {
    kind,
    headline,
    moves: [],
    setupId: null,
    speaksFor: [],
    speaksAgainst: [],
    watchFor,
    changeOurMind,
    caution: null,
    outlook: null,
    question: null,
    readEnd: null,
    lookAt: [],
    plan: [],
    causes: [],
  }
}

const byWeight = (a: Evidence, b: Evidence) => Math.abs(b.weight) - Math.abs(a.weight)

export function forAndAgainst(c: Cause): Pick<Proposal, 'speaksFor' | 'speaksAgainst'> {
  return {
    speaksFor: c.evidence.filter((e) => e.weight > 0).sort(byWeight),
    speaksAgainst: c.evidence.filter((e) => e.weight < 0).sort(byWeight),
  }
}

/** A line of reason that comes from the runs as a whole. */
export function reason(text: string, runId: string | null = null, weight = 1): Evidence {
  return {
    weight,
    text,
    topic: text,
    runNumbers: [],
    link: { kind: 'runs', runId, sectionId: null, word: null },
  }
}

export function firstRunCard(warm: boolean): Proposal {
  return warm
    ? plain(
        'log-first-run',
        'Now the baseline run',
        'Change nothing. Same section, same line, a speed you can repeat.',
        'The warm-up is for nerves and lines; nobody judges it.',
      )
    : plain(
        'log-first-run',
        'One warm-up run, then the baseline',
        'Check tyre pressures and levers, ride the section once without judging it, then log the baseline.',
        'Nothing to judge yet.',
      )
}

export function untangleCard(moved: string[], before: HistoryRun, causes: Cause[]): Proposal {
  return {
    ...plain(
      'untangle',
      `Back to run ${before.number}, then one thing at a time`,
      `This day has got into a mess: ${moved.length} adjusters moved since run ${before.number}, so nobody can say which one did it. It happens to everyone. The way out: go back, ride it once as a baseline, and change the one you believe in most.`,
      'If it rides well as it is, keep it, ride it once more, and call this the new baseline.',
    ),
    setupId: before.run.setupId,
    speaksFor: [
      ...moved.map((m) => reason(m, before.run.id)),
      ...(before.run.kind === 'warm-up'
        ? [reason(`Run ${before.number} was a warm-up: nerves and lines, not judged`, before.run.id)]
        : []),
    ],
    causes,
  }
}

export function goBackCard(
  target: HistoryRun,
  words: string,
  probability: number,
  causes: Cause[],
): Proposal {
  return {
    ...plain(
      'go-back',
      `Go back to run ${target.number}`,
      'What comes next goes on from there, and is held against that run.',
      'If it no longer feels better, the track or the day has changed.',
    ),
    setupId: target.run.setupId,
    speaksFor: [
      reason(
        `${words} Chance that the present one is better: ${Math.round(100 * probability)} %.`,
        target.run.id,
      ),
    ],
    causes,
  }
}

export function repeatCard(why: string, reasons: Evidence[], causes: Cause[]): Proposal {
  return {
    ...plain(
      'repeat',
      'Ride the same settings again',
      why,
      'A second run that differs clearly from the first.',
    ),
    speaksFor: reasons,
    causes,
  }
}

/** Nothing fitted answers the likeliest cause: what to look at instead. */
export function noAnswerCard(causes: Cause[], question: Proposal['question'] = null): Proposal {
  const [top] = causes
  const [headline, watch] =
    top.kind === 'tyres'
      ? ['Check both tyre pressures', 'Bring both tyres to where they were on the baseline; then ride again.']
      : top.kind === 'stiction'
        ? [
            'Check the unit before turning anything',
            'Bounce it slowly: does it stick and jump? Then it needs service, not clicks.',
          ]
        : top.kind === 'line-or-rider'
          ? ['Ride the same settings again', 'Same line, same speed, and nothing turned.']
          : [
              'No dial left for this',
              'What is fitted cannot answer this any further: think of spacers, another spring, or a workshop.',
            ]
  return {
    ...plain(
      top.kind === 'line-or-rider' ? 'repeat' : 'check-first',
      headline,
      watch,
      'The same words on a second run.',
    ),
    ...forAndAgainst(top),
    question,
    causes,
  }
}
