export const STATIONS = ['measure', 'compare', 'aim', 'plan', 'build', 'check', 'play'] as const;
export type Station = (typeof STATIONS)[number];

/** Done; the next to do; waiting for another station; or not part of this version. */
export type StationState = 'done' | 'due' | 'blocked' | 'later';

/** What a fitting has so far. */
export interface FittingFacts {
  measured: boolean;
  /** At least one setup is set beside the frame. */
  compared: boolean;
  aimed: boolean;
  /** A plan is chosen for the newest aim and the newest measurement. */
  planned: boolean;
  stepsDone: number;
  stepsInAll: number;
}

/**
 * The state of each station and the next one to do. A station may be revisited at any time; `blocked` names what is missing first.
 * @example stationStates({ measured: true, compared: false, … }).next // 'compare'
 */
export function stationStates(facts: FittingFacts): {
  states: Record<Station, StationState>;
  next: Station | undefined;
} {
  const { measured, compared, aimed, planned, stepsDone, stepsInAll } = facts;
  const built = planned && stepsInAll > 0 && stepsDone >= stepsInAll;
  const state = (done: boolean, ready: boolean): StationState => (done ? 'done' : ready ? 'due' : 'blocked');
  const states: Record<Station, StationState> = {
    measure: state(measured, true),
    // An aim set by hand makes the comparison unnecessary.
    compare: state(measured && (compared || aimed), measured),
    aim: state(measured && aimed, measured),
    plan: state(planned, measured && aimed),
    build: state(built, planned),
    check: 'later',
    play: 'later',
  };
  return { states, next: STATIONS.find((station) => states[station] === 'due') };
}
