import { withinTolerance } from '../aim';
import { lineLength, lineStart, type Frame } from '../frame';
import { NOTHING, add, specsOf, sumsOf, type AxisSpecs, type MassSums } from '../mass';
import { middleOf, partNamed, placementSums, zoneOf, type Part, type Placement } from '../part';
import type { ZoneName } from '../sport';
import { chanceWithEnough } from './chance';
import type { ToCheck } from './enough';
import { aroundMiddle, changePieces } from './edit';
import { massErrors, ownErrors, specErrors, type ErrorSource } from './errors';
import { bySpec } from '../spec';
import { usualInstruments, type Instruments, type Readings } from './instruments';
import { LineSearch, mostLines } from './lines';
import { sidesAt, zoneColumn, type ZoneColumn } from './options';
import { planRows, type PlanProblem } from './problem';
import { SCHOOL_RULES } from './schools';
import { SearchState, limitsOf, type Wanted } from './search-state';
import { USUAL_QUANTUM_G, settleAim, type Aimed } from './settle';
import { tableOf } from './table';

/** A frame as it was checked. The quantum is the least that is put on or taken off. */
export interface TrimRequest extends Aimed {
  /** What was built. */
  placements: readonly Placement[];
  /** The shop's parts: what was built of one of them changes by its own pieces, and new pieces are of these. Plain grams if left out. */
  parts?: readonly Part[] | undefined;
  /** What the check was measured with, and what the next one will be; the sport's typical ones, once each, if left out. */
  instruments?: Instruments | undefined;
  /** No piece that is changed or added is smaller, g; as the sport ships if left out. */
  leastG?: number | undefined;
  /** How often the next check is to pass, 0 to 1; nine in ten if left out. */
  wanted?: number | undefined;
}

/** One touch: a placement that gets heavier or lighter or is moved, or a new one. */
export interface TrimChange {
  /** Which placement of those given; undefined for a new one. */
  index: number | undefined;
  /** Grams more or, negative, less; 0 for one that is only moved. */
  massG: number;
  /** How it lies then; undefined where it comes off whole. */
  placement: Placement | undefined;
  zone: ZoneName;
  /** Where its middle lies then, on the side with positive y. */
  xCm: number;
  yCm: number;
}

export interface Trim {
  changes: TrimChange[];
  specs: AxisSpecs;
  withinTolerance: boolean;
  /** Probability that the next check passes with these readings. */
  chance: number;
  readings: Readings;
  touches: number;
}

/** More touches than this are a new plan. */
const MOST_TOUCHES = 2;
/** Of each number of touches so many ways are told. */
const WAYS = 3;
/** A piece may get heavier by so many steps, and be moved by so many cm either way. */
const MOST_STEPS = 12;
const MOST_MOVE_CM = 5;

interface Touch extends TrimChange {
  sums: MassSums;
  errors: () => ErrorSource[];
}

/** A placement with so much more or less of it, lightest first; undefined where it comes off whole. */
function sizesOf(
  frame: Frame,
  placement: Placement,
  quantumG: number,
  part: Part | undefined,
): (Placement | undefined)[] {
  if (!part) {
    const sizes: (Placement | undefined)[] = [];
    for (let step = -Math.floor(placement.massG / quantumG + 1e-9); step <= MOST_STEPS; step++) {
      const left = placement.massG + step * quantumG;
      if (step !== 0) sizes.push(left > 1e-9 ? resized(frame, placement, left / placement.massG) : undefined);
    }
    return sizes;
  }
  const along = (by: 1 | -1): (Placement | undefined)[] => {
    const sizes: (Placement | undefined)[] = [];
    for (let now: Placement = placement; sizes.length < MOST_STEPS;) {
      const next = changePieces(frame, now, part, by);
      // A part of which there is one, or a strip that fills its line, gets no larger.
      if (next && Math.abs(next.massG - now.massG) < 1e-9) break;
      sizes.push(next);
      if (!next) break;
      now = next;
    }
    return sizes;
  };
  return [...along(-1).toReversed(), ...along(1)];
}

/** Everything that one touch can do to a placement. */
function touchesOf(
  frame: Frame,
  placement: Placement,
  index: number,
  { quantumG, leastG, part }: { quantumG: number; leastG: number; part: Part | undefined },
): Touch[] {
  const there = placementSums(frame, placement, part);
  const touch = (after: Placement | undefined, massG: number, errors: () => ErrorSource[]): Touch => {
    const at = after ?? placement;
    const { xCm, yCm } = middleOf(frame, at);
    const sums = after ? add(placementSums(frame, after, part), there, -1) : add(NOTHING, there, -1);
    return { index, massG, placement: after, zone: zoneOf(frame, at), xCm, yCm, sums, errors };
  };
  // What is left is nothing, or a piece that is worth cutting.
  const isPiece = (after: Placement | undefined): boolean =>
    !part || !after || after.massG / after.sides >= leastG - 1e-9;
  const sizes = sizesOf(frame, placement, quantumG, part).filter(isPiece);
  const found = sizes.map((after): Touch => {
    const massG = (after?.massG ?? 0) - placement.massG;
    // What is cut off or put on is as uncertain as so much of it; what stays was checked.
    const changed = Math.abs(massG) / placement.massG;
    return touch(after, massG, () =>
      massErrors([{ sums: add(NOTHING, there, changed), massG: Math.abs(massG), part }], {}),
    );
  });
  if (placement.path === 'slot') return found;
  const { path, startCm, endCm, sides } = placement;
  const low = lineStart(frame, path, sides);
  for (let cm = -MOST_MOVE_CM; cm <= MOST_MOVE_CM; cm++) {
    const [from, to] = [startCm + cm, endCm + cm];
    if (cm === 0 || from < low || to > lineLength(frame, path)) continue;
    // One that lies on the axis stays alone, one beside it keeps its twin.
    if (sidesAt(frame, path, (from + to) / 2) !== sides) continue;
    const after: Placement = { ...placement, startCm: from, endCm: to };
    found.push(touch(after, 0, () => ownErrors(frame, after, part, { cuttingCm: 0 })));
  }
  return found;
}

/** The same placement around its middle with a share of its mass and length, kept on its line. */
function resized(frame: Frame, placement: Placement, share: number): Placement {
  const made = aroundMiddle(placement, share);
  if (made.path === 'slot') return made;
  const { path, sides, startCm, endCm } = made;
  return {
    ...made,
    startCm: Math.max(lineStart(frame, path, sides), startCm),
    endCm: Math.min(lineLength(frame, path), endCm),
  };
}

/** New pieces of a zone, as touches. */
function newTouch(frame: Frame, column: ZoneColumn, option: number, parts: readonly Part[]): Touch {
  const { placement: lay, sums, massG } = column.options[option] as ZoneColumn['options'][number];
  const placement = { ...(lay as () => Omit<Placement, 'id'>)(), id: 'new' } as Placement;
  const part = partNamed(parts, placement.partId);
  const { xCm, yCm } = middleOf(frame, placement);
  const errors = (): ErrorSource[] => [
    ...massErrors([{ sums, massG, part }], {}),
    ...ownErrors(frame, placement, part, {}),
  ];
  return { index: undefined, massG, placement, zone: zoneOf(frame, placement), xCm, yCm, sums, errors };
}

/**
 * The least change to a build that was checked and is to pass: pieces shortened, lengthened, moved or added, at most two touches. For every one or two
 * places the change that comes nearest to the aim; those are ranked by the chance that the next check passes. What is not touched was checked already, so
 * only what is changed counts in the chance, with the scatter of the check that it goes by and of the next one.
 * @returns fewest touches first, then the most likely; empty where nothing has to be done, or where only a new plan would help
 * @throws Fault for impossible specs or aims
 * @example trimPlans({ shape, specs: checked, placements, target })[0].changes[0].massG // −0.5
 */
export function trimPlans(request: TrimRequest): Trim[] {
  const { frame, before } = settleAim(request);
  const { target, quantumG = USUAL_QUANTUM_G, parts, wanted } = request;
  const { leastG = frame.sport.smallestPieceG } = request;
  const once = { ...usualInstruments(frame.sport), taken: bySpec(() => 1) };
  const { instruments = once } = request;
  const partOf = ({ partId }: Placement): Part | undefined => partNamed(parts ?? [], partId);
  if (withinTolerance(target, before)) return [];

  const touches = request.placements.map((p, index) =>
    touchesOf(frame, p, index, { quantumG, leastG, part: partOf(p) }),
  );
  const columns: ZoneColumn[] = [
    ...touches.map((all): ZoneColumn => ({
      zone: undefined,
      options: all.map(({ massG, sums }) => ({ massG, sums })),
      lines: all.map((_, j) => ({ from: j, to: j + 1 })),
      linear: false,
    })),
    ...frame.sport.zones.map((zone) => {
      const there = request.placements.reduce(
        (sum, p) => (zoneOf(frame, p) === zone.name ? sum + p.massG : sum),
        0,
      );
      const room = Math.max(0, zone.capG - there);
      return zoneColumn(frame, zone, {
        pieces: parts ?? quantumG,
        capG: Math.min(MOST_STEPS * quantumG, room),
        leastG,
      });
    }),
  ];
  const base = sumsOf(before);
  const problem: PlanProblem = {
    before,
    base,
    rows: planRows(before, target),
    columns,
    rule: SCHOOL_RULES.free,
  };
  const touchOf = (k: number, option: number): Touch =>
    touches[k]?.[option] ?? newTouch(frame, columns[k] as ZoneColumn, option, parts ?? []);
  const trimOf = (options: readonly (readonly [number, number])[]): Trim => {
    const changed = options.map(([k, option]) => touchOf(k, option));
    const sums = changed.reduce((all, one) => add(all, one.sums), base);
    const specs = specsOf(sums, before.axisCm, before.twistWeight !== undefined);
    const errors = specErrors(
      specs,
      changed.flatMap((one) => one.errors()),
    );
    return {
      changes: changed.map(({ sums: _, errors: __, ...change }) => change),
      specs,
      withinTolerance: withinTolerance(target, specs),
      ...passing({ aim: target, before, after: specs, build: errors, instruments }, wanted),
      touches: changed.length,
    };
  };
  return nearestSets(problem)
    .map(trimOf)
    .filter((trim) => trim.withinTolerance)
    .toSorted((a, b) => a.touches - b.touches || b.chance - a.chance)
    .filter(
      (trim, i, all) => all.slice(0, i).filter((other) => other.touches === trim.touches).length < WAYS,
    );
}

function passing(check: ToCheck, wanted: number | undefined): Pick<Trim, 'chance' | 'readings'> {
  const { chance, readings } = chanceWithEnough(check, wanted);
  return { chance, readings };
}

/** For every one or two columns the choice inside that comes nearest to the aim. */
function nearestSets(problem: PlanProblem): (readonly [number, number])[][] {
  const table = tableOf(problem);
  const state = new SearchState(table, Infinity);
  const limits = limitsOf(0, 0);
  const sets: number[][] = [];
  for (let size = 1, from: number[][] = [[]]; size <= MOST_TOUCHES; size++) {
    from = from.flatMap((set) =>
      state.all.filter((place) => place > (set.at(-1) ?? -1)).map((place) => [...set, place]),
    );
    sets.push(...from);
  }
  const found: (readonly [number, number])[][] = [];
  for (const set of sets) {
    let best: Int32Array | undefined;
    let wanted: Wanted = { limits, near: Infinity, massG: Infinity };
    const take = (options: Int32Array): Wanted => {
      const judged = state.judge(options);
      if (judged.mustSteps > 0 || judged.wantSteps > 0 || judged.nearSteps > wanted.near) return wanted;
      best = judged.options;
      wanted = { limits, near: judged.nearSteps - 1, massG: Infinity };
      return wanted;
    };
    if (mostLines(table, set) <= MOST_TOUCHES) new LineSearch(state, wanted, take).run(set);
    if (!best) continue;
    const options = best;
    found.push(set.map((place) => [table.columns[place]?.index ?? 0, options[place] as number] as const));
  }
  return found;
}
