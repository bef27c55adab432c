/**
 * A time zone in which it is noon now. The demo's practice is told from the present backwards and would begin yesterday soon
 * after midnight, so what is tested or pictured must not hang on the hour at which somebody does it. Set once: every
 * process that is started from here has the same.
 */
export function atNoon(): string {
  const chosen = (process.env.WILD_SPRING_TEST_ZONE ??= zone(12 - new Date().getUTCHours()))
  process.env.TZ = chosen
  return chosen
}

/** Hours ahead of Greenwich, as the zone's name; its sign is turned. */
function zone(ahead: number): string {
  return ahead === 0 ? 'Etc/GMT' : `Etc/GMT${ahead > 0 ? '-' : '+'}${Math.abs(ahead)}`
}
