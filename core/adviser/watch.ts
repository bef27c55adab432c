import type { CauseKind } from '#contract/proposal'
import type { End } from '#contract/common'

/** What to look out for on the next run, and what would show that the guess was wrong. */
export function watchFor(
  kind: CauseKind,
  end: End | null,
  section: string | null,
): { watch: string; changeOurMind: string } {
  const at = end ? `the ${end}` : 'the bike'
  const where = section ? ` in ${section}` : ''
  switch (kind) {
    case 'rebound-slow':
      return {
        watch: `Does ${at} stay level${where} instead of sinking hit by hit? If it starts to hop after single hits, come back.`,
        changeOurMind: `If ${at} kicks or bounces on after single hits, it was not too slow.`,
      }
    case 'rebound-fast':
      return {
        watch: `Does ${at} settle at once after a single hit${where}? If it gets harsher along a row of bumps, come back.`,
        changeOurMind: `If ${at} sinks and turns harsh over repeated hits, it was not too fast.`,
      }
    case 'spring-soft':
    case 'nose-low':
    case 'nose-high':
      return {
        watch: `Does ${at} ride higher in its travel and stay calmer${where}? Grip on small bumps must not suffer.`,
        changeOurMind: `If ride height comes right and the complaint stays, it was a damper.`,
      }
    case 'spring-firm':
      return {
        watch: `Does ${at} use more of its travel and grip better${where}? It must not wallow or bottom.`,
        changeOurMind: `If travel use comes right and it stays harsh, it was a damper.`,
      }
    case 'ramp-low':
      return {
        watch: `Does the ring stop at 80 to 90 % of travel on the biggest hit? Small bumps should feel as before.`,
        changeOurMind: `If it still uses everything with the right sag, look at high-speed compression.`,
      }
    case 'ramp-high':
      return {
        watch: `Does the biggest hit now use 80 to 90 % of travel, without a clank?`,
        changeOurMind: `If it still stops short with the right sag, the spring is too firm.`,
      }
    case 'lsc-open':
      return {
        watch: `Does ${at} hold up${where} when you brake, pump or lean? If small bumps start to buzz, come back.`,
        changeOurMind: `If it still dives or wallows while small bumps get harsher, the spring is too soft.`,
      }
    case 'lsc-closed':
      return {
        watch: `Do small bumps${where} get calmer? If it starts to dive or wallow, come back.`,
        changeOurMind: `If nothing gets calmer, look at the spring and the tyres.`,
      }
    case 'hsc-open':
      return {
        watch: `Do the biggest hits feel controlled? Square edges must not turn harsh.`,
        changeOurMind: `If it still blows through with the right sag, add ramp.`,
      }
    case 'hsc-closed':
      return {
        watch: `Are square edges${where} rounder? The biggest hits must not bottom.`,
        changeOurMind: `If edges stay sharp, look at pressure and low-speed compression.`,
      }
    default:
      return {
        watch: 'Same line, same speed. Say how it felt before you look at any data.',
        changeOurMind: 'A second run that feels different on the same settings.',
      }
  }
}

/** A one-line test that tells two look-alike causes apart. */
export function separatingTest(a: CauseKind, b: CauseKind, end: End | null): string {
  const pair = [a, b].sort().join('+')
  const at = end ? `the ${end}` : 'it'
  switch (pair) {
    case 'rebound-fast+rebound-slow':
      return `Ride one row of bumps and one single hit. Sinking and harsher along the row: too slow. Bouncing on after the single hit: too fast. A sensor file of the run tells it by the valleys.`
    case 'spring-firm+spring-soft':
      return `Read sag at ${end === 'rear' ? 'the shock' : 'the fork'} again, same posture, levers open. Above the target: too soft. Below: too firm.`
    case 'lsc-closed+lsc-open':
      return `Brake hard on smooth ground, then roll over small bumps. Diving: too soft. Buzzing: too firm.`
    default:
      return `Ride the section where ${at} is worst twice on the same settings, and read the ring after each run.`
  }
}
