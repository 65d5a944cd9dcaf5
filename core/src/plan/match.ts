import type { Aim } from '../aim';
import { Fault } from '../fault';
import { settleFrame, type FrameShape } from '../frame';
import { requireSpecs, withAxis, type AxisSpecs, type SpecKey, type Specs } from '../mass';
import type { Part } from '../part';
import { SPEC_KEYS, bySpec } from '../spec';
import type { Dress } from '../sport';
import { asFinished, swapsTo } from './change';
import type { Instruments } from './instruments';
import type { Plan } from './made-plan';
import { makePlans } from './plan';
import { commonAim } from './set';

/** A measured frame that is to be made like others. */
export interface FrameToMatch {
  id: string;
  shape: FrameShape;
  specs: Specs;
  /** What was on it when it was measured. */
  dress: Dress;
  instruments?: Instruments | undefined;
}

export interface MatchRequest {
  /** Two to six of one sport. */
  frames: readonly FrameToMatch[];
  /** What every one of them is compared and finished with. */
  dress: Dress;
  /** What must match; twist weight counts only where every frame's is known. */
  keys: readonly SpecKey[];
  tolerance: Record<SpecKey, number>;
  /** The target with the least added weight, one of the frames as it is, or numbers of the fitter's own. */
  to: 'least' | { frameId: string } | { specs: Partial<Record<SpecKey, number>> };
  parts: readonly Part[];
  leastG?: number | undefined;
  wanted?: number | undefined;
}

/** A frame of a match: as it is, dressed as all of them, and how it gets to the target. */
export interface MatchedFrame {
  id: string;
  before: AxisSpecs;
  plan: Plan;
}

export interface Matched {
  target: Aim;
  frames: MatchedFrame[];
  /** What is put on all of them together, g; grips and strings that a frame lacks among it. */
  addedG: number;
  /** How likely all of them pass their first check. */
  chance: number;
}

/** The dress in which frames are compared: strung where any of them is strung, and as that one is gripped. @example commonDress([{ dress: {} }, { dress: { strings: true } }]).strings // true */
export function commonDress(frames: readonly Pick<FrameToMatch, 'dress'>[]): Dress {
  const strung = frames.find(({ dress }) => dress.strings);
  return { ...(strung ?? frames[0])?.dress };
}

/** What of a match can be common: all that every frame knows. */
export const matchable = (frames: readonly Pick<FrameToMatch, 'specs'>[]): SpecKey[] =>
  SPEC_KEYS.filter((key) => frames.every(({ specs }) => specs[key] !== undefined));

/** Where a frame lies already, nothing is put on. */
const written = (value: number, step: number): number => Number((Math.round(value / step) * step).toFixed(6));

/**
 * Frames brought to one target, each in whole pieces by its own plan: each frame's errors and readings are its own, so that the chances of all multiply.
 * @throws Fault `set-size`, or what is wrong with a frame's specs
 * @example matchFrames({ frames: [light, heavy], dress, keys: ['massG'], tolerance, to: 'least', parts }).frames[1].plan.placements // []
 */
export function matchFrames(request: MatchRequest): Matched {
  const { frames, dress, tolerance, to, parts, leastG, wanted } = request;
  if (frames.length < 2 || frames.length > 6) throw new Fault({ code: 'set-size', path: 'frames' });
  const settled = frames.map((frame, i) => {
    const own = settleFrame(frame.shape);
    const specs = requireSpecs(withAxis(frame.specs, own.sport.axisCm), own.lengthCm, `frames.${i}.specs`);
    return { ...frame, own, before: asFinished(own, specs, frame.dress, dress).specs };
  });
  const able = matchable(settled.map(({ before }) => ({ specs: before })));
  const keys = request.keys.filter((key) => able.includes(key));
  const { aimStep } = (settled[0] as (typeof settled)[number]).own.sport;
  const target: Aim = {};
  for (const [key, value] of Object.entries(goalOf(to, settled, keys)) as [SpecKey, number][])
    target[key] = { value: to === 'least' ? written(value, aimStep[key]) : value, tolerance: tolerance[key] };
  const matched = settled.map(({ id, shape, specs, dress: now, instruments, before }): MatchedFrame => {
    const [plan] = makePlans({
      shape,
      specs,
      target,
      parts,
      schools: ['free'],
      dress: now,
      swaps: swapsTo(now, dress),
      ...(instruments ? { instruments } : {}),
      ...(leastG === undefined ? {} : { leastG }),
      ...(wanted === undefined ? {} : { wanted }),
    });
    return { id, before, plan: plan as Plan };
  });
  return {
    target,
    frames: matched,
    addedG: matched.reduce((sum, { plan }) => sum + plan.addedG, 0),
    chance: matched.reduce((all, { plan }) => all * plan.chance, 1),
  };
}

/** The values that all are brought to. */
function goalOf(
  to: MatchRequest['to'],
  settled: readonly { id: string; shape: FrameShape; before: AxisSpecs }[],
  keys: readonly SpecKey[],
): Partial<Record<SpecKey, number>> {
  const only = (specs: Partial<Record<SpecKey, number | undefined>>): Partial<Record<SpecKey, number>> =>
    Object.fromEntries(keys.flatMap((key) => (specs[key] === undefined ? [] : [[key, specs[key]]])));
  if (to !== 'least' && 'specs' in to) return only(to.specs);
  if (to !== 'least') return only(settled.find(({ id }) => id === to.frameId)?.before ?? {});
  return only(
    commonAim(
      settled.map(({ shape, before }) => ({ shape, specs: before })),
      keys,
    ).specs,
  );
}

/**
 * How far frames are apart, spec by spec: the largest less the smallest.
 * @example widthsOf([{ massG: 300, … }, { massG: 303, … }]).massG // 3
 */
export const widthsOf = (frames: readonly AxisSpecs[]): Record<SpecKey, number> =>
  bySpec((key) => {
    const values = frames.flatMap((specs) => specs[key] ?? []);
    return values.length > 0 ? Math.max(...values) - Math.min(...values) : 0;
  });
