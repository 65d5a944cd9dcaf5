import type { Frame } from '../frame';
import type { AxisSpecs } from '../mass';
import type { SpecUncertainty } from '../measure';
import type { Placement } from '../part';
import { changeOutcome, changeUncertainty, dressAfter, type Change, type Swap } from '../plan';
import type { Dress } from '../sport';
import { LAYING, type BenchStep, type StepKind } from './bench-steps';

/** What a build starts from, what it does, and in which steps. */
export interface Building {
  frame: Frame;
  /** The frame as it was measured before, in `dress`, with standard uncertainties. */
  before: AxisSpecs;
  readings: SpecUncertainty;
  dress: Dress;
  change: Change;
  steps: readonly BenchStep[];
  /** Pieces as they were built, by the id of their placement, where that differs from the plan; undefined where one was left out. */
  asBuilt?: ReadonlyMap<string, Placement | undefined> | undefined;
}

/** What lies on a frame after a step: how it differs from the start. */
export interface Stage {
  change: Change;
  /** What is on the frame then. */
  dress: Dress;
}

export interface Expected extends Stage {
  specs: AxisSpecs;
  /** Standard uncertainty, from the measurement before and all that was done since. */
  uncertainty: SpecUncertainty;
}

/** In these steps everything is tried at once, taped on the outside. */
const TRIED: readonly StepKind[] = ['trial', 'measure-trial'];
const BARE_HANDLE: readonly Swap[] = [
  { what: 'overgrips', to: 0 },
  { what: 'baseGrip', to: 'none' },
];

/** What a build has done by the end of a step. @param key the step's; the whole build where there is no such step */
export function stageAfter({ dress, change, steps, asBuilt }: Building, key: string): Stage {
  const at = steps.findIndex((step) => step.key === key);
  const done = at < 0 ? steps : steps.slice(0, at + 1);
  const has = (kind: StepKind): boolean => done.some((step) => step.kind === kind);
  const tried = TRIED.includes(steps[at]?.kind as StepKind);
  const laid = new Set(
    done.filter(({ kind }) => LAYING.includes(kind)).flatMap(({ placementIds }) => placementIds),
  );
  const placements = change.placements
    .filter(({ id }) => tried || laid.has(id))
    .flatMap((p) => (asBuilt?.has(p.id) ? (asBuilt.get(p.id) ?? []) : [p]));
  // Between stripping and gripping anew the handle is bare; a swap counts from its own step on.
  const swaps = change.swaps.filter(
    ({ what }) => has('final-check') || has(what === 'strings' ? 'restring' : 'swap'),
  );
  const bare = has('strip-handle') && !has('regrip') && !has('final-check') ? BARE_HANDLE : [];
  const removals = has('take-off') ? change.removals : [];
  const all = [...swaps, ...bare];
  return { change: { ...change, placements, swaps: all, removals }, dress: dressAfter(dress, all) };
}

/**
 * What scale, board and machine should read after a step of a build: the measurement before it, with all that was put on, changed and taken off by then. In
 * the trial every piece counts, since it is taped on where it is to go.
 * @example expectedAfter(building, 'strip-handle').specs.massG // without base grip and overgrips
 */
export function expectedAfter(building: Building, key: string): Expected {
  const { frame, before, readings, dress } = building;
  const stage = stageAfter(building, key);
  const { specs } = changeOutcome(frame, before, dress, stage.change);
  return { ...stage, specs, uncertainty: changeUncertainty(frame, before, readings, dress, stage.change) };
}
