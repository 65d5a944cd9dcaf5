import type { Day } from './felt';

/** What was done about a programme, in the order of arrival. */
export interface ProgrammeDone {
  what: 'once-more' | 'pause' | 'resume' | 'day' | 'end' | 'step' | 'own-step';
  /** How many sessions of it there were then. */
  sessions: number;
  day: Day | null;
}
export interface ProgrammeState {
  state: 'running' | 'paused' | 'ended';
  /** It is to be played once more before anything else is changed. */
  onceMore: boolean;
  day: Day;
}

/**
 * How a programme stands, from all that was done about it. Ended it stays; once more holds until another session is noted or a step is taken all the same.
 * @param sessions how many there are now
 * @example programmeState([{ what: 'pause', sessions: 2, day: null }], 2).state // 'paused'
 */
export function programmeState(done: readonly ProgrammeDone[], sessions: number): ProgrammeState {
  const now: ProgrammeState = { state: 'running', onceMore: false, day: 'usual' };
  for (const { what, sessions: then, day } of done) {
    if (what === 'end') now.state = 'ended';
    if (now.state === 'ended') continue;
    if (what === 'pause') now.state = 'paused';
    if (what === 'resume') now.state = 'running';
    if (what === 'day' && day) now.day = day;
    if (what === 'once-more') now.onceMore = then === sessions;
    if (what === 'step' || what === 'own-step') now.onceMore = false;
  }
  return now;
}
