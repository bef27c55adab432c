import { readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { describe, expect, it } from 'vitest'

/** Words for acts that were given up: one word per act, in the whole product. */
const givenUp: [RegExp, string][] = [
  [/\bput(?:ting)? away\b/i, 'Remove'],
  [/\btake it off\b/i, 'Remove'],
  [/\bleave (?:it )?out\b/i, 'Remove'],
  [/\bnot now\b/i, 'Cancel'],
  [/\bwrite (?:it|something) down\b/i, 'Save'],
  [/\bthat is how it stands\b/i, 'Save'],
  [/\bbegin anew\b/i, 'Start a new bench session'],
  [/\bbest so far\b/i, 'best rating so far'],
  [/\bopen day\b/i, 'Still open'],
  [/\bdays before\b/i, 'Earlier days'],
  [/\bsay where it stands\b/i, 'Record current settings'],
  [/\brecommended starts\b/i, 'Makers’ settings'],
  [/\ball causes still alive\b/i, 'Other possible causes'],
  [/\bstill open one way\b/i, 'not tried in one direction yet'],
  [/\bfakes less sag\b/i, 'makes sag look smaller'],
  [/\breturn law\b/i, 'return speed by depth'],
  [/\bbeats the noise\b/i, 'bigger than normal scatter'],
  [/\bwhat is stored does not change\b/i, 'Only how values are shown'],
  [/\btap again for a half\b/i, 'a key of its own'],
]

const filesIn = (dir: string): string[] =>
  readdirSync(dir, { withFileTypes: true }).flatMap((e) =>
    e.isDirectory()
      ? filesIn(join(dir, e.name))
      : /\.(vue|ts)$/.test(e.name) && !/\.test\.ts$/.test(e.name)
        ? [join(dir, e.name)]
        : [],
  )

/** Sentences and labels that reach a person: template text and strings, without comments. */
function shownText(source: string): string {
  return source
    .replace(/<style[\s\S]*?<\/style>/g, '')
    .replace(/<!--[\s\S]*?-->/g, '')
    .replace(/\/\*[\s\S]*?\*\//g, '')
    .replace(/^\s*\/\/.*$/gm, '')
    .replace(/^import .*$/gm, '')
}

describe('the words of the product', () => {
  const files = [...filesIn('web'), ...filesIn('core')]
  it('looks at what it means to look at', () => {
    expect(files.length).toBeGreaterThan(150)
    expect(shownText('const a = "x" // put away')).not.toBe('')
    expect(shownText('/* put away */ "Remove"')).not.toContain('put away')
  })
  it.each(givenUp)('%s is given up for “%s”', (word) => {
    const found = files.filter((f) => word.test(shownText(readFileSync(f, 'utf8'))))
    expect(found).toEqual([])
  })
})
