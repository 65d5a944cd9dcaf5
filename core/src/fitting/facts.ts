import type { Mark } from '../build';

/** What a measurement is for: before work, with pieces taped on, after a bench step, after the build, after play. */
export const PURPOSES = ['found', 'trial', 'step', 'check', 'later'] as const;
export type Purpose = (typeof PURPOSES)[number];

/** A measurement as the facts of a round are worked out from it, in the order of arrival. */
export interface MeasurementFact {
  id: string;
  purpose: Purpose;
  /** False where it was discarded, or another took its place. */
  counts: boolean;
  /** The one that took its place. */
  supersededBy: string | null;
}
export interface MarkFact {
  planId: string;
  step: string;
  mark: Mark;
  at: string;
  measurementId: string | null;
}
export interface SignOffFact {
  planId: string;
  measurementId: string;
  passed: boolean;
}
export interface SessionFact {
  id: string;
  /** False where it was discarded. */
  counts: boolean;
}

/** What a measurement may be for, to be what its frame measures: a trial and a bench step are on the way to something else. */
export const STANDING_PURPOSES: readonly Purpose[] = ['found', 'check', 'later'];

/** A measurement, or the one that took its place after it was corrected; undefined where that was discarded. */
function current<M extends MeasurementFact>(
  measurements: readonly M[],
  id: string | null | undefined,
): M | undefined {
  const seen = new Set<string>();
  let found = measurements.find((m) => m.id === id);
  while (found && found.supersededBy !== null && !seen.has(found.id)) {
    const { id: own, supersededBy } = found;
    seen.add(own);
    found = measurements.find((m) => m.id === supersededBy);
  }
  return found?.counts ? found : undefined;
}

/**
 * What was read at a bench step of a plan: by the last of its marks whose reading still counts, corrections followed.
 * @example readingAt(round, 'p1', 'final-check')?.id // 'm7'
 */
export function readingAt<M extends MeasurementFact>(
  { measurements, marks }: { measurements: readonly M[]; marks: readonly MarkFact[] },
  planId: string,
  step: string,
): M | undefined {
  for (const mark of marks.toReversed()) {
    if (mark.planId !== planId || mark.step !== step) continue;
    const found = current(measurements, mark.measurementId);
    if (found) return found;
  }
  return undefined;
}

/** The step of every plan whose reading judges the build. */
export const CHECK_STEP = 'final-check';

/**
 * The check of a plan's build: what was read at its last step. A sign-off names one too, where no mark does.
 * @example checkOf(round, 'p1')?.id // 'm7'
 */
export function checkOf<M extends MeasurementFact>(
  round: { measurements: readonly M[]; marks: readonly MarkFact[]; signOffs: readonly SignOffFact[] },
  planId: string,
): M | undefined {
  const read = readingAt(round, planId, CHECK_STEP);
  if (read) return read;
  const signed = round.signOffs.findLast((one) => one.planId === planId);
  return current(round.measurements, signed?.measurementId);
}

/**
 * The sign-off of a plan's check. A sign-off of an earlier reading is none of this one: measured again or corrected, it is to be signed off again.
 * @example signOffOf(round, 'p1')?.passed // true
 */
export function signOffOf<S extends SignOffFact>(
  round: {
    measurements: readonly MeasurementFact[];
    marks: readonly MarkFact[];
    signOffs: readonly S[];
  },
  planId: string,
): S | undefined {
  const check = checkOf(round, planId);
  return round.signOffs.findLast((one) => one.planId === planId && one.measurementId === check?.id);
}

/** What a frame measured in a round: its check, else what the round started from. */
export const measuredIn = <M extends MeasurementFact>(round: {
  measurements: readonly M[];
  startId: string | null;
}): M | undefined =>
  round.measurements.findLast(({ purpose, counts }) => counts && purpose === 'check') ??
  round.measurements.find(({ id }) => id === round.startId);

/** Sessions without those that were discarded. */
export const countedSessions = <S extends SessionFact>(sessions: readonly S[]): S[] =>
  sessions.filter(({ counts }) => counts);

/** What may lie in a fitting beside an empty first round. */
export interface WorkFacts {
  rounds: readonly {
    id: string;
    number: number;
    aims: readonly unknown[];
    plans: readonly unknown[];
    sessions: readonly unknown[];
    measurements: readonly { roundId: string | null }[];
  }[];
  programmes: readonly unknown[];
  /** Links for the player to note a session by. */
  links: number;
  /** Follow-ups that were set for it. */
  followUps: number;
}

/**
 * Whether anything was done in a fitting, or on one of its frames, that would be lost with it.
 * @example hasWork({ rounds: [first], programmes: [], links: 1, followUps: 0 }) // true
 */
export const hasWork = ({ rounds, programmes, links, followUps }: WorkFacts): boolean =>
  programmes.length + links + followUps > 0 ||
  rounds.some(
    ({ id, number, aims, plans, sessions, measurements }) =>
      number > 1 ||
      aims.length + plans.length + sessions.length > 0 ||
      measurements.some(({ roundId }) => roundId === id),
  );
