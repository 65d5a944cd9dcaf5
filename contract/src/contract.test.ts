import { describe, expect, it } from 'vitest';
import { brokenLimits, judge, settleFrame } from '@kevro/core';
import {
  calls,
  compute,
  fieldErrors,
  judgementLines,
  type Saying,
  limitSentence,
  openApiDocument,
  sentence,
  ERROR_CODES,
  statusOf,
  stepHeading,
} from '.';

describe('judgements', () => {
  const shape = { sport: 'tennis', lengthCm: 68.58 } as const;
  const nominal = {
    specs: { massG: 305, balanceCm: 31.5, swingWeight: 290 },
    tolerance: { massG: 7, balanceCm: 0.7, swingWeight: 6 },
    dress: {},
  };
  const uncertainty = { massG: 0.3, balanceCm: 0.07, swingWeight: 0.8 };
  const UNITS = {
    massG: ['g', 1],
    balanceCm: ['cm', 2],
    swingWeight: ['kg·cm²', 0],
    twistWeight: ['kg·cm²', 1],
  } as const;
  const shown = (key: keyof typeof UNITS, value: number): string =>
    `${value.toFixed(UNITS[key][1])} ${UNITS[key][0]}`;
  const saying: Saying = {
    value: shown,
    amount: shown,
    length: (cm) => `${cm.toFixed(0)} cm`,
    day: (iso) => iso.slice(0, 10),
  };
  const say = (specs: object, how = saying) =>
    judgementLines(judge(shape, { specs, uncertainty, dress: {} }, { nominal }), settleFrame(shape), how);

  it('stand in few lines, the gravest first, and say where weight was put', () => {
    const lines = say({ massG: 318.5, balanceCm: 32.8, swingWeight: 306 });
    expect(lines.map((l) => l.text)).toEqual([
      'Weight 13.5 g over, balance 1.30 cm toward the tip, swing weight 16 kg·cm² over: outside the maker’s tolerance as it is strung and gripped.',
      expect.stringMatching(
        /^Customised before\? It looks like 13\.5 g near the .*\(6\d cm\)\. A wrong label/,
      ),
    ]);
    const [gravest] = say({ massG: 318.5, balanceCm: 32.8, swingWeight: 120 });
    expect(gravest?.weight).toBe('wrong');
  });

  it('name one spec with the maker’s number', () => {
    expect(say({ massG: 290 })[0]?.text).toBe(
      'Weight 15.0 g under what the maker states (maker’s 305.0 g ±7.0 g).',
    );
  });

  it('speak in the units of the fitter', () => {
    const ounces = { ...saying, value: () => '10.76 oz', amount: () => '0.53 oz' };
    expect(say({ massG: 290 }, ounces)[0]?.text).toBe(
      'Weight 0.53 oz under what the maker states (maker’s 10.76 oz ±0.53 oz).',
    );
  });
});

describe('errors', () => {
  it('each code has a sentence that ends, and a client or server status', () => {
    for (const code of ERROR_CODES) {
      expect(sentence(code)).toMatch(/^[A-Z“].*[.!]$/s);
      expect(sentence(code)).not.toMatch(/\?|undefined|NaN/);
      expect(statusOf(code)).toBeGreaterThanOrEqual(400);
    }
  });

  it('says what is wrong with a body in Kevro’s words, field by field', () => {
    const body = {
      shape: { sport: 'cricket', lengthCm: 68.58 },
      specs: { massG: '3o2', balanceCm: 32, swingWeight: null, extra: 1 },
      additions: [{ massG: 1, at: { clock: 14 } }],
    };
    const found = compute.predictBody.safeParse(body, { reportInput: true });
    const errors = Object.fromEntries(fieldErrors(found.error?.issues ?? []).map((e) => [e.path, e.code]));
    expect(errors).toMatchObject({
      'shape.sport': 'not-among-choices',
      'specs.massG': 'not-a-number',
      'specs.swingWeight': 'not-a-number',
      'specs.extra': 'unknown-key',
      'additions.0.at.clock': 'out-of-range',
    });
  });
});

it('a broken rule limit names the published limit and its source', () => {
  const [broken] = brokenLimits({ sport: 'tennis', lengthCm: 74 });
  expect(broken && limitSentence(broken)).toBe(
    'The length of 74.0 cm is over the limit of 73.7 cm (ITF Rules of Tennis, Appendix II (the racket)).',
  );
});

describe('the OpenAPI document', () => {
  interface Operation {
    operationId: string;
    parameters?: { name: string; in: string }[];
    requestBody?: { content: Record<string, { schema: Record<string, unknown> }> };
  }
  const document = openApiDocument() as {
    openapi: string;
    paths: Record<string, Record<string, Operation>>;
    components: { schemas: Record<string, { description?: string }> };
  };
  const operations = Object.entries(document.paths).flatMap(([path, methods]) =>
    Object.values(methods).map((operation) => ({ path, operation })),
  );

  it('is version 3.1 and hides no call behind another of the same path', () => {
    expect(document.openapi).toBe('3.1.0');
    // The stream of instruments is no call: it is answered in events.
    const ids = operations.map(({ operation }) => operation.operationId);
    for (const name of Object.keys(calls)) expect(ids.filter((id) => id === name)).toHaveLength(1);
  });

  it('says each schema that has a name once, and refers to no other', () => {
    const text = JSON.stringify(document);
    const names = Object.keys(document.components.schemas);
    const said = [...names.map((name) => `#/components/schemas/${name}`), '#/components/responses/Refused'];
    for (const name of ['Specs', 'FrameShape', 'Dress', 'Target', 'Placement', 'Problem'])
      expect(names).toContain(name);
    const referred = [...text.matchAll(/"\$ref":"([^"]*)"/g)].map(([, ref = '']) => ref);
    expect(referred.length).toBeGreaterThan(300);
    expect(referred.filter((ref) => !said.includes(ref))).toEqual([]);
  });

  it('names every part of a path as a parameter', () => {
    for (const { path, operation } of operations) {
      const named = (operation.parameters ?? []).filter((p) => p.in === 'path').map((p) => `{${p.name}}`);
      expect(named).toEqual(path.match(/\{\w+\}/g) ?? []);
    }
  });

  it('says of every uncertainty that it is a standard one', () => {
    const silent: string[] = [];
    let said = 0;
    const walk = (node: unknown, path: string): void => {
      if (Array.isArray(node)) node.forEach((one, i) => walk(one, `${path}.${i}`));
      if (node === null || typeof node !== 'object') return;
      for (const [key, value] of Object.entries(node)) {
        const inside =
          path.endsWith('.properties') &&
          /^(uncertainty|spread|readingUncertainty|massUncertaintyG)$/.test(key);
        if (inside) {
          const { $ref, description = '' } = value as { $ref?: string; description?: string };
          const named = $ref?.replace('#/components/schemas/', '') ?? '';
          if (/standard uncertaint/.test(document.components.schemas[named]?.description ?? '')) {
            said++;
            continue;
          }
          if (/standard uncertaint/.test(description)) said++;
          else silent.push(`${path}.${key}`);
        }
        walk(value, `${path}.${key}`);
      }
    };
    walk(document, '');
    expect(silent).toEqual([]);
    expect(said).toBeGreaterThan(8);
  });

  it('says what a fitting is opened with, and the bounds of it', () => {
    const operation = document.paths['/fittings']?.post;
    expect(operation?.requestBody?.content['application/json']?.schema).toMatchObject({
      type: 'object',
      required: ['playerId', 'frameIds'],
      additionalProperties: false,
      properties: { frameIds: { type: 'array', minItems: 1, maxItems: 6 } },
    });
  });
});

describe('what a programme proposes', () => {
  it('names the zones that take no more, and leaves the others out', () => {
    const proposal = { state: 'done', reason: 'no-room', change: [], full: ['tip', 'handle'] } as const;
    expect(stepHeading(proposal as unknown as Parameters<typeof stepHeading>[0])).toBe(
      'No room for more: tip, handle',
    );
  });
});
