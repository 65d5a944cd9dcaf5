import { contains, type Frame, type Point } from '../frame';
import { recoilWeight, type AxisSpecs } from '../mass';
import type { Stroke } from '../sport';

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

/** The best share of ball speed that still counts as the sweet region. */
export const SWEET_SHARE = 0.97;

/** Outgoing ball speed q v + (1+q) V in m/s for a stroke of the frame's sport, V growing with the distance from where the swing turns. */
export function ballSpeedOff(
  frame: Frame,
  specs: AxisSpecs & { twistWeight: number },
  at: Point,
  stroke: Stroke = frame.sport.stroke,
): number {
  const q = apparentRestitution(effectiveMass(specs, at), frame.sport.ballG, stroke.restitution);
  const reach = (at.xCm - stroke.turnsAboutCm) / (frame.head.centreXCm - stroke.turnsAboutCm);
  return q * stroke.ballSpeed + (1 + q) * stroke.faceSpeed * reach;
}

export interface SweetRegion {
  best: Point;
  outline: Point[];
}

/**
 * The region of the face where the ball leaves with at least a share of the best speed, as a closed outline.
 * @param specs with twist weight, kg·cm² @param share 0 to 1
 * @example sweetRegion(frame, specs).best.yCm // 0: the best point lies on the long axis
 */
export function sweetRegion(
  frame: Frame,
  specs: AxisSpecs & { twistWeight: number },
  share = SWEET_SHARE,
): SweetRegion {
  const { centreXCm, alongCm } = frame.head;
  const speed = (p: Point): number => ballSpeedOff(frame, specs, p);
  let best: Point = { xCm: centreXCm, yCm: 0 };
  for (let i = 0; i <= 200; i++) {
    const candidate = { xCm: centreXCm - alongCm + (i / 200) * 2 * alongCm, yCm: 0 };
    if (speed(candidate) > speed(best)) best = candidate;
  }
  const least = share * speed(best);
  const outline = Array.from({ length: 120 }, (_, i): Point => {
    const angle = (i / 120) * 2 * Math.PI;
    let near = 0;
    let far = 2 * alongCm;
    for (let step = 0; step < 24; step++) {
      const middle = (near + far) / 2;
      const p = { xCm: best.xCm + middle * Math.cos(angle), yCm: middle * Math.sin(angle) };
      if (contains(frame.head, p) && speed(p) >= least) near = middle;
      else far = middle;
    }
    return { xCm: best.xCm + near * Math.cos(angle), yCm: near * Math.sin(angle) };
  });
  return { best, outline };
}
