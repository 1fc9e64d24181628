import type { SchemaDescription, SchemaInnerTypeDescription, SchemaObjectDescription } from 'yup'
import { apiSchemas, BATCH } from '~~/shared/api-inputs'

const about = {
  people: 'Adds people, or changes those on file. Nobody who left a list is brought back.',
  events: 'Adds events to people on file.',
  orders: 'Adds orders of people on file; the same number twice is taken once.',
  products: 'Adds products, or changes what is known of them: what letters recommend from.',
  sequences:
    'Lets people on file into a running sequence whose start says so; who may come in is asked of each.',
  'sign-ups/{key}':
    'Takes what somebody entered for a sign-up that is live, with the words they agreed to; they get its confirming letter.',
}

/** The inbound API as an OpenAPI 3.1 document, made from the schemas that check it. */
export default defineEventHandler(() => ({
  openapi: '3.1.0',
  info: {
    title: 'Satchel',
    version: '1',
    description: 'People, events, orders and products, from your shop or site.',
  },
  servers: [{ url: `${satchel().url}/api/v1` }],
  security: [{ token: [] }],
  paths: Object.fromEntries(
    Object.entries(apiSchemas).map(([name, schema]) => [
      `/${name}`,
      {
        post: {
          summary: about[name as keyof typeof about],
          parameters: [
            ...(name.includes('{key}')
              ? [{ name: 'key', in: 'path', required: true, schema: { type: 'string' } }]
              : []),
            { name: 'Idempotency-Key', in: 'header', schema: { type: 'string', maxLength: 200 } },
          ],
          requestBody: {
            required: true,
            content: {
              'application/json': {
                schema: { type: 'array', maxItems: BATCH, items: described(schema.describe()) },
              },
            },
          },
          responses: {
            200: {
              description: 'What became of each entry.',
              content: { 'application/json': { schema: answer } },
            },
            401: { description: 'No token, or one that was revoked.' },
            422: {
              description: 'The body is malformed, or every entry was refused.',
              content: { 'application/json': { schema: answer } },
            },
          },
        },
      },
    ]),
  ),
  components: { securitySchemes: { token: { type: 'http', scheme: 'bearer' } } },
}))

const answer = {
  type: 'object',
  properties: {
    taken: { type: 'integer' },
    refused: { type: 'integer' },
    results: {
      type: 'array',
      items: {
        type: 'object',
        properties: {
          index: { type: 'integer' },
          status: { enum: ['added', 'changed', 'unchanged', 'refused'] },
          path: { type: 'string', description: 'Where in the entry the fault is.' },
          message: { type: 'string' },
        },
      },
    },
  },
}

/** What may be left out may be null as well. */
function orNull(field: SchemaDescription): object {
  const schema = described(field) as { type: string }
  return field.optional ? { ...schema, type: [schema.type, 'null'] } : schema
}

/** A schema of ours as JSON Schema. */
function described(of: unknown): object {
  const description = of as SchemaDescription
  const max = description.tests?.find(({ name }) => name === 'max')?.params?.max as
    number | undefined
  switch (description.type) {
    case 'object': {
      const fields = (description as SchemaObjectDescription).fields as Record<
        string,
        SchemaDescription
      >
      return {
        type: 'object',
        required: Object.keys(fields).filter((name) => !fields[name]!.optional),
        properties: Object.fromEntries(
          Object.entries(fields).map(([name, field]) => [name, orNull(field)]),
        ),
      }
    }
    case 'array':
      return {
        type: 'array',
        ...(max ? { maxItems: max } : {}),
        items: described((description as SchemaInnerTypeDescription).innerType),
      }
    case 'string':
      return { type: 'string', ...(max ? { maxLength: max } : {}) }
    case 'number':
      return { type: 'integer', ...(max ? { maximum: max } : {}) }
    default:
      return { type: 'object', additionalProperties: true }
  }
}
