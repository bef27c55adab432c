import { endpoints, rawEndpoints } from '#contract/endpoints'
import { errorCodes } from '#contract/errors'
import { inputSentences } from '#contract/inputCodes'
import { openApiDocument } from './openapi.ts'

const escape = (text: string) =>
  text.replace(/[&<>"]/g, (c) => ({ '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;' })[c]!)

/** The API as a page to browse: plain HTML from the same tables, no script, no style of its own. */
export function apiPage(version: string): string {
  const document = openApiDocument(version)
  const schemas = document.paths as Record<
    string,
    Record<string, { requestBody?: unknown; responses?: unknown }>
  >
  const rows = [
    ...Object.values(endpoints).map((e) => [e.method, e.path, e.summary] as const),
    ...rawEndpoints.map(([method, path, summary]) => [method, path, summary] as const),
  ]
  const entry = ([method, path, summary]: (typeof rows)[number]) => {
    const operation = schemas[path.replace(/:(\w+)/g, '{$1}').replace('*', '{rest}')]?.[method]
    const shown = operation
      ? JSON.stringify({ body: operation.requestBody, reply: operation.responses }, null, 1)
      : ''
    return `<details><summary><code>${method.toUpperCase()} /api/v1${escape(path)}</code> ${escape(summary)}</summary><pre>${escape(shown)}</pre></details>`
  }
  const code = (c: string, words: string) => `<tr><td><code>${c}</code></td><td>${escape(words)}</td></tr>`
  return `<!doctype html><html lang="en"><head><meta charset="utf-8"><title>Wild Spring API ${escape(version)}</title></head><body>
<h1>Wild Spring API ${escape(version)}</h1>
<p>The same as <a href="openapi.json">openapi.json</a>. Errors are problem+json (RFC 9457) with one of the codes below.</p>
${rows.map(entry).join('\n')}
<h2>Codes</h2><table>
${Object.entries(errorCodes)
  .map(([c, e]) => code(c, `${e.status} ${e.title}`))
  .join('\n')}
${Object.entries(inputSentences)
  .map(([c, words]) => code(c, `422 ${words}`))
  .join('\n')}
</table></body></html>`
}
