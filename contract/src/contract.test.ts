import { describe, expect, it } from 'vitest';
import { brokenLimits } from '@kevro/core';
import {
  calls,
  compute,
  fieldErrors,
  limitSentence,
  openApiDocument,
  sentence,
  ERROR_CODES,
  statusOf,
} from '.';

describe('errors', () => {
  it('each code has a sentence that ends, and a client or server status', () => {
    for (const code of ERROR_CODES) {
      expect(sentence(code)).toMatch(/^[A-Z“].*[.!]$/s);
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
  it('is version 3.1 and holds every call with its body', () => {
    const document = openApiDocument() as { openapi: string; paths: Record<string, Record<string, unknown>> };
    expect(document.openapi).toBe('3.1.0');
    for (const { path, method, body } of Object.values(calls)) {
      const operation = document.paths[path.replace(/:(\w+)/g, '{$1}')]?.[method] as {
        requestBody?: unknown;
      };
      expect(operation).toBeDefined();
      expect(Boolean(operation.requestBody)).toBe(Boolean(body));
    }
  });
});
