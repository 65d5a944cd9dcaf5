import { contains, type Frame, type Point } from '../frame';
import { recoilWeight, type AxisSpecs } from '../mass';
import type { SportData, Stroke, StrokeName } from '../sport';

/**
 * Effective mass in g of the free frame where the ball meets it: 1/m_e = 1/M + (x−B)²/(1000 R) + y²/(1000 T).
 * Source: Brody, Cross & Lindsey, The Physics and Technology of Tennis.
 * @param specs with twist weight @param at point of the face, cm
 * @example effectiveMass(specs, { xCm: 32.4, yCm: 0 }) // specs.massG: at the balance point the whole mass counts
 */
export function effectiveMass(specs: AxisSpecs & { twistWeight: number }, at: Point): number {
  const recoil = 1000 * recoilWeight(specs);
  const twist = 1000 * specs.twistWeight;
  return 1 / (1 / specs.massG + (at.xCm - specs.balanceCm) ** 2 / recoil + at.yCm ** 2 / twist);
}

/**
 * Apparent restitution q = (e − m_b/m_e) / (1 + m_b/m_e): speed off the face over speed onto it, frame at rest.
 * @param restitution e of the ball on a held face
 */
export function apparentRestitution(effectiveMassG: number, ballG: number, restitution: number): number {
  const ratio = ballG / effectiveMassG;
  return (restitution - ratio) / (1 + ratio);
}

/** The best share of ball speed that still counts as the sweet spot. */
export const SWEET_SHARE = 0.97;

/** The stroke of a sport by its name; its first where none is named. */
export const strokeOf = ({ strokes }: SportData, name?: StrokeName): Stroke =>
  strokes.find((stroke) => stroke.name === name) ?? strokes[0];

/** Restitution never falls below this, whatever the speed: the model is not made for such speeds. */
const LEAST_RESTITUTION = 0.1;

/**
 * Restitution of ball on the held face: e = (e₀ − k (v − v₀)) (1 − c ρ²), v the speed toward each other, ρ the way from the middle of the face (0) to its edge (1).
 * @param speed m/s
 * @example restitutionAt(frame, { xCm: frame.bed.centreXCm, yCm: 0 }, 25) // 0.85 in tennis
 */
export function restitutionAt({ sport, bed }: Frame, at: Point, speed: number): number {
  const { restitution, atSpeed, lossPerSpeed, edgeLoss } = sport.face;
  const out = Math.min(1, ((at.xCm - bed.centreXCm) / bed.alongCm) ** 2 + (at.yCm / bed.acrossCm) ** 2);
  const middle = Math.max(LEAST_RESTITUTION, restitution - lossPerSpeed * (speed - atSpeed));
  return middle * (1 - edgeLoss * out);
}

/** Outgoing ball speed q v + (1+q) V in m/s for a stroke, V growing with the distance from where the swing turns. */
export function ballSpeedOff(
  frame: Frame,
  specs: AxisSpecs & { twistWeight: number },
  at: Point,
  stroke: Stroke = frame.sport.strokes[0],
): number {
  const reach = (at.xCm - stroke.turnsAboutCm) / (frame.bed.centreXCm - stroke.turnsAboutCm);
  const face = stroke.faceSpeed * reach;
  const e = restitutionAt(frame, at, stroke.ballSpeed + face);
  const q = apparentRestitution(effectiveMass(specs, at), frame.sport.ballG, e);
  return q * stroke.ballSpeed + (1 + q) * face;
}

/**
 * How swing speed changes with swing weight: (S2/S1)^−0.27 (Cross & Bower 2006; from memory). For differences, never as a promise.
 * @example swingSpeedShare(320, 340) // 0.983…: about 1.6 % slower
 */
export const swingSpeedShare = (fromSwingWeight: number, toSwingWeight: number): number =>
  (toSwingWeight / fromSwingWeight) ** -0.27;

/** The same stroke with another build: the face is as much slower as the swing weight makes it. For comparing two builds. */
export const strokeWith = (stroke: Stroke, fromSwingWeight: number, toSwingWeight: number): Stroke => ({
  ...stroke,
  faceSpeed: stroke.faceSpeed * swingSpeedShare(fromSwingWeight, toSwingWeight),
});

/** Points of one side of the outline, and how often the way to each is halved: to a thousandth of a mm. */
const HALF_OUTLINE = 60;
const HALVINGS = 20;

export interface SweetRegion {
  best: Point;
  outline: Point[];
}

/**
 * The region of the face where the ball leaves with at least a share of the best speed, as a closed outline. None where the shaft bends: a rigid body's best
 * point would lie at the tip, which is not so.
 * @param specs with twist weight, kg·cm² @param stroke the sport's first if left out @param share 0 to 1
 * @example sweetRegion(frame, specs)?.best.yCm // 0: the best point lies on the long axis
 */
export function sweetRegion(
  frame: Frame,
  specs: AxisSpecs & { twistWeight: number },
  stroke: Stroke = frame.sport.strokes[0],
  share = SWEET_SHARE,
): SweetRegion | undefined {
  if (frame.sport.shaft === 'bends') return undefined;
  const { centreXCm, alongCm } = frame.bed;
  const speed = (p: Point): number => ballSpeedOff(frame, specs, p, stroke);
  let best: Point = { xCm: centreXCm, yCm: 0 };
  let fastest = speed(best);
  for (let i = 0; i <= 200; i++) {
    const candidate = { xCm: centreXCm - alongCm + (i / 200) * 2 * alongCm, yCm: 0 };
    const at = speed(candidate);
    if (at > fastest) [best, fastest] = [candidate, at];
  }
  const least = share * fastest;
  // Both sides are alike: one is worked out. Speed is asked first, since it is quicker to tell than whether a point lies on the face.
  const side = Array.from({ length: HALF_OUTLINE + 1 }, (_, i): Point => {
    const angle = (i / HALF_OUTLINE) * Math.PI;
    const [c, s] = [Math.cos(angle), Math.sin(angle)];
    let near = 0;
    let far = 2 * alongCm;
    for (let step = 0; step < HALVINGS; step++) {
      const middle = (near + far) / 2;
      const p = { xCm: best.xCm + middle * c, yCm: middle * s };
      if (speed(p) >= least && contains(frame.bed, p)) near = middle;
      else far = middle;
    }
    return { xCm: best.xCm + near * c, yCm: near * s };
  });
  const other = side.slice(1, -1).map(({ xCm, yCm }) => ({ xCm, yCm: -yCm }));
  return { best, outline: [...side, ...other.toReversed()] };
}
