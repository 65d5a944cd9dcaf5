import { describe, expect, it } from 'vitest';
import { sentences } from './sentences';

const all = sentences();

/** Phrases that no fitter says across the bench; what is said instead stands beside each. */
const NOT_SAID: [phrase: RegExp, instead: string][] = [
  [/\ball the same\b/i, 'anyway, or a reason to override'],
  [/\bgive or take\b/i, 'tolerance, or ±'],
  [/\bby itself\b/i, 'automatic'],
  [/\bsurest\b/i, 'most accurate'],
  [/\btold\b/i, 'published, or reported'],
  [/\bnoted by mistake\b|\bmark(ed)? as wrong\b/i, 'discarded'],
  [/\bput(s|ting)? right\b|\bmend(ed|s)?\b/i, 'correct, or fix'],
  [/\bwhat of it\b|\bmakes of it\b/i, 'say it plainly'],
  [/\bit is to be\b|\bis to be\b/i, 'say who does what'],
  [/\b(the|on the|from the) shelf\b/i, 'stock'],
  [/\bdress\b/i, 'what is on it'],
  [/\bsweet region\b/i, 'sweet spot'],
];
/** Folders whose sentences a fitter reads in the middle of a job. */
const STATION = /^web\/src\/(stations|bench|measure|lanes|rail)\//;
const MOST_WORDS = 20;

/** The sentences of a run of text: what a word's worth of marks ends, ends one. */
const split = (text: string): string[] => text.split(/(?<=[.!?:;])\s+/);
const words = (text: string): number => text.split(/\s+/).filter((word) => /[\w…]/.test(word)).length;

describe('what the interface says', () => {
  it('is found, in templates and in scripts', () => {
    const texts = all.map(({ text }) => text);
    expect(texts).toContain('Save measurement');
    expect(texts.some((text) => text.includes('Type all in one line'))).toBe(true);
    expect(all.length).toBeGreaterThan(1200);
  });

  it.each(NOT_SAID)('never says %s', (phrase, instead) => {
    const found = all.filter(({ text }) => phrase.test(text));
    expect(found.map(({ file, text }) => `${file}: “${text}”; say ${instead}`)).toEqual([]);
  });

  it(`says nothing longer than ${MOST_WORDS} words at a station`, () => {
    const long = all
      .filter(({ file }) => STATION.test(file))
      .flatMap(({ file, text }) => split(text).map((one) => ({ file, one })))
      .filter(({ one }) => words(one) > MOST_WORDS);
    expect(long.map(({ file, one }) => `${file}: “${one}”`)).toEqual([]);
  });

  it('tells the twenty longest', () => {
    const longest = all
      .flatMap(({ file, text }) => split(text).map((one) => ({ file, one, count: words(one) })))
      .toSorted((a, b) => b.count - a.count)
      .slice(0, 20);
    console.log(longest.map(({ file, one, count }) => `${count} ${file}: ${one}`).join('\n'));
    expect(longest).toHaveLength(20);
  });
});
