import type { Mark, StepKind } from '../build';
import {
  countedSessions,
  signOffOf,
  type MarkFact,
  type MeasurementFact,
  type Purpose,
  type SessionFact,
  type SignOffFact,
} from './facts';

export const STATIONS = ['measure', 'compare', 'aim', 'plan', 'build', 'check', 'play'] as const;
export type Station = (typeof STATIONS)[number];

/** Done; the next to do; waiting until something has set; or standing on another station that is not done. */
export const STATION_STATES = ['done', 'due', 'waiting', 'blocked'] as const;
export type StationState = (typeof STATION_STATES)[number];

/** Why a round was begun. */
export const ROUND_REASONS = ['first', 'programme', 'complaint', 'repair', 'back', 'reopened'] as const;
export type RoundReason = (typeof ROUND_REASONS)[number];

/** How a fitting was closed. */
export const CLOSINGS = ['handed-over', 'given-up', 'moved'] as const;
export type Closing = (typeof CLOSINGS)[number];

/** The records of a round, each list in the order in which it arrived: clocks are not asked which came first. */
export interface RoundRecords {
  /** The measurement that the fitter made the start of the round. */
  startId: string | null;
  /** At least one setup is set beside the frame. */
  compared: boolean;
  measurements: readonly MeasurementFact[];
  aims: readonly { id: string }[];
  plans: readonly {
    id: string;
    aimId: string;
    /** The measurement it starts from: the start of the round, or for a trim the check that it corrects. */
    startId: string;
    steps: readonly { key: string; kind: StepKind; waitMinutes?: number | undefined }[];
  }[];
  marks: readonly MarkFact[];
  signOffs: readonly SignOffFact[];
  sessions: readonly SessionFact[];
  /** The programme that goes on in the round: played once more before its next step, or not. */
  programme?: { onceMore: boolean } | undefined;
}

/** Why a plan does not stand any more. */
export const LAPSES = ['another-plan', 'another-aim', 'another-start'] as const;
export type Lapse = (typeof LAPSES)[number];

/** Why something is next. */
export const NEXT_BECAUSE = [
  'nothing-measured',
  'nothing-beside',
  'no-aim',
  'no-plan',
  'plan-lapsed',
  'steps-left',
  'setting',
  'built',
  'not-played',
  'step-due',
] as const;
export type NextBecause = (typeof NEXT_BECAUSE)[number];

/** What is to do next, and why. `until` is given while something sets. */
export interface NextStep {
  station: Station;
  because: NextBecause;
  /** The bench step that is due. */
  step?: string;
  until?: string;
}

export interface RoundState {
  stations: Record<Station, StationState>;
  /** The station that a blocked one stands on. */
  blockedBy: Partial<Record<Station, Station>>;
  next: NextStep | undefined;
  aimId: string | undefined;
  planId: string | undefined;
  lapsed: Record<string, Lapse>;
  /** How each step of the standing plan stands, and since when; steps without a mark are open. */
  steps: Record<string, { mark: Mark; at: string }>;
  built: boolean;
}

const MINUTE_MS = 60_000;

/** The plan that stands, and why each other one does not. Every plan stays stored. */
function standingPlan(
  { plans, startId, measurements }: RoundRecords,
  aimId: string | undefined,
): { plan: RoundRecords['plans'][number] | undefined; lapsed: Record<string, Lapse> } {
  const checks = new Set(measurements.filter((m) => m.purpose === 'check' && m.counts).map((m) => m.id));
  const lapsed: Record<string, Lapse> = {};
  let plan: RoundRecords['plans'][number] | undefined;
  for (const one of plans) {
    if (one.aimId !== aimId) lapsed[one.id] = 'another-aim';
    // A trim starts from a check, and stands as long as its aim does.
    else if (one.startId !== startId && !checks.has(one.startId)) lapsed[one.id] = 'another-start';
    else {
      if (plan) lapsed[plan.id] = 'another-plan';
      plan = one;
    }
  }
  return { plan, lapsed };
}

/** The last mark of each step of a plan. */
function marksOf({ marks }: RoundRecords, planId: string | undefined): RoundState['steps'] {
  const last: RoundState['steps'] = {};
  for (const { planId: of, step, mark, at } of marks) {
    // Said once more, with a reading or with what was built, it keeps its time.
    if (of === planId && last[step]?.mark !== mark) last[step] = { mark, at };
  }
  return last;
}

/** Whether a bench step is over by its last mark: done or skipped. */
export const isOver = (mark: Mark | undefined): boolean => mark !== undefined && mark !== 'open';

/**
 * The state of a round: each station, what is next and why, which aim and which plan stand. Worked out from all records of the round; a trial, step, check or later
 * measurement never makes a plan lapse, and marks stay with their plan.
 * @param now ISO time; only what still sets depends on it
 * @param closed whether the fitting is closed: then nothing is next
 * @example roundState({ ...records, startId: 'm1' }, now).next?.station // 'compare'
 */
export function roundState(records: RoundRecords, now: string, closed = false): RoundState {
  const aimId = records.aims.at(-1)?.id;
  const { plan, lapsed } = standingPlan(records, aimId);
  const steps = marksOf(records, plan?.id);
  const left = plan?.steps.filter(({ key }) => !isOver(steps[key]?.mark)) ?? [];
  const until = settingUntil(plan, steps, left.length > 0, now);
  const built = plan !== undefined && left.length === 0;
  const signed = plan && signOffOf(records, plan.id);
  const sessions = countedSessions(records.sessions);
  const measured = records.startId !== null;
  const aimed = aimId !== undefined;

  const blockedBy: RoundState['blockedBy'] = {};
  const stations = {} as RoundState['stations'];
  const set = (station: Station, done: boolean, standsOn: Station | undefined, waits = false): void => {
    const ready = standsOn === undefined || stations[standsOn] === 'done';
    stations[station] = done ? 'done' : !ready ? 'blocked' : waits ? 'waiting' : 'due';
    if (!done && !ready) blockedBy[station] = standsOn;
  };
  set('measure', measured, undefined);
  // An aim set by hand makes the comparison unnecessary.
  set('compare', measured && (records.compared || aimed), 'measure');
  set('aim', measured && aimed, 'measure');
  set('plan', plan !== undefined, 'aim');
  set('build', built, 'plan', until !== undefined);
  // Signed off outside the aim it is done too: that is the fitter's to decide, with a note. With a step opened again, or the check measured again, it is not.
  set('check', built && signed !== undefined, 'build');
  set('play', sessions.length > 0, 'check');

  const { programme } = records;
  const played = sessions.length > 0 && !programme?.onceMore;
  // A programme plays the frame as it is measured, and then says what is next: neither aim nor plan is missing.
  const follows = programme !== undefined && measured && (!plan || stations.check === 'done');
  if (follows) stations.play = 'due';
  const due = STATIONS.find((s) => stations[s] === 'due' || stations[s] === 'waiting');
  const station = closed ? undefined : follows ? 'play' : due;
  const because = (): NextBecause => {
    switch (station as Station) {
      case 'measure':
        return 'nothing-measured';
      case 'compare':
        return 'nothing-beside';
      case 'aim':
        return 'no-aim';
      case 'plan':
        return records.plans.length > 0 ? 'plan-lapsed' : 'no-plan';
      case 'build':
        return until === undefined ? 'steps-left' : 'setting';
      case 'check':
        return 'built';
      case 'play':
        return follows && played ? 'step-due' : 'not-played';
    }
  };
  const open = left[0]?.key;
  const next: NextStep | undefined = station && {
    station,
    because: because(),
    ...(station === 'build' && open !== undefined ? { step: open } : {}),
    ...(station === 'build' && until !== undefined ? { until } : {}),
  };
  return { stations, blockedBy, next, aimId, planId: plan?.id, lapsed, steps, built };
}

/** Until when something sets that was done last, while steps are left; undefined where nothing does. */
function settingUntil(
  plan: RoundRecords['plans'][number] | undefined,
  steps: RoundState['steps'],
  stepsLeft: boolean,
  now: string,
): string | undefined {
  if (!plan || !stepsLeft) return undefined;
  const last = Math.max(...waitsOf(plan.steps, steps).map(({ until }) => Date.parse(until)));
  return last > Date.parse(now) ? new Date(last).toISOString() : undefined;
}

/** Something that sets, dries or cures: from when its step was done until when. */
export interface Wait {
  step: string;
  from: string;
  until: string;
}

/** What sets of the steps that are done, whether it is over or not. @example waitsOf(plan.steps, state.steps)[0].until // '2026-11-26T10:00:00.000Z' */
export const waitsOf = (
  planned: readonly { key: string; waitMinutes?: number | undefined }[],
  marked: RoundState['steps'],
): Wait[] =>
  planned.flatMap(({ key, waitMinutes }) => {
    const done = marked[key];
    if (!waitMinutes || done?.mark !== 'done') return [];
    const until = new Date(Date.parse(done.at) + waitMinutes * MINUTE_MS).toISOString();
    return [{ step: key, from: done.at, until }];
  });

/** Where a measurement could serve several ends: the choices, and the one that fits what is due. One choice needs no question. */
export interface PurposeChoice {
  suggested: Purpose;
  choices: readonly Purpose[];
}

/**
 * What a measurement taken now may be for. With no plan that stands it is the start of the round: that is plain.
 * @example purposeChoice(records, state).choices // ['found']
 */
export function purposeChoice(
  records: Pick<RoundRecords, 'plans'>,
  state: Pick<RoundState, 'stations' | 'built'> & {
    planId?: string | null | undefined;
    next?: Pick<NextStep, 'step'> | null | undefined;
  },
): PurposeChoice {
  const plan = records.plans.find(({ id }) => id === state.planId);
  if (!plan) return { suggested: 'found', choices: ['found'] };
  if (state.stations.check === 'done') {
    return { suggested: 'later', choices: ['later', 'check', 'found'] };
  }
  const due = plan.steps.find(({ key }) => key === state.next?.step)?.kind;
  const choices = ['trial', 'step', 'check', 'found'] as const;
  if (state.built || due === 'final-check') return { suggested: 'check', choices };
  return { suggested: due === 'trial' || due === 'measure-trial' ? 'trial' : 'step', choices };
}
