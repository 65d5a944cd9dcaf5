import { noticeableStep } from '../compare';
import { updated, type Belief } from '../learn';
import { SPEC_KEYS, type KnownSpecs, type SpecKey } from '../spec';
import { dataOf, type AnySport } from '../sport';
import { noteOf, type Noted } from './felt';

/** One session with the frame that it was played with. */
export interface SessionWith {
  session: Noted;
  specs: KnownSpecs;
}

/** How often, and around what: sample mean and standard deviation of a spec over sessions. */
export interface Group {
  count: number;
  mean: number;
  spread: number;
}
export interface SpecWorth {
  spec: SpecKey;
  /** Sessions that were better than this player's mean, and the others. */
  better: Group | undefined;
  worse: Group | undefined;
  /** What one noticeable step more goes with, in the note (−1 to 1), the other specs being equal; with its standard uncertainty. */
  perStep: { mean: number; uncertainty: number };
  /** Plain enough to be said: more than two standard uncertainties from nothing. */
  says: 'more' | 'less' | 'nothing';
}
export interface WhatWorks {
  sessions: number;
  /** How many more are needed before anything is said. */
  missing: number;
  /** What would have to differ: with one weight nothing can be told from another. */
  alike: boolean;
  /** How much notes differ by what is no spec, as a standard deviation: found from these sessions, but never taken as less than a usual scatter. */
  scatter: number;
  specs: SpecWorth[];
}

/** Sessions below which nothing is said (a convention: four specs, and twice as many sessions). */
export const LEAST_SESSIONS = 8;
/** Frames that differ by a noticeable step in something, at the least. */
const LEAST_DIFFERENT = 2;
/** Before anything was played: a noticeable step may change a note by this much, either way. Pulls small samples toward nothing. */
const PRIOR_PER_STEP = 0.15;
/** Notes of one frame differ from day to day by this much at the least: weather, opponent, sleep. */
const LEAST_SCATTER = 0.25;
const SETTLING_ROUNDS = 8;

const meanOf = (values: readonly number[]): number => values.reduce((a, b) => a + b, 0) / values.length;
const spreadOf = (values: readonly number[]): number => {
  const mean = meanOf(values);
  return values.length < 2
    ? 0
    : Math.sqrt(values.reduce((all, v) => all + (v - mean) ** 2, 0) / (values.length - 1));
};
const groupOf = (values: readonly number[]): Group | undefined =>
  values.length === 0 ? undefined : { count: values.length, mean: meanOf(values), spread: spreadOf(values) };

/**
 * What went with better and worse notes of one player in one sport. Counts and spread say what was; the model says what of it may be the frame: the note as a sum of specs,
 * each in noticeable steps from this player's mean, with normal priors of mean 0 (ridge regression; Hoerl and Kennard 1970; see {@link updated}). Assumed: effects add up and are
 * straight over the range that was played, sessions are independent. Nothing is said below {@link LEAST_SESSIONS} sessions, nor of a spec that did not differ.
 * @param played sessions in any order; a session whose frame lacks a spec counts for the others
 * @example whatWorks('tennis', sessions).missing // 5 after three sessions
 */
export function whatWorks(sport: AnySport, played: readonly SessionWith[]): WhatWorks {
  const notes = played.map(({ session }) => noteOf(session));
  const mean = meanOf(notes);
  const { noticeable } = dataOf(sport);
  const columns = SPEC_KEYS.map((spec) => {
    const known = played.flatMap(({ specs }) => specs[spec] ?? []);
    const middle = known.length > 0 ? meanOf(known) : 0;
    const step = noticeableStep(noticeable, spec, middle);
    const steps = played.map(({ specs }) => ((specs[spec] ?? middle) - middle) / (step || 1));
    const range = known.length > 0 ? (Math.max(...known) - Math.min(...known)) / (step || 1) : 0;
    return { spec, steps, differs: range >= 1 };
  });
  const differing = columns.filter(({ differs }) => differs);
  const enough = played.length >= LEAST_SESSIONS && differing.length > 0;
  const distinct = new Set(played.map(({ specs }) => JSON.stringify(SPEC_KEYS.map((key) => specs[key]))));
  const result: WhatWorks = {
    sessions: played.length,
    missing: Math.max(0, LEAST_SESSIONS - played.length),
    alike: distinct.size < LEAST_DIFFERENT || differing.length === 0,
    scatter: Math.max(LEAST_SCATTER, spreadOf(notes)),
    specs: [],
  };
  if (!enough || result.alike) return result;
  const rowOf = (i: number): number[] => differing.map(({ steps }) => steps[i] ?? 0);
  const believe = (scatter: number): Belief =>
    updated(
      differing.map(() => PRIOR_PER_STEP),
      notes.map((note, i) => ({ values: [note - mean], design: [rowOf(i)], noise: [[scatter ** 2]] })),
    );
  // What the specs explain is no scatter: first taken as if they explained nothing, then from what they leave.
  for (let round = 0; round < SETTLING_ROUNDS; round++) {
    const { mean: worth } = believe(result.scatter);
    const left = notes.map(
      (note, i) => note - mean - rowOf(i).reduce((all, steps, j) => all + steps * (worth[j] as number), 0),
    );
    const freedom = Math.max(1, notes.length - 1 - differing.length);
    const squares = left.reduce((all, v) => all + v * v, 0);
    result.scatter = Math.max(LEAST_SCATTER, Math.sqrt(squares / freedom));
  }
  const belief = believe(result.scatter);
  const group = (spec: SpecKey, better: boolean): Group | undefined =>
    groupOf(
      played.flatMap(({ specs }, i) => ((notes[i] as number) > mean === better ? (specs[spec] ?? []) : [])),
    );
  result.specs = differing.map(({ spec }, i): SpecWorth => {
    const perStep = {
      mean: belief.mean[i] as number,
      uncertainty: Math.sqrt(belief.covariance[i]?.[i] as number),
    };
    const plain = Math.abs(perStep.mean) > 2 * perStep.uncertainty;
    return {
      spec,
      better: group(spec, true),
      worse: group(spec, false),
      perStep,
      says: plain ? (perStep.mean > 0 ? 'more' : 'less') : 'nothing',
    };
  });
  return result;
}
