import { noticeableStep } from '../compare';
import { Fault, type Problem } from '../fault';
import { SPEC_KEYS, recoilWeight, unlikely, type AxisSpecs, type SpecKey, type Specs } from '../mass';
import type { KnownSpecs } from '../spec';
import type { SportData } from '../sport';
import { isInside } from './tolerance';

export const PRIORITIES = ['must', 'want', 'free'] as const;
export type Priority = (typeof PRIORITIES)[number];

/** A target value with its tolerance (±) and priority; `want` if left out. */
export interface Target {
  value: number;
  tolerance: number;
  priority?: Priority;
}

export type Aim = Partial<Record<SpecKey, Target>>;

/** What a spec is aimed at; undefined where it is free. @example targetOf({ massG: { value: 348, tolerance: 1, priority: 'free' } }, 'massG') // undefined */
export function targetOf(aim: Aim, spec: SpecKey): Target | undefined {
  const target = aim[spec];
  return target?.priority === 'free' ? undefined : target;
}

/** Whether an aim aims at anything. @example hasTarget({}) // false */
export const hasTarget = (aim: Aim): boolean => SPEC_KEYS.some((key) => targetOf(aim, key) !== undefined);

const tidy = (value: number): number => Number(value.toFixed(6));

/** Values as a fitter of the sport writes an aim. @example asWritten({ massG: 327.86 }, sportData('tennis')) // { massG: 328 } */
export const asWritten = (values: KnownSpecs, { aimStep }: SportData): KnownSpecs =>
  Object.fromEntries(
    SPEC_KEYS.flatMap((key) => {
      const value = values[key];
      return value === undefined ? [] : [[key, tidy(Math.round(value / aimStep[key]) * aimStep[key])]];
    }),
  );

/**
 * An aim part of the way from one's own specs to another's. What is copied, or one's own, stays exact; what lies between is rounded as a fitter
 * of the sport would write it. Specs that the other lacks are left free.
 * @param share 0 (stay) to 1 (copy); half is common for a growing player
 * @throws Fault `share-out-of-range`
 * @example partWay(sportData('tennis'), { massG: 320, … }, { massG: 340 }, 0.5).massG?.value // 330
 */
export function partWay(sport: SportData, own: Specs, other: KnownSpecs, share: number): Aim {
  if (!(share >= 0 && share <= 1)) throw new Fault({ code: 'share-out-of-range', path: 'share' });
  const aim: Aim = {};
  for (const key of SPEC_KEYS) {
    const from = own[key];
    const to = other[key];
    if (from === undefined) continue;
    const exact = to === undefined || share === 0 ? from : share === 1 ? to : undefined;
    const step = sport.aimStep[key];
    aim[key] = {
      value: exact ?? tidy(Math.round((from + share * ((to ?? from) - from)) / step) * step),
      tolerance: sport.tolerance[key],
      priority: to === undefined ? 'free' : 'want',
    };
  }
  return aim;
}

/**
 * What is wrong with an aim for a frame: values, tolerances, whether the numbers can go together, and a twist weight that is aimed at though the
 * frame's own was not measured.
 * @param lengthCm the frame's length @param own the frame's specs
 * @param sport where it is given, values that no frame of it comes near are refused too
 */
export function aimProblems(aim: Aim, lengthCm: number, own: AxisSpecs, sport?: SportData): Problem[] {
  const problems: Problem[] = [];
  for (const key of SPEC_KEYS) {
    const target = aim[key];
    if (!target) continue;
    if (!Number.isFinite(target.value)) problems.push({ code: 'not-a-number', path: `target.${key}.value` });
    else if (!(target.value > 0)) problems.push({ code: 'not-positive', path: `target.${key}.value` });
    if (!(target.tolerance > 0))
      problems.push({ code: 'tolerance-not-positive', path: `target.${key}.tolerance` });
  }
  if (sport && problems.length === 0)
    for (const key of SPEC_KEYS)
      problems.push(...unlikely(sport, key, aim[key]?.value, `target.${key}.value`));
  const active = (key: SpecKey): number | undefined => targetOf(aim, key)?.value;
  if (active('twistWeight') !== undefined && own.twistWeight === undefined) {
    problems.push({ code: 'twist-not-measured', path: 'target.twistWeight.value' });
  }
  if (problems.length > 0) return problems;
  const [massG, balanceCm, swingWeight] = [active('massG'), active('balanceCm'), active('swingWeight')];
  if (balanceCm !== undefined && !(balanceCm < lengthCm)) {
    problems.push({ code: 'balance-off-frame', path: 'target.balanceCm.value', values: { lengthCm } });
  } else if (massG !== undefined && balanceCm !== undefined && swingWeight !== undefined) {
    const recoil = recoilWeight({ massG, balanceCm, swingWeight, axisCm: own.axisCm });
    if (!(recoil > 0)) {
      problems.push({
        code: 'swing-weight-impossible',
        path: 'target.swingWeight.value',
        values: { least: swingWeight - recoil },
      });
    }
  }
  return problems;
}

/** Signed distance of specs from an aim, for the specs that both have. */
export function deviationFrom(aim: Aim, specs: KnownSpecs): KnownSpecs {
  const deviation: KnownSpecs = {};
  for (const key of SPEC_KEYS) {
    const target = aim[key];
    const value = specs[key];
    if (target && value !== undefined) deviation[key] = value - target.value;
  }
  return deviation;
}

/** The spec that misses an aim most for a hand. */
export interface Miss {
  key: SpecKey;
  /** How far over it is, or under where it is less than zero. */
  off: number;
  steps: number;
}
/**
 * The one rule of which spec is worst: of those outside their tolerance the one that is off by the most noticeable steps; undefined where all are inside.
 * @param deviation value less target @param hand the swing weight of the frame, of which a step of it is a share
 * @example worstMiss({ massG: { value: 348, tolerance: 1 } }, { massG: -3 }, sportData('tennis'), 320) // { key: 'massG', off: -3, steps: 1 }
 */
export function worstMiss(aim: Aim, deviation: KnownSpecs, sport: SportData, hand: number): Miss | undefined {
  let worst: Miss | undefined;
  for (const key of SPEC_KEYS) {
    const target = targetOf(aim, key);
    const off = deviation[key];
    if (!target || off === undefined || isInside(target, target.value + off)) continue;
    const steps = Math.abs(off) / noticeableStep(sport.noticeable, key, hand);
    if (!worst || steps > worst.steps) worst = { key, off, steps };
  }
  return worst;
}

/** Whether each spec of the aim that is not free lies within its tolerance; a spec that is not known does not. */
export function withinTolerance(aim: Aim, specs: KnownSpecs): boolean {
  return SPEC_KEYS.every((key) => {
    const target = targetOf(aim, key);
    if (!target) return true;
    const value = specs[key];
    return value !== undefined && isInside(target, value);
  });
}

/**
 * What a check says of each spec that is aimed at, not free and measured.
 * @example verdictOf({ massG: { value: 348, tolerance: 1 } }, { massG: 348.5 }) // [{ spec: 'massG', value: 348.5, inside: true }]
 */
export const verdictOf = (aim: Aim, specs: KnownSpecs): { spec: SpecKey; value: number; inside: boolean }[] =>
  SPEC_KEYS.flatMap((spec) => {
    const target = targetOf(aim, spec);
    const value = specs[spec];
    if (!target || value === undefined) return [];
    return [{ spec, value, inside: isInside(target, value) }];
  });
