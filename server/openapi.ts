import { z } from 'zod'
import { endpoints, rawEndpoints } from '#contract/endpoints'
import { errorCodes, Problem } from '#contract/errors'
import { inputSentences } from '#contract/inputCodes'
import { LiveEvent } from '#contract/live'
import { Upload } from '#contract/recording'

/** OpenAPI 3.1 document, printed from the same table that the server mounts. */
export function openApiDocument(version: string) {
  const paths: Record<string, Record<string, unknown>> = {}
  for (const [operationId, e] of Object.entries(endpoints)) {
    const path = openPath(e.path)
    const hasBody = e.body.def.type !== 'undefined'
    paths[path] ??= {}
    paths[path][e.method] = {
      operationId,
      summary: e.summary,
      parameters: pathParameters(e.path),
      ...(hasBody ? { requestBody: { required: true, content: json(e.body) } } : {}),
      responses: { 200: { description: 'Done', content: json(e.reply) }, default: problem },
    }
  }
  for (const [method, address, summary, type] of rawEndpoints) {
    const path = openPath(address)
    const operation = {
      operationId: `${method} ${address}`,
      summary,
      parameters: pathParameters(path),
      ...(method === 'put' ? { requestBody: { required: true, content: { [type]: { schema: {} } } } } : {}),
      responses: {
        200: {
          description: summary,
          content:
            address === '/uploads/:id'
              ? json(Upload)
              : address === '/events'
                ? { [type]: liveSchema }
                : { [type]: { schema: {} } },
        },
        default: problem,
      },
    }
    paths[path] ??= {}
    for (const m of method === 'all' ? ['get', 'put', 'post', 'delete'] : [method])
      paths[path][m] = { ...operation, operationId: `${m} ${address}` }
  }
  return {
    openapi: '3.1.0',
    info: {
      title: 'Wild Spring',
      version,
      description: `Error codes: ${[...Object.keys(errorCodes), ...Object.keys(inputSentences)].join(', ')}.`,
    },
    servers: [{ url: '/api/v1' }],
    paths,
  }
}

const json = (schema: z.ZodType) => ({
  'application/json': { schema: z.toJSONSchema(schema, { unrepresentable: 'any', io: 'input' }) },
})

/** One live event: the data of a server-sent event of that type. */
const liveSchema = { schema: z.toJSONSchema(LiveEvent, { unrepresentable: 'any' }) }

const problem = {
  description: 'Problem',
  content: { 'application/problem+json': { schema: z.toJSONSchema(Problem, { unrepresentable: 'any' }) } },
}

const openPath = (path: string) => path.replace(/:(\w+)/g, '{$1}').replace('*', '{rest}')

function pathParameters(path: string) {
  return [...path.matchAll(/[:{](\w+)/g)].map(([, name]) => ({
    name,
    in: 'path',
    required: true,
    schema: { type: 'string' },
  }))
}
