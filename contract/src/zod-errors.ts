import type { z } from 'zod';
import { sentence, type ErrorCode, type FieldError } from './errors';

type Issue = z.core.$ZodIssue;

function coded(issue: Issue): [ErrorCode, Record<string, number | string>?] {
  switch (issue.code) {
    case 'invalid_type':
      if (issue.input === undefined) return ['missing'];
      if (issue.expected === 'number' || issue.expected === 'nan') return ['not-a-number'];
      if (issue.expected === 'int') return ['not-whole'];
      if (issue.expected === 'string') return ['not-text'];
      return ['bad-input'];
    case 'invalid_value':
      return issue.input === undefined
        ? ['missing']
        : ['not-among-choices', { choices: issue.values.join(', ') }];
    case 'too_big':
      return issue.origin === 'string' || issue.origin === 'array'
        ? ['too-long', { most: Number(issue.maximum) }]
        : ['out-of-range', { range: `at most ${issue.maximum}` }];
    case 'too_small':
      if (issue.origin === 'string')
        return issue.input === '' ? ['missing'] : ['too-short', { least: Number(issue.minimum) }];
      if (issue.origin === 'number' && !issue.inclusive && Number(issue.minimum) === 0)
        return ['not-positive'];
      return ['out-of-range', { range: `at least ${issue.minimum}` }];
    case 'custom':
      // A rule of ours says which of our sentences it is.
      return [(issue.params?.code as ErrorCode | undefined) ?? 'bad-input'];
    default:
      return ['bad-input'];
  }
}

/** A schema's complaints in Kevro's words, one entry a field. */
export function fieldErrors(issues: readonly Issue[], within = ''): FieldError[] {
  return issues.flatMap((issue): FieldError[] => {
    const path = [within, ...issue.path.map(String)].filter(Boolean).join('.');
    if (issue.code === 'unrecognized_keys') {
      return issue.keys.map((key) => ({
        path: [path, key].filter(Boolean).join('.'),
        code: 'unknown-key',
        message: sentence('unknown-key', { key }),
      }));
    }
    if (issue.code === 'invalid_union' && issue.errors.length > 0) {
      // The shape that came nearest says best what is wrong: the one whose complaint lies deepest, then the one with fewest.
      const depth = (list: readonly Issue[]): number => Math.max(0, ...list.map(({ path: at }) => at.length));
      const [nearest] = issue.errors.toSorted((a, b) => depth(b) - depth(a) || a.length - b.length);
      if (nearest && nearest.length > 0 && nearest.length < 3) return fieldErrors(nearest, path);
    }
    const [code, values] = coded(issue);
    return [{ path, code, message: sentence(code, values) }];
  });
}
