import { expose } from 'comlink'
import { judgeBundle, learntOf } from '#core/adviser/judgeBundle'

/** Judgement off the page's thread. */
const judging = { judge: judgeBundle, learn: learntOf }
export type Judging = typeof judging

expose(judging)
