import { programmeState, type ProgrammeDone, type ProgrammeState } from '../play/programme-state';
import { countedSessions, type SessionFact } from './facts';
import { roundState, type RoundRecords, type RoundState } from './round';

/** A round of a frame, as a programme counts it. */
interface PlayedRound {
  id: string;
  sessions: readonly SessionFact[];
}
/** A programme on a frame, and what was done about it. */
export interface ProgrammeRecords {
  /** The round in which it begins, and how many sessions of that came before. */
  roundId: string;
  sessionsBefore: number;
  events: readonly ProgrammeDone[];
}
export interface ProgrammeStanding extends ProgrammeState {
  /** Sessions since it began, discarded ones too: what was done about it is counted by them. */
  sessions: number;
}

/**
 * How a programme stands in the rounds of its frame.
 * @param rounds of its frame, the first one first
 * @example programmeStanding({ roundId: 'r1', sessionsBefore: 1, events: [] }, rounds).sessions // 2
 */
export function programmeStanding(
  { roundId, sessionsBefore, events }: ProgrammeRecords,
  rounds: readonly PlayedRound[],
): ProgrammeStanding {
  const sessions = roundsSince(roundId, rounds).flatMap((round) => round.sessions).length - sessionsBefore;
  return { ...programmeState(events, sessions), sessions };
}

/** The round in which a programme begins, and all that came after. */
export function roundsSince<R extends { id: string }>(roundId: string, rounds: readonly R[]): readonly R[] {
  return rounds.slice(
    Math.max(
      0,
      rounds.findIndex(({ id }) => id === roundId),
    ),
  );
}

/** What the state of a frame in a fitting is worked out from. */
export interface FrameRecords {
  /** The first one first. */
  rounds: readonly PlayedRound[];
  programmes: readonly ProgrammeRecords[];
}

/** The programme that goes on on a frame, or is paused: at most one of them is not ended. */
export function programmeOn<P extends ProgrammeRecords>(
  programmes: readonly P[],
  rounds: readonly PlayedRound[],
): { programme: P; standing: ProgrammeStanding } | undefined {
  for (const programme of programmes) {
    const standing = programmeStanding(programme, rounds);
    if (standing.state !== 'ended') return { programme, standing };
  }
  return undefined;
}

/**
 * The state of a round of a frame. In the frame's last round a programme that goes on says what is next.
 * @param records of the round; the last one of its frame where `on` is given
 * @param on the programme that is not ended, and the rounds of the frame
 * @param now ISO time @param closed whether the fitting is closed: then nothing is next
 */
export function stateInFrame(
  records: Omit<RoundRecords, 'programme'>,
  on: { frame: FrameRecords; roundId: string } | undefined,
  now: string,
  closed: boolean,
): RoundState {
  const found = on && programmeOn(on.frame.programmes, on.frame.rounds);
  if (!found || found.standing.state !== 'running') return roundState(records, now, closed);
  const { programme, standing } = found;
  // Sessions that came before it began are no answer to it.
  const unplayed =
    on.roundId === programme.roundId &&
    countedSessions(records.sessions.slice(programme.sessionsBefore)).length === 0;
  return roundState({ ...records, programme: { onceMore: standing.onceMore || unplayed } }, now, closed);
}
