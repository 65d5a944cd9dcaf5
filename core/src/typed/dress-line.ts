import type { Dress } from '../dress';
import { TokenLine } from './token-line';
import type { Token } from './tokens';
import { COUNT } from './words';

/** What a line says of one thing of the dress: each value that was said, and in what tokens. */
interface Saying {
  key: keyof Dress;
  to: boolean | number | string;
  tokens: (Token | undefined)[];
}

const MOST_OVERGRIPS = 9;

/** What a line says of what is on the frame. */
export abstract class DressLine extends TokenLine {
  /** Takes what is said once of each thing of the dress. @returns false where the line says both strung and unstrung */
  protected understandDress(): boolean {
    const said = this.tokens.flatMap((token, i) => {
      if (token.kind !== 'word' || token.used) return [];
      // «15 g leather» is a piece of leather.
      const weighed = this.unitAt(i - 1)?.[0] === 'mass' && !this.tokens[i - 1]?.used;
      return weighed ? [] : this.sayingAt(i, token);
    });
    const values = (key: keyof Dress): number =>
      new Set(said.filter((s) => s.key === key).map(({ to }) => to)).size;
    for (const { key, to, tokens } of said) {
      const clear = values(key) === 1;
      if (clear) Object.assign(this.result.dress, { [key]: to });
      // Two numbers of overgrips are understood, and neither is taken; strings that are in and out are not.
      if (clear || key !== 'strings') this.use(tokens);
    }
    return values('strings') < 2;
  }

  private sayingAt(i: number, token: Token): Saying[] {
    const before = this.tokens[i - 1];
    const no = this.is(i - 1, 'no', 'without');
    switch (token.is) {
      case 'strung':
      case 'unstrung':
        return [{ key: 'strings', to: token.is === 'strung', tokens: [token] }];
      case 'leather':
      case 'synthetic':
        return [{ key: 'baseGrip', to: token.is, tokens: [token] }];
      case 'no-grip':
        return [{ key: 'baseGrip', to: 'none', tokens: [token] }];
      case 'dampener':
        return [
          { key: 'dampener', to: !no, tokens: [no || this.is(i - 1, 'with') ? before : undefined, token] },
        ];
      case 'overgrip':
        return this.overgrips(i, token);
      default:
        return [];
    }
  }

  /** «2 overgrips», «2x overgrip», «overgrip x2», «two overgrips», «overgrip». */
  private overgrips(i: number, token: Token): Saying[] {
    const count = (number: Token, tokens: Token[]): Saying[] =>
      Number.isInteger(number.value) && number.value <= MOST_OVERGRIPS
        ? [{ key: 'overgrips', to: number.value, tokens }]
        : [];
    const times = this.is(i - 1, 'x') ? 2 : 1;
    const before = this.tokens[i - times];
    if (before?.kind === 'number' && !before.used) return count(before, this.tokens.slice(i - times, i + 1));
    const after = this.is(i + 1, 'x') ? this.number(i + 2) : undefined;
    if (after) return count(after, this.tokens.slice(i, i + 3));
    const word = before?.kind === 'word' ? COUNT[before.is] : undefined;
    return [{ key: 'overgrips', to: word ?? 1, tokens: [word === undefined ? undefined : before, token] }];
  }
}
