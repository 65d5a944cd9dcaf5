import type { Dress } from '../dress';
import type { Specs } from '../mass';
import { sportData, type Sport, type SportData } from '../sport';
import type { Token } from './tokens';
import {
  ABOUT,
  DIMENSION,
  LABELS,
  LABELS_AFTER,
  UNITS,
  VETO_AFTER,
  VETO_BEFORE,
  type Dimension,
  type Means,
} from './words';

export interface ParsedShape {
  sport: Sport;
  lengthCm?: number;
  headAreaCm2?: number;
  pattern?: string;
  shape?: string;
}

export interface ParsedLine {
  specs: Partial<Specs>;
  dress: Dress;
  shape: ParsedShape;
  /** What was not understood, in the order typed; nothing in it was guessed at. */
  leftover: string;
}

/** How far a labelled value may lie from what the sport knows, as a share: beyond, a digit or a unit is wrong. */
const LABELLED = [0.3, 2.5] as const;

/** The tokens of a line and what may be asked of them: what stands where, what binds a number, and what takes it away. */
export class TokenLine {
  readonly result: ParsedLine;
  protected readonly sport: SportData;
  /** Labels that belong to the number before them. */
  protected readonly taken = new Set<Token>();

  constructor(
    sport: Sport,
    private readonly ownLengthCm: number | undefined,
    protected readonly tokens: Token[],
  ) {
    this.sport = sportData(sport);
    this.result = { specs: {}, dress: {}, shape: { sport }, leftover: '' };
  }

  protected is(i: number, ...any: string[]): boolean {
    const token = this.tokens[i];
    return token !== undefined && token.kind !== 'number' && any.includes(token.is);
  }

  protected number(i: number): Token | undefined {
    const token = this.tokens[i];
    return token?.kind === 'number' ? token : undefined;
  }

  protected glued(i: number): boolean {
    const [a, b] = [this.tokens[i], this.tokens[i + 1]];
    return a !== undefined && b !== undefined && a.to === b.from;
  }

  protected use(tokens: readonly (Token | undefined)[]): void {
    for (const token of tokens) if (token) token.used = true;
  }

  protected unitAt(i: number): readonly [Dimension, number] | undefined {
    const token = this.tokens[i];
    return token && token.kind !== 'number' ? UNITS[token.is] : undefined;
  }

  protected labelAt(i: number, after = false): Means | undefined {
    const token = this.tokens[i];
    if (token?.kind !== 'word') return undefined;
    return after && !LABELS_AFTER.includes(token.is) ? undefined : LABELS[token.is];
  }

  /** The label before a number, and the tokens between: `weight: 327`, `swing weight of 332`. */
  protected labelBefore(i: number): { means: Means; from: number } | undefined {
    let at = i - 1;
    while (this.is(at, ':', '=', 'of', 'is', ...ABOUT)) at--;
    const means = this.labelAt(at);
    const label = this.tokens[at];
    if (!means || !label || label.used || this.taken.has(label)) return undefined;
    // A letter that sticks to a word or a number before it is no label.
    const single = this.tokens[at]?.is.length === 1;
    return single && at > 0 && this.glued(at - 1) ? undefined : { means, from: at };
  }

  /** Where a number begins with the word before it that says it is meant roughly: it is read as that number. */
  protected aboutFrom(from: number): number {
    return this.is(from - 1, ...ABOUT) ? from - 1 : from;
  }

  /** Whether the number at i stands in a range, a sum or a row of alternatives: then none of them is the frame's. */
  protected inRow(i: number): boolean {
    const behind = i + 1 + (this.unitAt(i + 1) ? 1 : 0);
    const ahead = this.unitAt(i - 2) ? i - 3 : i - 2;
    return (
      (this.number(behind + 1) !== undefined && this.joins(behind)) ||
      (this.number(ahead) !== undefined && this.joins(i - 1))
    );
  }

  /** Whether a mark or word between two numbers makes a row of them. */
  protected joins(mark: number): boolean {
    if (this.is(mark, '-', 'to', 'bis', '=', 'or', 'x', 'by')) return true;
    // «between 320 and 325 g»; but «327 g and 32 cm» are two things.
    if (this.is(mark, 'and', '&')) return this.unitAt(mark - 1) === undefined;
    return this.is(mark, '/') && this.alternatives(mark);
  }

  /** Whether a slash stands between two values of one thing; between different things it only parts them. */
  private alternatives(slash: number): boolean {
    const left = this.unitAt(slash - 1) || this.labelAt(slash - 1, true) ? slash - 2 : slash - 1;
    const [first, second] = [this.number(left), this.number(slash + 1)];
    if (!first || !second) return true;
    const saidBefore = this.saidOf(left);
    const saidBehind = this.saidOf(slash + 1);
    if (saidBefore && saidBehind) return false;
    const said = saidBefore ?? saidBehind;
    if (!said) return true;
    // The one that says nothing of itself: could it be what the other is?
    const value = (saidBefore ? second : first).value * said.scale;
    return said.means.some((means) => this.plausible(means, value));
  }

  /** What the label or the unit of a number says it can be; undefined where it has neither. */
  private saidOf(i: number): { means: readonly Means[]; scale: number } | undefined {
    const unit = this.unitAt(i + 1);
    const label = this.labelBefore(i)?.means ?? this.labelAt(i + (unit ? 2 : 1), true);
    if (!unit && !label) return undefined;
    const all = Object.keys(DIMENSION) as Means[];
    return {
      means: label ? [label] : all.filter((means) => DIMENSION[means] === unit?.[0]),
      scale: unit?.[1] ?? 1,
    };
  }

  /**
   * Whether the label behind a number is its own: stuck to it, last of all, or before a number that has its own label behind it again.
   * In «300 sw 320» it is the next number's.
   */
  protected bindsBack(i: number): boolean {
    const label = i + (this.unitAt(i + 1) ? 2 : 1);
    if (!this.labelAt(label, true)) return false;
    const next = label + (this.is(label + 1, ':', '=', 'of', 'is') ? 2 : 1);
    if (!this.number(next)) return true;
    return (this.glued(label - 1) && !this.glued(label)) || (next === label + 1 && this.bindsBack(next));
  }

  protected vetoed(i: number, from: number, behind: number, labelled: boolean): boolean {
    const number = this.tokens[i] as Token;
    // A letter or a word stuck to the number from either side is a code of some kind: G5, 66RA.
    const stuck = i > 0 && from === i && this.glued(i - 1) && this.tokens[i - 1]?.kind === 'word';
    const code =
      this.glued(i) &&
      this.tokens[i + 1]?.kind === 'word' &&
      !this.unitAt(i + 1) &&
      behind === i + 1 &&
      !this.labelAt(i + 1, true);
    if (stuck || code || this.inRow(i)) return true;
    // ±1 and +/- 7 g are how far the value before may be off.
    if (this.is(from - 1, '±')) return true;
    if (this.is(i - 1, '+', '-')) return !labelled || this.is(i - 1, '-');
    if (this.is(i - 1, '=') && !labelled) return true;
    const summed = this.is(behind, '+') && this.number(behind + 1) && this.unitAt(behind + 2);
    if (summed || this.is(behind, '=')) return true;
    const start = this.aboutFrom(from);
    const ahead = this.tokens[start - 1];
    const barred = ahead && ahead.kind !== 'number' && !ahead.used && VETO_BEFORE.has(ahead.is);
    if (barred && !this.belongs(start - 1, 'before')) return true;
    if (number.fraction && !this.unitAt(i + 1)) return true;
    const of = this.is(behind, 'of') ? behind + 1 : behind;
    const after = this.tokens[of];
    if (!after || after.kind === 'number') return false;
    // «368 g + 3 screws»: what is added is no part of the number.
    if (after.is === '+' && this.number(of + 1)) return false;
    // «in the handle»
    if (after.is === 'in' && this.tokens[of + 1]?.kind === 'word') return true;
    return VETO_AFTER.has(after.is) && !this.belongs(of, 'behind');
  }

  /** Whether a word between two numbers is about the other one: the one that can be no number of a frame. */
  protected belongs(word: number, other: 'before' | 'behind'): boolean {
    const before = this.unitAt(word - 1) ? word - 2 : word - 1;
    const [left, right] = [this.ordinary(before), this.ordinary(word + 1)];
    if (left === undefined || right === undefined) return false;
    return other === 'before' ? !left && right : left && !right;
  }

  /** Whether a number with a unit can be one of a frame; undefined where there is none. */
  protected ordinary(i: number): boolean | undefined {
    const number = this.number(i);
    const unit = this.unitAt(i + 1);
    if (!number || !unit) return undefined;
    const value = number.value * unit[1];
    return (Object.keys(DIMENSION) as Means[]).some(
      (key) => DIMENSION[key] === unit[0] && this.plausible(key, value),
    );
  }

  /** Whether a few grams are said of something that belongs to the dress: «2 g dampener», «leather 24 g». */
  protected ofDress(tokens: readonly Token[]): boolean {
    const from = this.tokens.indexOf(tokens[0] as Token);
    const dress = ['leather', 'synthetic', 'overgrip', 'dampener'];
    const behind = from + tokens.length;
    return this.is(from - 1, ...dress) || this.is(this.is(behind, 'of') ? behind + 1 : behind, ...dress);
  }

  protected lengthCm(): number {
    const { shape } = this.result;
    const named = this.sport.shapes[shape.shape ?? '']?.lengthCm;
    return shape.lengthCm ?? this.ownLengthCm ?? named ?? this.sport.lengthCm;
  }

  protected plausible(means: Means, value: number): boolean {
    const range = means === 'axisCm' ? undefined : this.sport.plausible[means];
    return range !== undefined && value >= range[0] && value <= range[1];
  }

  protected believable(means: Means, value: number): boolean {
    if (means === 'axisCm') return value > 0 && value < this.sport.lengthCm / 2;
    if (means === 'balanceCm') return value > 0 && value < this.lengthCm();
    const [least, most] = this.sport.plausible[means];
    return value >= LABELLED[0] * least && value <= LABELLED[1] * most;
  }
}
