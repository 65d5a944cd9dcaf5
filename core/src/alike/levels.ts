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
export const at = (m: Matrix, i: number, j: number): number => m[i]?.[j] ?? 0;
const product = (a: Matrix, b: Matrix): number[][] =>
  ALL.map((i) => ALL.map((j) => ALL.reduce((all, k) => all + at(a, i, k) * at(b, k, j), 0)));
const onto = (a: Matrix, v: readonly number[]): number[] =>
  ALL.map((i) => ALL.reduce((all, k) => all + at(a, i, k) * (v[k] ?? 0), 0));
const sumOf = (a: Matrix, b: Matrix, sign = 1): number[][] =>
  ALL.map((i) => ALL.map((j) => at(a, i, j) + sign * at(b, i, j)));
const diagonal = (values: readonly number[]): number[][] =>
  ALL.map((i) => ALL.map((j) => (i === j ? (values[i] ?? 0) : 0)));
const precise = (sds: readonly number[]): number[][] => diagonal(sds.map((sd) => 1 / sd ** 2));
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

/** What a word says of the level above it, whose members differ by so much: Λ − Λ(T⁻¹ + Λ)⁻¹Λ (Woodbury). */
function raised({ precision, weighted }: Word, apart: readonly number[]): Word {
  if (isSilent(precision)) return NOTHING;
  const by = product(precision, inverse(sumOf(precise(apart), precision)));
  const pulled = onto(by, weighted);
  return {
    precision: sumOf(precision, product(by, precision), -1),
    weighted: weighted.map((v, i) => v - (pulled[i] ?? 0)),
  };
}
/** What is believed: the mean, and how it may differ. */
interface Believed {
  mean: number[];
  covariance: number[][];
}
/** What is believed of a member, from its own word and from what is believed of the level above. */
function lowered({ precision, weighted }: Word, apart: readonly number[], above: Believed): Believed {
  if (isSilent(precision))
    return { mean: above.mean, covariance: sumOf(above.covariance, diagonal(apart.map((sd) => sd ** 2))) };
  const prior = precise(apart);
  const own = inverse(sumOf(prior, precision));
  const pull = product(own, prior);
  const fromAbove = onto(prior, above.mean);
  return {
    mean: onto(
      own,
      weighted.map((v, i) => v + (fromAbove[i] ?? 0)),
    ),
    covariance: sumOf(own, product(product(pull, above.covariance), transposed(pull))),
  };
}
const transposed = (m: Matrix): number[][] => ALL.map((i) => ALL.map((j) => at(m, j, i)));

/** Beliefs of all, of each kind and of each player. */
export interface Levels {
  all: Believed;
  kinds: Map<string, Believed>;
  players: Believed[];
}
export function levelsOf(
  words: readonly Word[],
  kindOf: readonly string[],
  apart: readonly number[],
): Levels {
  const kinds = [...new Set(kindOf)];
  const kindApart = ALL.map(() => PRIOR.kind);
  const ofKind = new Map(
    kinds.map((kind) => [
      kind,
      joined(words.filter((_, i) => kindOf[i] === kind).map((w) => raised(w, apart))),
    ]),
  );
  const top = joined([...ofKind.values()].map((word) => raised(word, kindApart)));
  const covariance = inverse(sumOf(precise(ALL.map(() => PRIOR.all)), top.precision));
  const all = { mean: onto(covariance, top.weighted), covariance };
  const kindBeliefs = new Map(
    kinds.map((kind) => [kind, lowered(ofKind.get(kind) ?? NOTHING, kindApart, all)]),
  );
  return {
    all,
    kinds: kindBeliefs,
    players: words.map((word, i) => lowered(word, apart, kindBeliefs.get(kindOf[i] ?? '') ?? all)),
  };
}

/** What one player's own sessions make believe, without the others. */
export const aloneOf = (word: Word): Believed =>
  lowered(
    word,
    ALL.map(() => PRIOR.player),
    { mean: ALL.map(() => 0), covariance: diagonal([]) },
  );

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
