import { noticeableStep } from '../compare';
import { inverse } from '../learn';
import { NOTE_USUALS, noteOf, type SessionWith } from '../play';
import { SPEC_KEYS } from '../spec';
import { dataOf, type AnySport } from '../sport';
import type { StringKind } from '../part';
import { meanOf } from '../units';

/** What is changed from session to session: specs, the tension of strings, and how soft they are. */
export const CHANGED = [...SPEC_KEYS, 'tension', 'softness'] as const;
export type Changed = (typeof CHANGED)[number];

/** A session with the frame and the strings that it was played with. */
export interface SessionPlayed extends SessionWith {
  /** Mean of mains and crosses, kg. */
  tensionKg?: number | undefined;
  strings?: StringKind | undefined;
}

/** How soft strings are, the stiffest first (common practice). */
const SOFTNESS: Record<StringKind, number> = { polyester: 0, nylon: 1, gut: 2 };
/** The value of what is changed, in its own unit: specs in theirs, tension in kg, softness in kinds. */
export function valueOf({ specs, tensionKg, strings }: SessionPlayed, what: Changed): number | undefined {
  if (what === 'tension') return tensionKg;
  return what === 'softness' ? strings && SOFTNESS[strings] : specs[what];
}

/** One step of what is changed, in its own unit: what a hand notices, or what tension is changed by. */
export function stepOf(sport: AnySport, what: Changed, around: number): number {
  const { noticeable, stringing } = dataOf(sport);
  if (what === 'softness') return 1;
  return what === 'tension' ? (stringing?.stepKg[0] ?? 1) : noticeableStep(noticeable, what, around);
}

/** What the sessions of one player say of the note per step of each change: precision and precision-weighted estimate, other things being equal. */
export interface OwnWord {
  precision: number[][];
  weighted: number[];
  /** The mean that each step is counted from, and the ends of what was played, in steps from it; undefined where that was not known or did not differ. */
  around: (Around | undefined)[];
  /** Each session's steps from that mean. */
  steps: (number[] | undefined)[];
}
export interface Around {
  mean: number;
  step: number;
  least: number;
  most: number;
}

const times = (a: readonly number[], b: readonly number[]): number =>
  a.reduce((all, v, i) => all + v * (b[i] ?? 0), 0);
const isSame = (a: number, b: number): boolean => Math.abs(a - b) < 1e-9;

/** Sessions with the same frame and strings share what it feels like. */
const setupOf = (session: SessionPlayed): string => CHANGED.map((what) => valueOf(session, what)).join();

/** Which sessions were played with each setup. */
function setupsOf(played: readonly SessionPlayed[]): Map<string, number[]> {
  const setups = new Map<string, number[]>();
  for (const [i, one] of played.entries()) {
    const setup = setupOf(one);
    const same = setups.get(setup);
    if (same) same.push(i);
    else setups.set(setup, [i]);
  }
  return setups;
}

/** How notes differ: within one setup from session to session, and what each setup feels like beside what it measures; standard deviations. */
export interface NoteSpread {
  day: number;
  feel: number;
}
const DAY = { least: NOTE_USUALS.leastDay, unknown: 0.5 };
const FEEL = { least: 0.1, unknown: NOTE_USUALS.feel };
/** Setups beside the first of their players, below which what they feel like is not estimated. */
const LEAST_SETUPS = 16;
const meanSquare = (squares: number, freedom: number): number => (freedom > 0 ? squares / freedom : NaN);

/**
 * How notes of many players differ, by the analysis of variance (setups within players; Searle, Linear Models, 1971, ch. 9; from memory).
 * @param explained what is known to come of changes, session by session: what is not known counts as feel, which errs to the careful side
 * @example noteSpread([]) // { day: 0.5, feel: 0.35 }: nobody knows yet
 */
export function noteSpread(
  players: readonly { played: readonly SessionPlayed[] }[],
  explained: readonly (readonly number[])[] = [],
): NoteSpread {
  const within = { squares: 0, freedom: 0 };
  const between = { squares: 0, freedom: 0, sizes: 0 };
  for (const [of, { played }] of players.entries()) {
    const notes = played.map(({ session }, i) => noteOf(session) - (explained[of]?.[i] ?? 0));
    const setups = [...setupsOf(played).values()].map((own) => own.map((i) => notes[i] ?? 0));
    const mean = meanOf(notes);
    for (const own of setups) {
      const setupMean = meanOf(own);
      within.squares += own.reduce((all, note) => all + (note - setupMean) ** 2, 0);
      within.freedom += own.length - 1;
      between.squares += own.length * (setupMean - mean) ** 2;
    }
    between.freedom += setups.length - 1;
    between.sizes += notes.length - setups.reduce((all, { length }) => all + length ** 2, 0) / notes.length;
  }
  const daily = meanSquare(within.squares, within.freedom);
  const day = Number.isNaN(daily) ? DAY.unknown : Math.max(DAY.least, Math.sqrt(daily));
  if (between.freedom < LEAST_SETUPS || Number.isNaN(daily)) return { day, feel: FEEL.unknown };
  const feel = (meanSquare(between.squares, between.freedom) - daily) / (between.sizes / between.freedom);
  return { day, feel: Math.min(FEEL.unknown, Math.sqrt(Math.max(FEEL.least ** 2, feel))) };
}

/**
 * What one player's sessions say. The note is a sum of a level of the player's own, of what was changed, in steps, of what each setup feels like, of time, and of noise: level, feel and
 * time are taken out by generalised least squares (Aitken 1936), so that only what changed within a player counts.
 * @param played the first played first @param spread how notes differ, see {@link noteSpread}
 */
export function ownWord(
  sport: AnySport,
  played: readonly SessionPlayed[],
  { day, feel }: NoteSpread,
): OwnWord {
  const n = played.length;
  const columns = CHANGED.map((what) => {
    const known = played.flatMap((one) => valueOf(one, what) ?? []);
    if (known.length === 0) return undefined;
    const mean = meanOf(known);
    const step = stepOf(sport, what, mean) || 1;
    const steps = played.map((one) => ((valueOf(one, what) ?? mean) - mean) / step);
    const [least, most] = [Math.min(...steps), Math.max(...steps)];
    return isSame(least, most) ? undefined : { steps, around: { mean, step, least, most } };
  });
  const setups = setupsOf(played);
  const noise = day ** 2;
  /** The inverse of the noise times a column: independent noise, and what each setup feels like. */
  const calm = (column: readonly number[]): number[] => {
    const out = column.map((v) => v / noise);
    for (const own of setups.values()) {
      const share = feel ** 2 / (noise + own.length * feel ** 2);
      const sum = own.reduce((all, i) => all + (column[i] ?? 0), 0);
      for (const i of own) out[i] = ((column[i] ?? 0) - share * sum) / noise;
    }
    return out;
  };
  const level = played.map(() => 1);
  const time = played.map((_, i) => (n > 1 ? (2 * i) / (n - 1) - 1 : 0));
  const [calmLevel, calmTime] = [calm(level), calm(time)];
  const apart = inverse([
    [times(level, calmLevel), times(level, calmTime)],
    [times(time, calmLevel), times(time, calmTime) + 1 / NOTE_USUALS.trend ** 2],
  ]);
  /** The same, with level and time taken out. */
  const within = (column: readonly number[]): number[] => {
    const out = calm(column);
    const [a, b] = [times(column, calmLevel), times(column, calmTime)];
    const by = [0, 1].map((k) => (apart[k]?.[0] ?? 0) * a + (apart[k]?.[1] ?? 0) * b);
    return out.map((v, i) => v - (calmLevel[i] ?? 0) * (by[0] ?? 0) - (calmTime[i] ?? 0) * (by[1] ?? 0));
  };
  const notes = played.map(({ session }) => noteOf(session));
  const parted = columns.map((column) => (column ? within(column.steps) : undefined));
  return {
    precision: columns.map((_, i) =>
      columns.map((column, j) => (parted[i] && column && parted[j] ? times(parted[i], column.steps) : 0)),
    ),
    weighted: parted.map((column) => (column ? times(column, notes) : 0)),
    around: columns.map((column) => column?.around),
    steps: columns.map((column) => column?.steps),
  };
}
