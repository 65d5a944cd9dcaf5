/** The codes of everything that can be wrong with an input of the core. The sentences stand in `contract`. */
export type FaultCode =
  | 'not-a-number'
  | 'not-positive'
  | 'mass-negative'
  | 'balance-off-frame'
  | 'swing-weight-impossible'
  | 'twist-weight-impossible'
  | 'removal-too-large'
  | 'spot-off-frame'
  | 'part-unknown'
  | 'span-not-positive'
  | 'head-too-large'
  | 'outline-not-a-head'
  | 'outline-hoop-too-wide'
  | 'twist-not-measured'
  | 'tolerance-not-positive'
  | 'share-out-of-range'
  | 'amplitude-out-of-range'
  | 'pendulum-at-balance'
  | 'pendulum-impossible'
  | 'missing-readings'
  | 'capture-incomplete'
  | 'needs-weight-and-balance'
  | 'needs-face-on'
  | 'too-few-rods'
  | 'set-size'
  | 'nothing-stated'
  | 'empty-aim'
  | 'strings-stay'
  | 'no-strings'
  | 'one-lever'
  | 'unlikely'
  | 'tolerance-without-value'
  | 'tolerance-too-large'
  | 'heavier-than-metal'
  | 'band-backwards'
  | 'not-of-this-sport';

/** One thing wrong: what, where in the input, and the values the sentence needs. */
export interface Problem {
  code: FaultCode;
  path: string;
  values?: Record<string, number | string>;
}

/** Thrown by the core on input it cannot compute with. Holds every problem found, never only the first. */
export class Fault extends Error {
  readonly problems: Problem[];

  constructor(...problems: Problem[]) {
    super(problems.map((p) => `${p.code} at ${p.path}`).join('; '));
    this.name = 'Fault';
    this.problems = problems;
  }
}
