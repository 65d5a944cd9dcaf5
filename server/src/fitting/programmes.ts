import {
  Fault,
  asBuiltOf,
  changeOutcome,
  countedSessions,
  jobAfter,
  jobOf,
  newStrings,
  nextStep,
  playedOf,
  programmeStanding,
  readyPlan,
  roundsSince,
  settleFrame,
  trimChain,
  zoneChanges,
  type Frame,
  type Placement,
  type PlayedRound,
  type ProgrammeRequest,
  type Proposal,
  type StringChange,
  type Swap,
  type ZoneChange,
} from '@kevro/core';
import {
  fieldError,
  stepSentence,
  type Carried,
  type FittingView,
  type FrameRecord,
  type Measurement,
  type PartRecord,
  type ProgrammeOutlook,
  type RoundView,
  type StringBed,
} from '@kevro/contract';
import type { ProgrammeEvent, ProgrammeRecord } from '../records/programme';

/** What a round changed on its frame: its build and the trims after it, as built where that was noted. */
function changeOf(frame: Frame, round: RoundView): ZoneChange[] {
  const last = round.plans.find(({ id }) => id === round.state.planId);
  return (last ? trimChain(round, last) : []).flatMap((plan) => {
    const built = asBuiltOf(
      plan.steps,
      round.marks.filter(({ planId }) => planId === plan.id),
    );
    const placements = plan.placements.flatMap((p) => (built.has(p.id) ? (built.get(p.id) ?? []) : p));
    return zoneChanges(frame, { placements, removals: plan.removals });
  });
}

/** What a round did with its strings for a programme. */
function stringsOf(round: RoundView): Pick<PlayedRound, 'strings'> {
  const last = round.plans.find(({ id }) => id === round.state.planId);
  const strings = (last ? trimChain(round, last) : [])
    .flatMap(({ swaps }) => newStrings(swaps)?.job?.step ?? [])
    .at(-1);
  return strings ? { strings } : {};
}

/** A step that is to be made, in weight or in strings. */
export type Step = Pick<Proposal, 'change' | 'strings'>;
export const isStep = ({ change, strings }: Step): boolean => change.length > 0 || strings !== undefined;

/** The rounds of a programme: that in which it began, as the frame was then, and all that came after. */
const playedRounds = (
  frame: Frame,
  { roundId, sessionsBefore }: Pick<ProgrammeRecord, 'roundId' | 'sessionsBefore'>,
  rounds: readonly RoundView[],
): PlayedRound[] =>
  roundsSince(roundId, rounds).map((round, i) => ({
    change: i === 0 ? [] : changeOf(frame, round),
    ...(i === 0 ? {} : stringsOf(round)),
    // Sessions are counted from where it began; discarded ones say nothing.
    sessions: countedSessions(i === 0 ? round.sessions.slice(sessionsBefore) : round.sessions),
  }));

/** Whether an arm was sore in the last session of any frame of a fitting. */
export const wasSoreIn = ({ frames }: Pick<FittingView, 'frames'>): boolean =>
  frames.some(
    ({ rounds }) => countedSessions(rounds.flatMap(({ sessions }) => sessions)).at(-1)?.arm === 'sore',
  );

/** What is to be done on the round before anything new is laid out. */
function waitsFor(round: RoundView): NonNullable<ProgrammeOutlook['next']>['waitsFor'] {
  const { state, startId } = round;
  if (startId === null) return 'measure';
  if (!state.planId) return null;
  if (!state.built) return 'build';
  return state.stations.check === 'done' ? null : 'check';
}

/** Parts for a step: those that were used on the frame already come first, so that tape stays the same tape. */
function partsForStep(rounds: readonly RoundView[], parts: readonly PartRecord[]): PartRecord[] {
  const used = new Set(
    rounds.flatMap(({ plans }) => plans.flatMap((p) => p.placements.map((x) => x.partId))),
  );
  return [...parts.filter(({ id }) => used.has(id)), ...parts.filter(({ id }) => !used.has(id))];
}

/** What lies on a frame as a plan speaks of it: without the words that stand beside a piece there. */
export const piecesOf = (weights: Carried['weights']): Placement[] =>
  weights.map(({ what: _, ...piece }) => piece);

const SAME_STRING: readonly StringChange[] = ['tighter', 'looser', 'newer'];

/** A step laid out on the frame as it is measured now. */
export function layOut(
  frame: FrameRecord,
  rounds: readonly RoundView[],
  from: Measurement,
  { change, strings }: Step,
  bed: StringBed | null,
  shopParts: readonly PartRecord[],
) {
  const settled = settleFrame(frame.shape);
  const all = partsForStep(rounds, shopParts);
  const { placements, removals, short } = readyPlan(settled, piecesOf(frame.weights), change, all);
  const named = new Set([...placements, ...removals.map(({ of }) => of)].map(({ partId }) => partId));
  const parts = all.filter(({ id }) => named.has(id));
  const job = strings ? jobAfter(bed ? jobOf(bed.stringing) : {}, strings) : null;
  // The same string at another tension weighs what it weighed; another one is weighed when it is in.
  const isSame = strings && SAME_STRING.includes(strings.change) && from.dress.strings;
  const swaps: Swap[] = job ? [{ what: 'strings', to: (isSame && from.dress.strings) || true, job }] : [];
  const made = { placements, removals, swaps, parts };
  const { specs } = changeOutcome(settled, from.specs, from.dress, made);
  return { ...made, job, specs, short };
}

/** All that the next step of a programme is worked out from. */
export interface OutlookCase {
  frame: FrameRecord;
  rounds: readonly RoundView[];
  /** What the frame measured when it began, and what it measures now. */
  start: Measurement | undefined;
  standing: Measurement | undefined;
  programme: ProgrammeRecord;
  events: readonly ProgrammeEvent[];
  parts: readonly PartRecord[];
  /** The strings that are in. */
  bed: StringBed | null;
}

/** The next step of a programme, ready to be laid out. It takes a while: in a thread of its own, unless an act needs it. */
export function programmeOutlook({
  frame,
  rounds,
  start,
  standing,
  programme,
  events,
  parts,
  bed,
}: OutlookCase): ProgrammeOutlook {
  const { state, onceMore, day } = programmeStanding({ ...programme, events }, rounds);
  if (state !== 'running' || !start) return { next: null, trouble: null };
  const played = playedRounds(settleFrame(frame.shape), programme, rounds);
  try {
    const request: ProgrammeRequest = {
      programme: programme.name,
      shape: frame.shape,
      specs: start.specs,
      history: playedOf(played, onceMore),
      there: programme.there,
      ...(programme.towards ? { towards: programme.towards } : {}),
      ...(programme.happiest ? { happiest: programme.happiest } : {}),
      day,
      ...(bed ? { bed: { ...jobOf(bed.stringing), isDue: bed.due.length > 0 } } : {}),
    };
    return { next: nextOf(frame, rounds, standing, request, bed, parts), trouble: null };
  } catch (error) {
    if (!(error instanceof Fault)) throw error;
    return { next: null, trouble: error.problems.map((problem) => fieldError(problem).message).join(' ') };
  }
}

/** The next step, ready to be laid on where nothing is to be done before. */
function nextOf(
  frame: FrameRecord,
  rounds: readonly RoundView[],
  from: Measurement | undefined,
  request: ProgrammeRequest,
  bed: StringBed | null,
  parts: readonly PartRecord[],
): NonNullable<ProgrammeOutlook['next']> {
  const round = rounds.at(-1);
  const waits = round ? waitsFor(round) : 'measure';
  const lay = (proposed: Proposal) =>
    isStep(proposed) && waits === null && from
      ? layOut(frame, rounds, from, proposed, bed, parts)
      : undefined;
  let proposal = nextStep(request);
  let laid = lay(proposal);
  // Where no part of the shop goes, a zone takes nothing more: the programme ends there, and says so.
  const closed = (laid?.short ?? []).filter(({ massG }) => massG > 0);
  if (closed.length > 0) {
    const none = Object.fromEntries(closed.map(({ zone }) => [zone, 0]));
    proposal = nextStep({ ...request, caps: { ...request.caps, ...none } });
    laid = lay(proposal);
  }
  const felt = request.history.findLast(({ session }) => session)?.session ?? null;
  return {
    ...proposal,
    felt,
    sentence: stepSentence(frame.shape.sport, { ...proposal, felt, tensionUnit: bed?.stringing.unit }),
    waitsFor: waits,
    ready:
      laid && from
        ? {
            placements: laid.placements,
            removals: laid.removals,
            job: laid.job,
            before: from.specs,
            specs: laid.specs,
            short: laid.short,
          }
        : null,
  };
}
