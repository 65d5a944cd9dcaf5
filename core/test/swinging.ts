import type { AngleAt } from '../src';

/** A pendulum that truly swings, by small steps in time (Runge–Kutta of fourth order): what the fit is held against. */
export interface Swinging {
  /** Period of small swings, s. */
  smallPeriod: number;
  startDeg: number;
  /** Share of the amplitude lost in a second, by friction that grows with speed, and by air that grows with its square. */
  decay: number;
  airDrag?: number;
  seconds: number;
}
const RAD = Math.PI / 180;

/** Its angle, rad, at each of these moments, s. */
export function swing(
  { smallPeriod, startDeg, decay, airDrag = 0 }: Swinging,
  moments: readonly number[],
): AngleAt[] {
  const rate = (2 * Math.PI) / smallPeriod;
  const force = (a: number, v: number): number =>
    -rate * rate * Math.sin(a) - 2 * decay * v - airDrag * v * Math.abs(v);
  let [t, angle, speed] = [0, startDeg * RAD, 0];
  const step = smallPeriod / 400;
  const forward = (h: number): void => {
    const [k1a, k1v] = [speed, force(angle, speed)];
    const [k2a, k2v] = [speed + (h / 2) * k1v, force(angle + (h / 2) * k1a, speed + (h / 2) * k1v)];
    const [k3a, k3v] = [speed + (h / 2) * k2v, force(angle + (h / 2) * k2a, speed + (h / 2) * k2v)];
    const [k4a, k4v] = [speed + h * k3v, force(angle + h * k3a, speed + h * k3v)];
    angle += (h / 6) * (k1a + 2 * k2a + 2 * k3a + k4a);
    speed += (h / 6) * (k1v + 2 * k2v + 2 * k3v + k4v);
    t += h;
  };
  return moments.map((at) => {
    while (t + step <= at) forward(step);
    if (at > t) forward(at - t);
    return { at, angle };
  });
}
