import { capital } from '@kevro/core';
import { z } from 'zod';
import { DONE_AGO } from './limits';
import { calls, type Call } from './calls';
import * as compute from './compute';
import * as setupFiles from './exchange/setup-file';
import * as mappings from './exchange/setup-mapping';
import * as access from './records/access';
import * as captures from './records/capture';
import * as films from './records/film';
import * as fittings from './records/fitting';
import * as frames from './records/frame';
import * as guides from './records/guide';
import * as instruments from './records/instrument';
import * as learned from './records/learning';
import * as measurements from './records/measurement';
import * as parts from './records/part';
import * as placements from './records/placement';
import * as play from './records/play';
import * as players from './records/player';
import * as seasons from './records/season';
import * as setups from './records/setup';
import * as shops from './records/shop';
import * as shapes from './shapes';

const MODULES = [
  shapes,
  placements,
  parts,
  players,
  frames,
  measurements,
  captures,
  films,
  setups,
  guides,
  fittings,
  play,
  seasons,
  instruments,
  learned,
  shops,
  access,
  mappings,
  setupFiles,
  compute,
];

type Io = 'input' | 'output';
type Json = Record<string, unknown>;

/** The schemas that have a name of their own in the document: what the modules export, by their names. */
const ids = z.registry<{ id: string }>();
/** With what the schemas say of themselves. */
const named = Object.assign(Object.create(ids) as typeof ids, {
  get: (schema: z.ZodType) => {
    const said = { ...z.globalRegistry.get(schema), ...ids.get(schema) };
    return Object.keys(said).length > 0 ? said : undefined;
  },
});
const WORTH_A_NAME = [z.ZodObject, z.ZodUnion, z.ZodEnum, z.ZodArray, z.ZodRecord, z.ZodISODate] as const;
const taken = new Set<string>(['Problem']);
for (const module of MODULES)
  for (const [name, schema] of Object.entries<unknown>(module)) {
    const of = schema as z.ZodType;
    if (!WORTH_A_NAME.some((kind) => of instanceof kind) || ids.has(of) || taken.has(capital(name))) continue;
    taken.add(capital(name));
    ids.add(of, { id: capital(name) });
  }

/** One schema after the other, with those that have a name said once, beside them. */
class Schemas {
  private readonly defs: Record<Io, Map<string, Json>> = { input: new Map(), output: new Map() };

  json(schema: z.ZodType, io: Io): Json {
    const made = z.toJSONSchema(schema, {
      target: 'draft-2020-12',
      io,
      metadata: named,
      reused: 'inline',
    }) as Json;
    const { $schema: _, $defs, ...rest } = made;
    for (const [name, def] of Object.entries(($defs ?? {}) as Record<string, Json>))
      this.defs[io].set(name, withoutId(def));
    const own = ids.get(schema)?.id;
    if (own === undefined) return tagged(rest, io) as Json;
    if (!('$ref' in rest)) this.defs[io].set(own, withoutId(rest));
    return { $ref: `${io}:${own}` };
  }

  /** The components, and what a reference of either direction is called: where reading and sending differ, what is sent is called so. */
  components(): { schemas: Record<string, Json>; nameOf: (ref: string) => string } {
    const { input, output } = this.defs;
    const differs = new Set<string>();
    // A schema differs where what it refers to does.
    for (let grown = true; grown;) {
      grown = false;
      for (const [name, sent] of input) {
        const read = output.get(name);
        if (!read || differs.has(name)) continue;
        const text = JSON.stringify(sent);
        const leans = [...differs].some((one) => text.includes(`"#/$defs/${one}"`));
        if (!leans && text === JSON.stringify(read)) continue;
        differs.add(name);
        grown = true;
      }
    }
    const nameOf = (ref: string): string => {
      const [io, name = ''] = ref.split(':');
      return io === 'input' && differs.has(name) ? `${name}Sent` : name;
    };
    const schemas: Record<string, Json> = {};
    for (const io of ['output', 'input'] as const)
      for (const [name, def] of this.defs[io]) schemas[nameOf(`${io}:${name}`)] ??= tagged(def, io) as Json;
    return { schemas, nameOf };
  }
}
const withoutId = ({ id: _, ...def }: Json): Json => def;
/** References say in which direction they are meant until all are known. */
const tagged = (node: unknown, io: Io): unknown => mapRefs(node, (ref) => ref.replace('#/$defs/', `${io}:`));
function mapRefs(node: unknown, to: (ref: string) => string): unknown {
  if (Array.isArray(node)) return node.map((one: unknown) => mapRefs(one, to));
  if (node === null || typeof node !== 'object') return node;
  return Object.fromEntries(
    Object.entries(node).map(([key, value]: [string, unknown]) => [
      key,
      key === '$ref' && typeof value === 'string' ? to(value) : mapRefs(value, to),
    ]),
  );
}
const content = (schema: Json) => ({ 'application/json': { schema } });

const PROBLEM = {
  type: 'object',
  required: ['type', 'title', 'status', 'detail', 'code'],
  properties: {
    type: { type: 'string' },
    title: { type: 'string' },
    status: { type: 'integer' },
    detail: { type: 'string' },
    code: { $ref: '#/components/schemas/ErrorCode' },
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

/** Said once, and referred to by every call. */
const REFUSED = { $ref: '#/components/responses/Refused' };
const REFUSED_SAID = {
  description: 'What went wrong (RFC 9457)',
  content: { 'application/problem+json': { schema: { $ref: '#/components/schemas/Problem' } } },
};

function queryParameters(query: z.ZodType | undefined) {
  if (!query) return [];
  const { properties = {} } = z.toJSONSchema(query, { target: 'draft-2020-12', io: 'input' });
  return Object.entries(properties).map(([name, schema]) => ({ name, in: 'query', required: false, schema }));
}

const file = (type: string) => ({ [type]: { schema: { type: 'string' } } });

/** What the calls of each resource are for. */
const TAGS: Record<string, string> = {
  access: 'Whether this device is let in',
  backups: 'Copies of the whole shop',
  changes: 'The change log',
  compute: 'The physics, without a record: predictions, plans, checks',
  day: 'What the day asks for: follow-ups and calibrations that are due',
  devices: 'The devices that are signed in',
  fittings: 'Fittings: rounds, targets, plans, builds, programmes and sessions',
  frames: 'Frames, with their measurements and strings',
  guides: 'Bands of specs for kinds of players',
  health: 'Whether the server answers',
  filmed: 'A link by which a phone sends films',
  films: 'Films that phones sent',
  instruments: 'Scales, boards and machines, their readings and calibrations',
  learning: 'What builds showed about parts',
  let: 'Whether other devices of the network are listened for',
  look: 'Follow-ups',
  measurements: 'Stored measurements: corrected, discarded, set beside setups',
  models: 'Models of frames that the shop has had',
  pairings: 'Codes for other devices',
  own: 'One’s own passphrase',
  parts: 'Tape, putty, grips, strings and the other parts of the shop',
  passphrase: 'The passphrase of the shop',
  played: 'The page on which a player notes a session',
  players: 'Players',
  programmes: 'Programmes: the next step',
  rounds: 'Rounds: what follows from the last session',
  season: 'Matches and rests of players',
  search: 'Finding players, frames, setups and fittings by words',
  sessions: 'Sessions that were played',
  tensions: 'How tightly the library is strung',
  setups: 'The library of published setups',
  shop: 'The shop itself',
  sign: 'Signing in and out',
  staff: 'The people of the shop who sign in by name',
  stream: 'What is stored anywhere, as it happens',
  stringings: 'Strings of a frame',
  today: 'Open fittings, and what is next in each',
};

/** By which resource the calls are sorted: the first word of the address, and the computations. */
const tagOf = (path: string): string => /^\/(\w+)/.exec(path)?.[1] ?? 'shop';

function operation(
  name: string,
  { path, summary, body, query, answer, upload, download }: Call,
  schemas: Schemas,
) {
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
    tags: [tagOf(path)],
    summary,
    ...(OPEN_CALLS.has(name) ? { security: [] } : {}),
    ...(parameters.length > 0 ? { parameters } : {}),
    ...(upload
      ? { requestBody: { required: true, content: Object.assign({}, ...upload.map(file)) as object } }
      : {}),
    ...(body ? { requestBody: { required: true, content: content(schemas.json(body, 'input')) } } : {}),
    responses: {
      200: {
        description: summary,
        content: download ? file(download) : content(schemas.json(answer, 'output')),
      },
      '4XX': REFUSED,
      default: REFUSED,
    },
  };
}

/** Calls that answer a device that nobody signed in on. */
const OPEN_CALLS: ReadonlySet<string> = new Set<keyof typeof calls>([
  'health',
  'access',
  'signIn',
  'signOut',
  'linkPage',
  'noteByLink',
]);

/** The OpenAPI 3.1 document of every call, made from the same schemas that validate. */
export function openApiDocument(): Record<string, unknown> {
  const schemas = new Schemas();
  const paths: Record<string, Record<string, unknown>> = {};
  for (const [name, call] of Object.entries<Call>(calls)) {
    const path = call.path.replace(/:(\w+)/g, '{$1}');
    (paths[path] ??= {})[call.method] = operation(name, call, schemas);
  }
  // The one call that does not end: server-sent events, each with a message as its data.
  paths['/stream'] = {
    get: {
      operationId: 'changeStream',
      tags: ['stream'],
      summary: 'What is stored anywhere in the shop, as server-sent events of the type change',
      responses: {
        200: {
          description: 'One change an event: kind and id of the record, and the open page that stored it',
          content: { 'text/event-stream': { schema: { type: 'string' } } },
        },
        '4XX': REFUSED,
        default: REFUSED,
      },
    },
  };
  paths['/instruments/stream'] = {
    get: {
      operationId: 'instrumentStream',
      tags: ['instruments'],
      summary: 'The instruments as they stand, and whatever happens to them, as server-sent events',
      responses: {
        200: {
          description: 'One message an event',
          content: { 'text/event-stream': { schema: schemas.json(instruments.instrumentMessage, 'output') } },
        },
        '4XX': REFUSED,
        default: REFUSED,
      },
    },
  };
  const { schemas: components, nameOf } = schemas.components();
  const linked = <T>(node: T): T =>
    mapRefs(node, (ref) => (/^(in|out)put:/.test(ref) ? `#/components/schemas/${nameOf(ref)}` : ref)) as T;
  const tags = [...new Set(Object.keys(paths).map(tagOf))].toSorted();
  return {
    openapi: '3.1.0',
    info: {
      title: 'Kevro',
      version: '1',
      description: `The computation and the records of Kevro over HTTP. What could be sent only some time after it was done says so in the header ${DONE_AGO}, in seconds: it counts from then.`,
      license: { name: 'Unlicensed: for the shop that runs it', identifier: 'LicenseRef-Kevro' },
    },
    servers: [{ url: '/api/v1' }],
    security: [{ device: [] }],
    tags: tags.map((name) => ({ name, description: TAGS[name] })),
    paths: linked(paths),
    components: {
      responses: { Refused: REFUSED_SAID },
      schemas: { Problem: PROBLEM, ...linked(components) },
      securitySchemes: {
        device: {
          type: 'apiKey',
          in: 'cookie',
          name: 'kevro-device',
          description: 'set by signing in; a shop without a passphrase answers its own machine without one',
        },
      },
    },
  };
}
