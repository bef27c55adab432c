import { z } from 'zod'
import { endpoints } from '#contract/endpoints'
import { errorCodes, Problem } from '#contract/errors'
import { Recording, RecordingUpload } from '#contract/recording'

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
  paths['/recordings/{id}'].put = {
    operationId: 'putRecording',
    summary: 'Import a sensor file: its bytes as the body',
    parameters: [
      ...pathParameters('/recordings/:id'),
      { name: 'meta', in: 'query', required: true, content: json(RecordingUpload) },
    ],
    requestBody: { required: true, content: { 'application/octet-stream': { schema: {} } } },
    responses: { 200: { description: 'Imported', content: json(Recording) }, default: problem },
  }
  for (const [part, what] of [
    ['original', 'The bytes as they came'],
    ['channels', 'Cleaned depth channels, little-endian Float32, in the order of `ends`'],
  ]) {
    paths[`/recordings/{id}/${part}`] = {
      get: {
        operationId: `get${part}`,
        summary: what,
        parameters: pathParameters('/recordings/:id'),
        responses: {
          200: { description: what, content: { 'application/octet-stream': { schema: {} } } },
          default: problem,
        },
      },
    }
  }
  paths['/events'] = {
    get: {
      operationId: 'events',
      summary: 'Server-sent events: day, ingest',
      responses: { 200: { description: 'Stream', content: { 'text/event-stream': { schema: {} } } } },
    },
  }
  return {
    openapi: '3.1.0',
    info: {
      title: 'Wild Spring',
      version,
      description: `Error codes: ${Object.keys(errorCodes).join(', ')}.`,
    },
    servers: [{ url: '/api/v1' }],
    paths,
  }
}

const json = (schema: z.ZodType) => ({
  'application/json': { schema: z.toJSONSchema(schema, { unrepresentable: 'any', io: 'input' }) },
})

const problem = {
  description: 'Problem',
  content: { 'application/problem+json': { schema: z.toJSONSchema(Problem, { unrepresentable: 'any' }) } },
}

const openPath = (path: string) => path.replace(/:(\w+)/g, '{$1}')

function pathParameters(path: string) {
  return [...path.matchAll(/:(\w+)/g)].map(([, name]) => ({
    name,
    in: 'path',
    required: true,
    schema: { type: 'string' },
  }))
}
