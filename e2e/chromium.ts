import { existsSync } from 'node:fs'

/** Debian's, in the order of what they cost; `scripts/ensure.mjs` installs the first. */
const debians = ['/usr/bin/chromium-headless-shell', '/usr/bin/chromium']

/** Path of the Chromium that looks at the pages: the one that is named, or Debian's. */
export const chromiumPath = process.env.CHROMIUM ?? debians.find((path) => existsSync(path)) ?? debians[0]
