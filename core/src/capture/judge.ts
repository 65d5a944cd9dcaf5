import { redress, sameDress, type Dress } from '../dress';
import { brokenLimits, settleFrame, type BrokenLimit, type Frame, type FrameShape } from '../frame';
import { SPEC_KEYS, recoilWeight, type AxisSpecs, type SpecKey } from '../mass';
import type { KnownSpecs } from '../compare';
import type { SpecUncertainty } from '../measure';
import { G_CM2_PER_KG_CM2 } from '../units';
import { usualRecoilShare } from './estimate';

/** What the maker states of a model, in the dress that it is stated for. */
export interface Nominal {
  specs: KnownSpecs;
  tolerance: KnownSpecs;
  dress: Dress;
}

/** An earlier measurement to set beside. */
export interface Earlier {
  specs: AxisSpecs;
  uncertainty: SpecUncertainty;
  takenAt: string;
}

export type Judgement =
  /** Heavier (or more head-heavy …) than the maker's tolerance allows, by `by`. */
  | { kind: 'outside-tolerance'; spec: SpecKey; by: number; nominal: number; tolerance: number }
  /** What the values outside tolerance point to. */
  | { kind: 'customised-before'; massG: number; xCm: number }
  | { kind: 'wrong-label' }
  | { kind: 'not-the-paint' }
  | { kind: 'over-rule-limit'; limit: BrokenLimit }
  /** The swing weight must be more than `least` for this weight and balance. */
  | { kind: 'impossible-swing'; least: number }
  /** Possible, but no usual frame of the sport is so: `ratio` times the usual inertia about the balance point, or the usual twist weight. */
  | { kind: 'unusual-swing' | 'unusual-twist'; ratio: number }
  /** Something came on (`massG` > 0) or off since, near `xCm` from the butt. */
  | { kind: 'added-since' | 'taken-off-since'; massG: number; xCm: number | undefined; since: string }
  /** The weight is the same but the rest is not: something was moved. */
  | { kind: 'moved-since'; specs: SpecKey[]; since: string }
  | { kind: 'same-as-last'; since: string };

/** What is judged: what stands of the specs so far, each with its standard uncertainty. */
export interface JudgedMeasurement {
  specs: KnownSpecs;
  uncertainty: KnownSpecs;
  /** Specs that are estimates: they are not judged. */
  estimated?: readonly string[];
  dress: Dress;
}

/** A difference counts from twice its standard uncertainty. */
const COVERAGE = 2;

/** The place of what was added, from the change of the first moment; undefined where it would not lie on the frame. */
function placeOfChange(before: KnownSpecs, after: KnownSpecs, lengthCm: number): number | undefined {
  const { massG: m0, balanceCm: b0 } = before;
  const { massG: m1, balanceCm: b1 } = after;
  if (m0 === undefined || m1 === undefined || b0 === undefined || b1 === undefined) return undefined;
  const xCm = (m1 * b1 - m0 * b0) / (m1 - m0);
  return xCm >= -1 && xCm <= lengthCm + 1 ? Math.min(lengthCm, Math.max(0, xCm)) : undefined;
}

/** The maker's statement brought to the dress of the measurement, with what that adds in uncertainty. Only complete statements can be brought. */
function nominalIn(shape: FrameShape, { specs, dress }: Nominal, to: Dress) {
  const { massG, balanceCm, swingWeight, twistWeight } = specs;
  const frame = settleFrame(shape);
  const same = sameDress(dress, to);
  if (massG === undefined) return undefined;
  if (!same && balanceCm === undefined) {
    // A weight alone can still be brought: its change does not depend on the rest.
    const part = redress(
      shape,
      { ...frame.sport.usual, massG, balanceCm: frame.lengthCm / 2, swingWeight: 1e4 },
      dress,
      to,
    );
    return { specs: { massG: part.specs.massG } as KnownSpecs, uncertainty: part.uncertainty };
  }
  if (same) return { specs, uncertainty: undefined };
  const brought = redress(
    shape,
    {
      massG,
      balanceCm: balanceCm as number,
      swingWeight: swingWeight ?? 1e4,
      ...(twistWeight === undefined ? {} : { twistWeight }),
    },
    dress,
    to,
  );
  const known: KnownSpecs = { massG: brought.specs.massG, balanceCm: brought.specs.balanceCm };
  if (swingWeight !== undefined) known.swingWeight = brought.specs.swingWeight;
  if (brought.specs.twistWeight !== undefined) known.twistWeight = brought.specs.twistWeight;
  return { specs: known, uncertainty: brought.uncertainty };
}

function againstNominal(shape: FrameShape, now: JudgedMeasurement, nominal: Nominal): Judgement[] {
  const brought = nominalIn(shape, nominal, now.dress);
  if (!brought) return [];
  const found: Judgement[] = [];
  const off: Partial<Record<SpecKey, number>> = {};
  for (const key of SPEC_KEYS) {
    const value = now.specs[key];
    const stated = brought.specs[key];
    const tolerance = nominal.tolerance[key];
    if (value === undefined || stated === undefined || tolerance === undefined) continue;
    if (now.estimated?.includes(key)) continue;
    const slack = COVERAGE * Math.hypot(now.uncertainty[key] ?? 0, brought.uncertainty?.[key] ?? 0);
    const by = value - stated;
    if (Math.abs(by) <= tolerance + slack) continue;
    off[key] = by;
    found.push({ kind: 'outside-tolerance', spec: key, by, nominal: stated, tolerance });
  }
  if (found.length === 0) return [];
  if ((off.massG ?? 0) > 0) {
    const xCm = placeOfChange(brought.specs, now.specs, shape.lengthCm);
    if (xCm !== undefined) found.push({ kind: 'customised-before', massG: off.massG ?? 0, xCm });
  }
  found.push({ kind: off.massG === undefined ? 'not-the-paint' : 'wrong-label' });
  return found;
}

function againstSense(frame: Frame, { specs, estimated = [] }: JudgedMeasurement): Judgement[] {
  const { massG, balanceCm, swingWeight, twistWeight } = specs;
  const found: Judgement[] = [];
  const { usualRange } = frame.sport;
  const outside = (ratio: number, [low, high]: readonly [number, number]): boolean =>
    ratio < low || ratio > high;
  if (massG === undefined) return found;
  if (balanceCm !== undefined && swingWeight !== undefined && !estimated.includes('swingWeight')) {
    const { axisCm } = frame.sport;
    const recoil = recoilWeight({ massG, balanceCm, swingWeight, axisCm });
    if (!(recoil > 0)) return [{ kind: 'impossible-swing', least: swingWeight - recoil }];
    const usual = (usualRecoilShare(frame) * massG * frame.lengthCm ** 2) / G_CM2_PER_KG_CM2;
    const ratio = recoil / usual;
    if (outside(ratio, usualRange.recoil)) found.push({ kind: 'unusual-swing', ratio });
  }
  if (twistWeight !== undefined && !estimated.includes('twistWeight')) {
    const usualFrame = settleFrame({ sport: frame.sport.sport, lengthCm: frame.sport.lengthCm });
    const { usual } = frame.sport;
    const spread =
      (massG * frame.head.acrossCm ** 2) / (usual.massG * usualFrame.head.acrossCm ** 2) || Number.NaN;
    const ratio = twistWeight / (usual.twistWeight * spread);
    if (outside(ratio, usualRange.twist)) found.push({ kind: 'unusual-twist', ratio });
  }
  return found;
}

function againstLast(lengthCm: number, now: JudgedMeasurement, last: Earlier): Judgement[] {
  const changed = SPEC_KEYS.filter((key) => {
    const [value, before] = [now.specs[key], last.specs[key]];
    if (value === undefined || before === undefined || now.estimated?.includes(key)) return false;
    return Math.abs(value - before) > COVERAGE * Math.hypot(now.uncertainty[key] ?? 0, last.uncertainty[key]);
  });
  const since = last.takenAt;
  if (changed.includes('massG')) {
    const massG = (now.specs.massG ?? 0) - last.specs.massG;
    const xCm = placeOfChange(last.specs, now.specs, lengthCm);
    return [{ kind: massG > 0 ? 'added-since' : 'taken-off-since', massG: Math.abs(massG), xCm, since }];
  }
  if (changed.length > 0) return [{ kind: 'moved-since', specs: changed, since }];
  const whole = (['massG', 'balanceCm', 'swingWeight'] as const).every((k) => now.specs[k] !== undefined);
  return whole ? [{ kind: 'same-as-last', since }] : [];
}

/**
 * What a measurement gives away as it comes in: against the maker's statement and tolerance, the rule limits on size, physical sense, and the frame's last
 * measurement in the same dress. Values that are not there yet are not judged; uncertainties count, so that noise is not taken for a change.
 * @param shape lengths in cm @param now g, cm, kg·cm² about the sport's axis
 * @example judge(shape, { specs: { massG: 331 }, uncertainty: { massG: 0.3 }, dress }, { nominal })[0].kind // 'outside-tolerance'
 */
export function judge(
  shape: FrameShape,
  now: JudgedMeasurement,
  beside: { nominal?: Nominal; last?: Earlier },
): Judgement[] {
  const frame = settleFrame(shape);
  return [
    ...againstSense(frame, now),
    ...brokenLimits(shape).map((limit): Judgement => ({ kind: 'over-rule-limit', limit })),
    ...(beside.nominal ? againstNominal(shape, now, beside.nominal) : []),
    ...(beside.last ? againstLast(frame.lengthCm, now, beside.last) : []),
  ];
}
