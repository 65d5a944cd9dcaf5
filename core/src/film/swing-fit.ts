import { inverse } from '../learn';
import { MAD_TO_SIGMA, median, tukeyWeight } from '../measure';

/** The angle of a frame that swings, at one moment. */
export interface AngleAt {
  /** s, of the film's own clock. */
  at: number;
  /** rad, from any zero. */
  angle: number;
}

/** A damped swing fitted to angles. */
export interface SwingFit {
  /** Mean time of one full swing over the whole film, s, as a stopwatch would find it. */
  period: number;
  /** Standard uncertainty of it from the scatter of the angles, s. */
  uncertainty: number;
  /** Whole swings that the film holds. */
  swings: number;
  /** Half the whole angle at the first and the last moment, rad. */
  startAmplitude: number;
  endAmplitude: number;
  /** What the zero moved by in all: the camera, or the sun on it, rad. */
  drift: number;
  /** Scatter of the angles about the fit, rad. */
  scatter: number;
  /** Places of the angles that lie too far off to belong to the swing. */
  outliers: number[];
  /** The fitted angle at each moment. */
  fitted: number[];
}

type Parameters = [
  centre: number,
  drift: number,
  amplitude: number,
  decay: number,
  phase: number,
  rate: number,
];
const COUNT = 6;
/** The place of the rate among them. */
const RATE = 5;

/** ∫ e^(−kt) dt from nought, where e^(−kt) is known. */
const grown = (k: number, t: number, left: number): number => (Math.abs(k * t) < 1e-6 ? t : (1 - left) / k);
/** How that changes with k. */
const grownBy = (k: number, t: number, left: number): number =>
  Math.abs(k * t) < 1e-4 ? -(t * t) / 2 : (t * left - (1 - left) / k) / k;

/** How far the phase of a dying swing has come, as the time that a small one takes for as much: it quickens as it dies, ω = ω₀ (1 − θ²/16 − …), the handbook series turned round to second order. */
function timeAt(t: number, p: Parameters): number {
  const [amplitude, decay] = [p[2], p[3]];
  const left = Math.exp(-2 * decay * t);
  // 1/(1 + θ²/16 + 11θ⁴/3072) = 1 − θ²/16 + θ⁴/3072 …
  return (
    t -
    (amplitude ** 2 / 16) * grown(2 * decay, t, left) +
    (amplitude ** 4 / 3072) * grown(4 * decay, t, left * left)
  );
}
const phaseAt = (t: number, p: Parameters): number => p[4] + p[RATE] * timeAt(t, p);
const angleOf = (t: number, p: Parameters): number =>
  p[0] + p[1] * t + p[2] * Math.exp(-p[3] * t) * Math.cos(phaseAt(t, p));

/** How the angle at a moment changes with each parameter. */
function slopesAt(t: number, p: Parameters): Parameters {
  const [amplitude, decay, phase, rate] = [p[2], p[3], p[4], p[RATE]];
  const time = timeAt(t, p);
  const dying = Math.exp(-decay * t);
  const left = dying * dying;
  const [once, twice] = [grown(2 * decay, t, left), grown(4 * decay, t, left * left)];
  const now = phase + rate * time;
  const [along, across] = [dying * Math.cos(now), -amplitude * dying * Math.sin(now)];
  const byAmplitude = rate * (amplitude ** 3 / 768) * twice - rate * (amplitude / 8) * once;
  const byDecay =
    rate * (amplitude ** 4 / 3072) * 4 * grownBy(4 * decay, t, left * left) -
    rate * (amplitude ** 2 / 16) * 2 * grownBy(2 * decay, t, left);
  return [
    1,
    t,
    along + across * byAmplitude,
    -t * amplitude * along + across * byDecay,
    across,
    across * time,
  ];
}

/** Standard deviation of normal values by their median distance from nought (handbook statistics). */
const robustScatter = (residuals: readonly number[]): number =>
  MAD_TO_SIGMA * median(residuals.map(Math.abs));

/** Slowest and quickest swing that a racket, a paddle or its threads make, Hz. */
const SLOWEST = 0.12;
const QUICKEST = 3.5;

/** The rate at which a sine takes most of the angles: a scan of least squares, as fine as the film can tell rates apart. */
function firstGuess(times: readonly number[], angles: readonly number[]): Parameters {
  const length = times.at(-1) ?? 1;
  const centre = angles.reduce((sum, a) => sum + a, 0) / angles.length;
  // Some hundreds of angles tell the rate as well as thousands; no quick swing may fall between them.
  const every = Math.max(1, Math.floor(angles.length / Math.max(150, 3 * QUICKEST * length)));
  const seen = Array.from({ length: Math.ceil(angles.length / every) }, (_, i) => i * every);
  const off = Float64Array.from(seen, (i) => (angles[i] ?? 0) - centre);
  // From one rate to the next each sine is turned on by its own step: to work it out anew takes more than twice as long.
  const step = (2 * Math.PI) / (4 * length);
  const turned = (rate: number, of: (angle: number) => number): Float64Array =>
    Float64Array.from(seen, (i) => of(rate * (times[i] ?? 0)));
  const slowest = 2 * Math.PI * SLOWEST;
  const [cos, sin] = [turned(slowest, Math.cos), turned(slowest, Math.sin)];
  const [stepCos, stepSin] = [turned(step, Math.cos), turned(step, Math.sin)];
  let best = { power: -1, rate: 1, cos: 0, sin: 0 };
  for (let rate = slowest; rate <= 2 * Math.PI * QUICKEST; rate += step) {
    let [cc, cs, ss, yc, ys] = [0, 0, 0, 0, 0];
    for (let i = 0; i < off.length; i++) {
      const [c, s, y] = [cos[i] as number, sin[i] as number, off[i] as number];
      cc += c * c;
      cs += c * s;
      ss += s * s;
      yc += y * c;
      ys += y * s;
      const [dc, ds] = [stepCos[i] as number, stepSin[i] as number];
      cos[i] = c * dc - s * ds;
      sin[i] = s * dc + c * ds;
    }
    const det = cc * ss - cs * cs;
    if (!(det > 1e-9)) continue;
    const [a, b] = [(yc * ss - ys * cs) / det, (ys * cc - yc * cs) / det];
    const power = a * yc + b * ys;
    if (power > best.power) best = { power, rate, cos: a, sin: b };
  }
  const amplitude = Math.hypot(best.cos, best.sin);
  return [centre, 0, amplitude, 0.01, Math.atan2(-best.sin, best.cos), best.rate];
}

const OUTLIER = 6;
/** What is nearer to the swing than this share of its amplitude is no bump. */
const BUMP_SHARE = 0.04;
const ROUNDS = 40;

/**
 * Fits a damped swing to angles over time by least squares, leaving out what does not belong to it:
 * θ(t) = c + d t + A e^(−γt) cos φ(t), φ̇ = ω₀ (1 − θₐ²/16 + θₐ⁴/3072), θₐ = A e^(−γt).
 * Source: physical pendulum with viscous damping and the series for wide swings (handbook mechanics); weights by Tukey; the uncertainty is that of the least squares,
 * widened where neighbours err alike.
 * @param samples in the order of time, at least 20 @returns undefined where nothing swings in them
 * @example fitSwing(samples)?.period // 1.4312
 */
export function fitSwing(samples: readonly AngleAt[]): SwingFit | undefined {
  if (samples.length < 20) return undefined;
  const from = samples[0]?.at ?? 0;
  const times = samples.map(({ at }) => at - from);
  const angles = samples.map(({ angle }) => angle);
  const length = times.at(-1) ?? 0;
  if (!(length > 0)) return undefined;
  let p = firstGuess(times, angles);
  let weights = angles.map(() => 1);
  let damping = 1e-3;
  const residualsOf = (of: Parameters): number[] => angles.map((a, i) => a - angleOf(times[i] ?? 0, of));
  const costOf = (residuals: readonly number[]): number =>
    residuals.reduce((sum, r, i) => sum + (weights[i] ?? 0) * r * r, 0);
  let residuals = residualsOf(p);
  let normal: number[][] = [];
  for (let round = 0; round < ROUNDS; round++) {
    normal = p.map(() => p.map(() => 0));
    const right = p.map(() => 0);
    for (let i = 0; i < times.length; i++) {
      const weight = weights[i] as number;
      if (weight === 0) continue;
      const slopes = slopesAt(times[i] as number, p);
      for (let j = 0; j < COUNT; j++) {
        const [row, weighed] = [normal[j] as number[], weight * (slopes[j] as number)];
        for (let k = 0; k < COUNT; k++) row[k] = (row[k] as number) + weighed * (slopes[k] as number);
        right[j] = (right[j] as number) + weighed * (residuals[i] as number);
      }
    }
    const damped = normal.map((row, i) => row.map((v, j) => (i === j ? v * (1 + damping) : v)));
    const by = inverse(damped);
    const next = p.map(
      (v, i) => v + right.reduce((sum, r, j) => sum + (by[i]?.[j] ?? 0) * r, 0),
    ) as Parameters;
    if (!next.every(Number.isFinite)) return undefined;
    const found = residualsOf(next);
    const gained = costOf(residuals) - costOf(found);
    if (gained >= 0) {
      const small = gained < 1e-8 * costOf(residuals);
      [p, residuals] = [next, found];
      damping = Math.max(1e-9, damping / 5);
      if (small && round > 8) break;
    } else damping *= 8;
    // Once it is near, what is far off loses its weight.
    if (round >= 4 && round % 2 === 0) {
      const scale = Math.max(robustScatter(residuals), 1e-9);
      weights = residuals.map((r) => tukeyWeight(r, scale));
    }
    if (damping > 1e9) break;
  }
  const scatter = Math.max(robustScatter(residuals), 1e-12);
  const [, drift, amplitude, decay, , rate] = p;
  const far = Math.max(OUTLIER * scatter, BUMP_SHARE * Math.abs(amplitude));
  const outliers = residuals.flatMap((r, i) => (Math.abs(r) > far ? [i] : []));
  const rateVariance = inverse(normal)[RATE]?.[RATE] ?? Number.NaN;
  if (!(rateVariance >= 0 && rate > 0)) return undefined;

  // Neighbours that err alike tell less than as many that do not: the variance of a mean of an autoregressive row (handbook statistics).
  const kept = residuals.map((r, i) => ((weights[i] ?? 0) > 0 ? r : 0));
  const alike =
    kept.reduce((sum, r, i) => sum + r * (kept[i + 1] ?? 0), 0) /
    Math.max(
      kept.reduce((sum, r) => sum + r * r, 0),
      1e-30,
    );
  const rho = Math.min(0.98, Math.max(0, alike));
  const freedom = Math.max(1, kept.filter((r) => r !== 0).length - COUNT);
  const variance = kept.reduce((sum, r, i) => sum + (weights[i] ?? 0) * r * r, 0) / freedom;
  const widened = Math.sqrt((1 + rho) / (1 - rho));

  // The mean period over all whole swings, from the phase; of the zero swing when the film is shorter than one.
  const turns = Math.abs(phaseAt(length, p) - phaseAt(0, p)) / (2 * Math.PI);
  const swings = Math.floor(turns);
  const period = length / Math.max(turns, 1e-9);
  const rateUncertainty = Math.sqrt(rateVariance * variance) * widened;
  return {
    period,
    uncertainty: (period * rateUncertainty) / rate,
    swings,
    startAmplitude: Math.abs(amplitude),
    endAmplitude: Math.abs(amplitude) * Math.exp(-decay * length),
    drift: drift * length,
    scatter,
    outliers,
    fitted: times.map((t) => angleOf(t, p)),
  };
}
