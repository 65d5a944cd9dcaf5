import { noticeableStep } from '../compare';
import { updated, type Belief } from '../learn';
import { SPEC_KEYS, type KnownSpecs, type SpecKey } from '../spec';
import { dataOf, type AnySport } from '../sport';
import { meanOf } from '../units';
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
  /** Plain enough to be said: more than 2.5 standard uncertainties from nothing, when what a frame feels like and what time brings could explain it as well. */
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
/** What a note owes to what, as far as nobody knows better (conventions): one player's sessions and a whole shop's are read by the same. */
export const NOTE_USUALS = {
  /** A noticeable step may change a note by this much, either way. Pulls small samples toward nothing. */
  perStep: 0.15,
  /** A frame may feel better or worse by this much, whatever it measures: all sessions with it are alike in that. */
  feel: 0.35,
  /** Players get better, or worse, with time: by this much from the middle of the sessions to either end. */
  trend: 0.5,
  /** Notes of one frame differ from day to day by this much at the least: weather, opponent, sleep. */
  leastDay: 0.25,
} as const;
const { perStep: PRIOR_PER_STEP, feel: FEEL, trend: TREND, leastDay: LEAST_SCATTER } = NOTE_USUALS;
/** Of up to four specs one lies beyond two standard uncertainties too often by chance alone: what is said lies beyond so many. */
const PLAIN = 2.5;
const SETTLING_ROUNDS = 8;

const spreadOf = (values: readonly number[]): number => {
  const mean = meanOf(values);
  return values.length < 2
    ? 0
    : Math.sqrt(values.reduce((all, v) => all + (v - mean) ** 2, 0) / (values.length - 1));
};
const groupOf = (values: readonly number[]): Group | undefined =>
  values.length === 0 ? undefined : { count: values.length, mean: meanOf(values), spread: spreadOf(values) };

/**
 * What went with better and worse notes of one player in one sport. Counts and spread say what was; the model says what of it may be the specs: the note as a sum of specs,
 * each in noticeable steps from this player's mean, of what each frame feels like beside its specs, and of time, with normal priors of mean 0 (ridge regression; Hoerl and
 * Kennard 1970; random effects of groups, Laird and Ware 1982; see {@link updated}). Assumed: effects add up and are straight over what was played. Nothing is said below {@link LEAST_SESSIONS} sessions, nor of a spec that did not differ.
 * @param played sessions, the first played first; a session whose frame lacks a spec counts for the others
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
  const frameOf = played.map(({ specs }) => JSON.stringify(SPEC_KEYS.map((key) => specs[key])));
  const distinct = [...new Set(frameOf)];
  const result: WhatWorks = {
    sessions: played.length,
    missing: Math.max(0, LEAST_SESSIONS - played.length),
    alike: distinct.length < LEAST_DIFFERENT || differing.length === 0,
    scatter: Math.max(LEAST_SCATTER, spreadOf(notes)),
    specs: [],
  };
  if (!enough || result.alike) return result;
  const late = (i: number): number => (2 * i) / (played.length - 1) - 1;
  const rowOf = (i: number): number[] => [...differing.map(({ steps }) => steps[i] ?? 0), late(i)];
  const groups = distinct.map((frame) => played.flatMap((_, i) => (frameOf[i] === frame ? [i] : [])));
  /** Sessions with one frame share what it feels like: that is common to their noise. */
  const believe = (scatter: number): Belief =>
    updated(
      [...differing.map(() => PRIOR_PER_STEP), TREND],
      groups.map((own) => ({
        values: own.map((i) => (notes[i] as number) - mean),
        design: own.map(rowOf),
        noise: own.map((_, a) => own.map((__, b) => FEEL ** 2 + (a === b ? scatter ** 2 : 0))),
      })),
    );
  // What specs, time and frames explain is no scatter: first taken as if they explained nothing, then from what they leave (expectation and maximisation; Dempster et al. 1977).
  const freedom = Math.max(1, notes.length - 2 - differing.length);
  for (let round = 0; round < SETTLING_ROUNDS; round++) {
    const { mean: worth } = believe(result.scatter);
    const squares = groups.reduce((all, own) => {
      const left = own.map(
        (i) =>
          (notes[i] as number) - mean - rowOf(i).reduce((sum, x, k) => sum + x * (worth[k] as number), 0),
      );
      const known = own.length * FEEL ** 2 + result.scatter ** 2;
      const feels = (FEEL ** 2 * left.reduce((sum, v) => sum + v, 0)) / known;
      const unsure = (FEEL * result.scatter) ** 2 / known;
      return all + left.reduce((sum, v) => sum + (v - feels) ** 2 + unsure, 0);
    }, 0);
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
    const plain = Math.abs(perStep.mean) > PLAIN * perStep.uncertainty;
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
