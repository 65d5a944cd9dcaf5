import {
  existsSync,
  mkdirSync,
  mkdtempSync,
  readFileSync,
  readdirSync,
  rmSync,
  writeFileSync,
} from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeEach, describe, expect, it } from 'vitest';
import { shopFolder } from './demo-folder';
import { dropBefore, takeNext } from './take-next';

const root = mkdtempSync(join(tmpdir(), 'kevro-next-'));
afterAll(() => rmSync(root, { recursive: true, force: true }));
let folder: string;
let database: string;
const put = (path: string, words: string): void => {
  mkdirSync(path, { recursive: true });
  writeFileSync(join(path, 'words'), words);
};
const words = (path: string): string => readFileSync(join(path, 'words'), 'utf8');
beforeEach(() => {
  folder = mkdtempSync(join(root, 'shop-'));
  database = shopFolder(folder);
});

describe('a restored shop that waits', () => {
  it('takes the place of the one that is there, which stays until the new one has opened', () => {
    put(database, 'old');
    put(`${database}.next`, 'new');
    expect(takeNext(database)).toBe(true);
    expect(words(database)).toBe('new');
    expect(words(`${database}.before`)).toBe('old');
    // The folder is still one that a start takes for a shop's.
    expect(shopFolder(folder)).toBe(database);
    dropBefore(database);
    expect(readdirSync(folder)).toEqual(['database']);
  });

  it('takes its place at the next start where the first was cut off between the two renamings', () => {
    put(`${database}.before`, 'old');
    put(`${database}.next`, 'new');
    expect(shopFolder(folder)).toBe(database);
    expect(takeNext(database)).toBe(true);
    expect(words(database)).toBe('new');
    expect(words(`${database}.before`)).toBe('old');
  });

  it('is not taken before it is whole, and where there is none all stays', () => {
    put(database, 'old');
    put(`${database}.next.making`, 'half');
    expect(takeNext(database)).toBe(false);
    expect(words(database)).toBe('old');
    expect(existsSync(`${database}.before`)).toBe(false);
  });
});
