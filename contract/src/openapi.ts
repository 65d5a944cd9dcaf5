import { z } from 'zod';
import { calls, type Call } from './calls';
import { ERROR_CODES } from './errors';
import { instrumentMessage } from './records/instrument';

const json = (schema: z.ZodType, io: 'input' | 'output') => {
  const { $schema: _, ...rest } = z.toJSONSchema(schema, { target: 'draft-2020-12', io });
  return { 'application/json': { schema: rest } };
};

const PROBLEM = {
  type: 'object',
  required: ['type', 'title', 'status', 'detail', 'code'],
  properties: {
    type: { type: 'string' },
    title: { type: 'string' },
    status: { type: 'integer' },
    detail: { type: 'string' },
    code: { type: 'string', enum: ERROR_CODES },
    existing: { type: 'string', description: 'the record that stands in the way, where there is one' },
    errors: {
      type: 'array',
      items: {
        type: 'object',
        required: ['path', 'message'],
        properties: { path: { type: 'string' }, message: { type: 'string' }, code: { type: 'string' } },
      },
    },
  },
};

function queryParameters(query: z.ZodType | undefined) {
  if (!query) return [];
  const { properties = {} } = z.toJSONSchema(query, { target: 'draft-2020-12', io: 'input' });
  return Object.entries(properties).map(([name, schema]) => ({ name, in: 'query', required: false, schema }));
}

const file = (type: string) => ({ [type]: { schema: { type: 'string' } } });

function operation(name: string, { path, summary, body, query, answer, upload, download }: Call) {
  const parameters = [
    ...[...path.matchAll(/:(\w+)/g)].map((found) => ({
      name: found[1],
      in: 'path',
      required: true,
      schema: { type: 'string' },
    })),
    ...queryParameters(query),
  ];
  return {
    operationId: name,
    summary,
    ...(parameters.length > 0 ? { parameters } : {}),
    ...(upload
      ? { requestBody: { required: true, content: Object.assign({}, ...upload.map(file)) as object } }
      : {}),
    ...(body ? { requestBody: { required: true, content: json(body, 'input') } } : {}),
    responses: {
      200: { description: summary, content: download ? file(download) : json(answer, 'output') },
      default: {
        description: 'What went wrong (RFC 9457)',
        content: { 'application/problem+json': { schema: { $ref: '#/components/schemas/Problem' } } },
      },
    },
  };
}

/** The one call that does not end: server-sent events, each with a message as its data. */
const STREAM = {
  get: {
    operationId: 'instrumentStream',
    summary: 'The instruments as they stand, and whatever happens to them, as server-sent events',
    responses: {
      200: {
        description: 'One message an event',
        content: { 'text/event-stream': json(instrumentMessage, 'output')['application/json'] },
      },
    },
  },
};

/** The OpenAPI 3.1 document of every call, made from the same schemas that validate. */
export function openApiDocument(): Record<string, unknown> {
  const paths: Record<string, Record<string, unknown>> = {};
  for (const [name, call] of Object.entries<Call>(calls)) {
    const path = call.path.replace(/:(\w+)/g, '{$1}');
    (paths[path] ??= {})[call.method] = operation(name, call);
  }
  return {
    openapi: '3.1.0',
    info: {
      title: 'Kevro',
      version: '1',
      description: 'The computation and the records of Kevro over HTTP.',
    },
    servers: [{ url: '/api/v1' }],
    paths: { ...paths, '/instruments/stream': STREAM },
    components: { schemas: { Problem: PROBLEM } },
  };
}
