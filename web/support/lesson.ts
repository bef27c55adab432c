import { isComplaint } from '#core/causes/words'
import type { PracticeDay } from '#core/practice/day'

/** What the first lesson says next, from what was done and heard; never from what is hidden. */
export interface LessonStep {
  title: string
  text: string
  does: 'ride' | 'turn' | 'settle'
}

/** A fall of this many rating points is heard in one run of this rider. */
const clearFall = 0.5

export function lessonStep(day: PracticeDay): LessonStep {
  const { runs, since, bundle } = day
  if (runs.length === 0)
    return {
      title: 'Ride it as it stands',
      text: 'That run is the baseline: everything later is held against it. Press “Ride run 1”, or the key r.',
      does: 'ride',
    }
  if (since.some((a) => a.do === 'turn'))
    return {
      title: 'Ride it',
      text: 'One thing was changed, nothing else: this run tells whether it helped.',
      does: 'ride',
    }
  const ratings = bundle.feels.map((f) => f.rating ?? 0)
  const [now, was] = [ratings[ratings.length - 1], ratings[ratings.length - 2]]
  const complaint = bundle.feels[bundle.feels.length - 1].marks.find((m) => isComplaint(m.word))
  const isRepeat =
    runs.length > 1 &&
    JSON.stringify(runs[runs.length - 1].positions) === JSON.stringify(runs[runs.length - 2].positions)
  if (!complaint && isRepeat)
    return {
      title: 'Stop here',
      text: 'Twice the same and no complaint. Whatever differs now is scatter. Press “We’re happy”: to stop is part of it.',
      does: 'settle',
    }
  if (!complaint)
    return {
      title: 'The same again',
      text: `${was === undefined ? '' : `From ${was} to ${now}, and no complaint. `}One run can be luck: ride it once more and touch nothing.`,
      does: 'ride',
    }
  const isFast = complaint.word === 'pogo'
  const way = isFast
    ? 'two clicks slower: − twice, or the left arrow on the rail'
    : 'two clicks faster: + twice, or the right arrow on the rail'
  const heard = isFast
    ? '“Bounces on”: the rear comes back too fast.'
    : '“Harsh, gets worse”: the rear does not come back between the hits, it is too slow.'
  if (was !== undefined && now < was - clearFall)
    return {
      title: 'The other way',
      text: `From ${was} to ${now}: worse, so that was the wrong way. ${heard} Turn it back, and ${way}. Then “Done, it is on”.`,
      does: 'turn',
    }
  return {
    title: was === undefined ? 'Turn one thing' : 'On the same way',
    text: `${was === undefined ? '' : `From ${was} to ${now}: it helped, and is not over. `}${heard} Turn rear rebound ${way}. Then “Done, it is on”, or Enter.`,
    does: 'turn',
  }
}
