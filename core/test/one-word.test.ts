import { readFileSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import { describe, expect, it } from 'vitest';
import { ALL_SPEC_KEYS, SPECS } from '../src';

const ROOT = join(import.meta.dirname, '../..');
/** Files of a workspace that a person's words may come from. */
const sources = (workspace: string): string[] =>
  readdirSync(join(ROOT, workspace, 'src'), { recursive: true, encoding: 'utf8' })
    .filter((name) => /\.(ts|vue)$/.test(name) && !/\.test\.ts$|(^|\/)spec\/index\.ts$/.test(name))
    .map((name) => join(workspace, 'src', name));
const withoutComments = (text: string): string =>
  text
    .replace(/\/\*[\s\S]*?\*\//g, '')
    .replace(/<!--[\s\S]*?-->/g, '')
    .replace(/(^|\s)\/\/.*$/gm, '');

describe('the name of a spec', () => {
  // Weight and balance are words of their own too.
  it.each(ALL_SPEC_KEYS.filter((key) => SPECS[key].name.includes(' ')))(
    'of %s is written once, in the table of specs',
    (key) => {
      const word = new RegExp(
        `${SPECS[key].name.replace(' ', '\\s+')}|${SPECS[key].name.replace(' ', '-')} `,
        'i',
      );
      const found = ['core', 'contract', 'server', 'web']
        .flatMap(sources)
        .filter((file) => word.test(withoutComments(readFileSync(join(ROOT, file), 'utf8'))));
      // The guide that ships and typed lines say it as people do.
      expect(found.filter((file) => !file.includes('typed/'))).toEqual([]);
    },
  );
});
