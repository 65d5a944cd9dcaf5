import { WIDEST_DEG } from '../measure';
import { fitSwing, type SwingFit } from './swing-fit';
import type { Bar } from './bar-finder';
import type { Film } from './pictures';
import { trackBar, type FilmTrouble } from './track';

/** What a film of a swing came to. */
export interface FilmRead {
  fit: SwingFit;
  /** What a stopwatch would have shown for the whole swings of the film. */
  swings: number;
  seconds: number;
  startDeg: number;
  endDeg: number;
  /** Standard uncertainty of `seconds`: what another film of the same would not share, and what it would, s. */
  random: number;
  common: number;
  /** How many pictures were left out as bumps. */
  leftOut: number;
  bars: readonly Bar[];
}
export type FilmAnswer = FilmRead | { trouble: FilmTrouble };

/** How a film tells its time. */
export interface FilmClock {
  /** How many times slower than life it plays; 1 as it was filmed. Its own times are divided by it. */
  slowed: number;
}

/** A camera's clock against true time, as a share: a quartz and the steps of the file (from memory). */
const CLOCK = 5e-5;
/** A rate that is typed is a round number for one that is not: 240 for 239.76. A rectangle of 0.1 % to either side (from memory). */
const TYPED_RATE = 0.001 / Math.sqrt(3);
/** An angle in the picture is this much off where the camera does not look straight along the axis, as a share (from memory). */
const ANGLE_SHARE = 0.05;

/**
 * How much of the seconds of a film its amplitude leaves uncertain, as a share: the period of small swings follows from the angle, which the picture shows a little wrong, and θ²/16
 * doubles that.
 * @param meanSquare of the amplitude over the film, rad² @example angleError(0.0305) // 0.00019
 */
export const angleError = (meanSquare: number): number => (2 * ANGLE_SHARE * meanSquare) / 16;

const FEWEST_SWINGS = 6;
const LEAST_DEG = 1;
/** Scatter of the angles beyond which it is no swing of one thing, as a share of its amplitude (from memory). */
const MOST_SCATTER = 0.15;
const MOST_LEFT_OUT = 0.25;
/** The bar shows its face, or comes nearer, while it swings: change of its breadth and length, as shares (from memory). */
const MOST_BROADER = 0.45;
const MOST_LONGER = 0.2;
const DEG = 180 / Math.PI;

const spread = (values: readonly number[]): number => {
  const sorted = values.toSorted((a, b) => a - b);
  const at = (share: number): number => sorted[Math.floor(share * (sorted.length - 1))] ?? 0;
  return (at(0.9) - at(0.1)) / Math.max(1e-9, at(0.5));
};

/**
 * Reads the swing in a film: follows what moves, fits a damped swing to its angle, and refuses what cannot be trusted.
 * @param film in greys, in the order of time @param clock whether it is slowed down
 * @example readFilm(film).seconds // 28.026
 */
export function readFilm(film: Film, { slowed }: FilmClock = { slowed: 1 }): FilmAnswer {
  const tracked = trackBar({
    ...film,
    frames: film.frames.map(({ at, grey }) => ({ at: at / slowed, grey })),
  });
  return 'trouble' in tracked ? tracked : readBars(tracked.bars, slowed);
}

/** The same of what was followed already. */
export function readBars(bars: readonly Bar[], slowed = 1): FilmAnswer {
  const fit = fitSwing(bars);
  if (!fit) return { trouble: 'film-still' };
  const { swings, period, startAmplitude, endAmplitude, scatter, outliers } = fit;
  const largest = Math.max(startAmplitude, endAmplitude);
  if (swings < FEWEST_SWINGS) return { trouble: 'film-short' };
  if (largest * DEG < LEAST_DEG) return { trouble: 'film-too-little' };
  if (largest * DEG > WIDEST_DEG) return { trouble: 'film-too-wide' };
  if (
    scatter > MOST_SCATTER * largest ||
    outliers.length > MOST_LEFT_OUT * bars.length ||
    endAmplitude > 1.1 * startAmplitude
  )
    return { trouble: 'film-uneven' };
  if (
    spread(bars.map(({ across }) => across)) > MOST_BROADER ||
    spread(bars.map(({ along }) => along)) > MOST_LONGER
  )
    return { trouble: 'film-sideways' };
  const seconds = swings * period;
  const byAngle = angleError((startAmplitude ** 2 + endAmplitude ** 2) / 2) * seconds;
  const clock = Math.hypot(CLOCK, slowed === 1 ? 0 : TYPED_RATE) * seconds;
  return {
    fit,
    swings,
    seconds,
    startDeg: startAmplitude * DEG,
    endDeg: Math.min(endAmplitude, startAmplitude) * DEG,
    random: swings * fit.uncertainty,
    common: Math.hypot(byAngle, clock),
    leftOut: outliers.length,
    bars,
  };
}
