import { shortWeight } from './part-weight';
import { isStrung, type Dress, type Sport } from '@kevro/core';
import { STRINGS_MOST_G, sentence } from '@kevro/contract';

/** A dress in a fitter's words: «strung, 1 overgrip». */
export function dressWords(dress: Dress, sport: Sport): string {
  const words = isStrung(sport) ? [dress.strings ? 'strung' : 'unstrung'] : [];
  const weighed: unknown = typeof dress.strings === 'object' ? dress.strings.massG : undefined;
  // While it is typed it may be no number yet.
  if (typeof weighed === 'number') words[0] = `strung (${shortWeight(weighed, 2)})`;
  if (dress.baseGrip === 'leather') words.push('leather');
  // Where there are no strings to speak of, the grip is what there is to say.
  if (dress.baseGrip === 'synthetic' && !isStrung(sport)) words.push('base grip');
  if (dress.baseGrip === 'none' || dress.baseGrip === undefined) words.push('no base grip');
  const overgrips = dress.overgrips ?? 0;
  if (overgrips > 0) words.push(overgrips === 1 ? '1 overgrip' : `${overgrips} overgrips`);
  if (dress.dampener) words.push('dampener');
  return words.join(', ');
}

/** What is wrong with a dress as it is typed, in a sentence; undefined where nothing is. */
export function dressProblem({ strings }: Dress): string | undefined {
  if (typeof strings !== 'object') return undefined;
  const massG: unknown = strings.massG;
  if (typeof massG !== 'number') return sentence('not-a-number');
  return massG > 0 && massG <= STRINGS_MOST_G
    ? undefined
    : sentence('out-of-range', { range: `0 to ${STRINGS_MOST_G} g` });
}
