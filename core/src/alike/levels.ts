import { inverse } from '../learn';
import { NOTE_USUALS } from '../play';
import { CHANGED } from './played-alike';

/** Before anything was played, as standard deviations of the note per step: how all players may lie off nothing, how kinds differ from all, and players from their kind. */
export const PRIOR = { all: NOTE_USUALS.perStep, kind: 0.1, player: NOTE_USUALS.perStep };
/** What is said is judged as if nothing was believed before: what is believed would hide it from those who look. */
const OPEN = 1;
/** What one step more goes with, in the note, with its standard uncertainty. */
export interface PerStep {
  mean: number;
  uncertainty: number;
}

type Matrix = readonly (readonly number[])[];
/** What somebody's sessions say: precision, and precision-weighted estimate. */
export interface Word {
  precision: number[][];
  weighted: number[];
}
/** The places of all changes. */
export const ALL = CHANGED.map((_, i) => i);
const at = (m: Matrix, i: number, j: number): number => m[i]?.[j] ?? 0;
/** A row times a column. Loops, here and in the product: a shop asks for some ten thousand of these. */
function sumOver(a: readonly number[], b: (k: number) => number): number {
  let sum = 0;
  for (let k = 0; k < a.length; k++) sum += (a[k] ?? 0) * b(k);
  return sum;
}
const onto = (a: Matrix, v: readonly number[]): number[] => a.map((row) => sumOver(row, (k) => v[k] ?? 0));
const product = (a: Matrix, b: Matrix): number[][] =>
  a.map((row) => ALL.map((j) => sumOver(row, (k) => at(b, k, j))));
const sumOf = (a: Matrix, b: Matrix): number[][] => ALL.map((i) => ALL.map((j) => at(a, i, j) + at(b, i, j)));
const diagonal = (values: readonly number[]): number[][] =>
  ALL.map((i) => ALL.map((j) => (i === j ? (values[i] ?? 0) : 0)));
const precisionsOf = (sds: readonly number[]): number[] => sds.map((sd) => 1 / sd ** 2);
const precise = (sds: readonly number[]): number[][] => diagonal(precisionsOf(sds));
const NOTHING: Word = { precision: diagonal([]), weighted: ALL.map(() => 0) };
const joined = (words: readonly Word[]): Word =>
  words.reduce(
    (all, { precision, weighted }) => ({
      precision: sumOf(all.precision, precision),
      weighted: all.weighted.map((v, i) => v + (weighted[i] ?? 0)),
    }),
    NOTHING,
  );

/** Most players of a shop never changed anything: nothing is worked out of them. */
const isSilent = (precision: Matrix): boolean => precision.every((row) => row.every((v) => v === 0));

/** How a member may still differ from its level once its own word is heard, (T⁻¹ + Λ)⁻¹; undefined where it says nothing. */
const leftOf = ({ precision }: Word, apart: readonly number[]): number[][] | undefined =>
  isSilent(precision) ? undefined : inverse(sumOf(precise(apart), precision));

/** What a word says of the level above it, whose members differ by so much: (T + Λ⁻¹)⁻¹ = T⁻¹ − T⁻¹(T⁻¹ + Λ)⁻¹T⁻¹ (Woodbury), which asks for no inverse of Λ. */
function raised(word: Word, apart: readonly number[], left = leftOf(word, apart)): Word {
  if (!left) return NOTHING;
  const by = precisionsOf(apart);
  const scale = (i: number): number => by[i] ?? 0;
  return {
    precision: left.map((row, i) => row.map((v, j) => (i === j ? scale(i) : 0) - scale(i) * v * scale(j))),
    weighted: onto(left, word.weighted).map((v, i) => scale(i) * v),
  };
}
/** What is believed: the mean, and how it may differ. */
interface Believed {
  mean: number[];
  covariance: number[][];
}
/** What is believed of a member, from its own word and from what is believed of the level above. */
function lowered(word: Word, apart: readonly number[], above: Believed, left = leftOf(word, apart)) {
  if (!left) {
    const covary = (i: number, j: number): number =>
      at(above.covariance, i, j) + (i === j ? (apart[i] ?? 0) ** 2 : 0);
    return { mean: above.mean, covary };
  }
  const by = precisionsOf(apart);
  const pull = left.map((row) => row.map((v, j) => v * (by[j] ?? 0)));
  const mean = onto(
    left,
    word.weighted.map((v, i) => v + (by[i] ?? 0) * (above.mean[i] ?? 0)),
  );
  const through = product(pull, above.covariance);
  const covary = (i: number, j: number): number =>
    at(left, i, j) + sumOver(through[i] ?? [], (k) => at(pull, j, k));
  return { mean, covary };
}

/** Beliefs of all, of each kind and of each player. */
export interface Levels {
  all: Believed;
  kinds: Map<string, Believed>;
  /** Of players the variances are enough: there are many, and nobody stands below them. */
  players: { mean: number[]; variance: number[] }[];
}
export function levelsOf(
  words: readonly Word[],
  kindOf: readonly string[],
  apart: readonly number[],
): Levels {
  const kinds = [...new Set(kindOf)];
  const kindApart = ALL.map(() => PRIOR.kind);
  const left = words.map((word) => leftOf(word, apart));
  const ofKind = new Map(
    kinds.map((kind) => [
      kind,
      joined(words.flatMap((word, i) => (kindOf[i] === kind ? [raised(word, apart, left[i])] : []))),
    ]),
  );
  const top = joined([...ofKind.values()].map((word) => raised(word, kindApart)));
  const covariance = inverse(sumOf(precise(ALL.map(() => PRIOR.all)), top.precision));
  const all = { mean: onto(covariance, top.weighted), covariance };
  const kindBeliefs = new Map(
    kinds.map((kind) => {
      const { mean, covary } = lowered(ofKind.get(kind) ?? NOTHING, kindApart, all);
      return [kind, { mean, covariance: ALL.map((i) => ALL.map((j) => covary(i, j))) }];
    }),
  );
  return {
    all,
    kinds: kindBeliefs,
    players: words.map((word, i) => {
      const { mean, covary } = lowered(word, apart, kindBeliefs.get(kindOf[i] ?? '') ?? all, left[i]);
      return { mean, variance: ALL.map((k) => covary(k, k)) };
    }),
  };
}

/** What one player's own sessions make believe, without the others. */
export const aloneOf = (word: Word): readonly number[] =>
  lowered(
    word,
    ALL.map(() => PRIOR.player),
    { mean: ALL.map(() => 0), covariance: diagonal([]) },
  ).mean;

/** The note per step of some players by their sessions alone, as good as without a prior. */
export function judgedOf(words: readonly Word[], apart: readonly number[], k: number): PerStep {
  const { precision, weighted } = joined(words.map((word) => raised(word, apart)));
  const covariance = inverse(sumOf(precise(ALL.map(() => OPEN)), precision));
  return { mean: onto(covariance, weighted)[k] ?? 0, uncertainty: Math.sqrt(at(covariance, k, k)) };
}

/** The note per step, as it is believed of a kind, or of all under ''. */
export function perStepOf({ all, kinds }: Levels, level: string, k: number): PerStep {
  const { mean, covariance } = (level === '' ? all : kinds.get(level)) ?? all;
  return { mean: mean[k] ?? 0, uncertainty: Math.sqrt(at(covariance, k, k)) };
}
