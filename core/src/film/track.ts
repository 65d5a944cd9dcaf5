import { MAD_TO_SIGMA } from '../measure';
import { BarFinder, type Bar } from './bar-finder';
import { medianOf, middleOf, type Film } from './pictures';
import { Steadied } from './steadied';

/** Why a film cannot be trusted. */
export type FilmTrouble =
  | 'film-unreadable'
  | 'film-short'
  | 'film-dark'
  | 'film-still'
  | 'film-cut-off'
  | 'film-two-move'
  | 'film-wrong-side'
  | 'film-sideways'
  | 'film-uneven'
  | 'film-too-little'
  | 'film-too-wide';

/** Fewer pictures than this hold no swings. */
const FEWEST_PICTURES = 30;
/** Below so many greys nothing is told from the noise of a dark picture (from memory). */
const FEWEST_GREYS = 8;
const NOISES = 4;
const DARK = 40;
/** What else moves may have so much of the energy: a shadow, a sleeve at the edge (from memory). */
const SECOND_SHARE = 0.3;
/** A frame from its side, or from below, is no broader than this for its length; its face is (from memory). */
const BROADEST = 0.25;
/** Where something moves its elements have at least this share of the strongest change, and there are so many of them. */
const LEAST_ENERGY = 0.06;
const LEAST_PLACES = 40;

/** Parts of a picture where something moves, the strongest first: elements that touch, over small gaps. */
function partsOf(
  energy: Float32Array,
  width: number,
  height: number,
  least: number,
): { places: number[]; energy: number }[] {
  const part = new Int32Array(energy.length).fill(-1);
  const found: { places: number[]; energy: number }[] = [];
  // Both edges of a bar that hardly swings are one part.
  const gap = Math.max(2, Math.round(0.03 * Math.max(width, height)));
  for (let start = 0; start < energy.length; start++) {
    if ((energy[start] ?? 0) < least || (part[start] ?? -1) >= 0) continue;
    const own = { places: [start], energy: 0 };
    part[start] = found.length;
    for (let next = 0; next < own.places.length; next++) {
      const p = own.places[next] ?? 0;
      own.energy += energy[p] ?? 0;
      const [px, py] = [p % width, Math.floor(p / width)];
      for (let y = Math.max(0, py - gap); y <= Math.min(height - 1, py + gap); y++)
        for (let x = Math.max(0, px - gap); x <= Math.min(width - 1, px + gap); x++) {
          const q = y * width + x;
          if ((part[q] ?? 0) >= 0 || (energy[q] ?? 0) < least) continue;
          part[q] = found.length;
          own.places.push(q);
        }
    }
    found.push(own);
  }
  return found.toSorted((a, b) => b.energy - a.energy);
}

/** How much each element changes over the samples, above the noise. What was there once, as somebody who walks by, is not what swings: its two strongest pictures do not count. */
function energyOf(samples: readonly Uint8Array[], ground: Uint8Array, least: number): Float32Array {
  return Float32Array.from(ground, (still, p) => {
    let [sum, first, second] = [0, 0, 0];
    for (const grey of samples) {
      const d = Math.abs((grey[p] ?? 0) - still) - least;
      if (d <= 0) continue;
      sum += d;
      if (d > first) [first, second] = [d, first];
      else if (d > second) second = d;
    }
    return sum - first - second;
  });
}

/** The greys by which something must differ from the ground: more than the noise does. */
function leastDifference(samples: readonly Uint8Array[], ground: Uint8Array): number {
  const off: number[] = [];
  for (let p = 0; p < ground.length; p += 7)
    off.push(medianOf(samples.map((grey) => Math.abs((grey[p] ?? 0) - (ground[p] ?? 0)))));
  return Math.max(FEWEST_GREYS, NOISES * Math.max(0.7, MAD_TO_SIGMA * medianOf(off)));
}

/** An axis has no beginning: half a turn further is the same one, and the nearest is meant. */
function unwound(bars: readonly Bar[]): Bar[] {
  let before = bars[0]?.angle ?? 0;
  return bars.map((bar) => {
    before = bar.angle + Math.PI * Math.round((before - bar.angle) / Math.PI);
    return { ...bar, angle: before };
  });
}

/**
 * Follows the bar that swings through a film: what differs from the middle value of every picture element, as one long shape with an axis.
 * A frame that swings face first is a thin bar from the side, and one that twists on its threads is one from below.
 * @example trackBar(film).bars[0]?.angle // 1.57
 */
export function trackBar(film: Film): { bars: Bar[] } | { trouble: FilmTrouble } {
  const { width, height, frames } = film;
  if (frames.length < FEWEST_PICTURES) return { trouble: 'film-short' };
  const steadied = new Steadied(film);
  const { samples } = steadied;
  const ground = middleOf(samples, width * height);
  const brightness = ground.reduce((sum, v) => sum + v, 0) / ground.length;
  const unseen: FilmTrouble = brightness < DARK ? 'film-dark' : 'film-still';
  const least = leastDifference(samples, ground);
  const energy = energyOf(samples, ground, least);
  const strongest = energy.toSorted().at(-Math.ceil(energy.length / 500)) ?? 0;
  if (!(strongest > 0)) return { trouble: unseen };
  const [main, second] = partsOf(energy, width, height, LEAST_ENERGY * strongest);
  if (!main || main.places.length < LEAST_PLACES) return { trouble: unseen };
  if (second && second.places.length > LEAST_PLACES && second.energy > SECOND_SHARE * main.energy)
    return { trouble: 'film-two-move' };

  const finder = new BarFinder(width, height, main.places, ground, least);
  if (finder.isCutOff) return { trouble: 'film-cut-off' };
  const isHidden = finder.clearGround(samples);
  const bars = frames.flatMap(({ at, grey }): Bar[] => {
    const { picture, by } = steadied.steady(grey);
    // Seen in two looks: all that differs, then what is near to that axis.
    const first = finder.look(picture);
    const bar = first && finder.look(picture, first);
    return bar ? [{ ...bar, at, x: bar.x + by.x, y: bar.y + by.y }] : [];
  });
  if (isHidden) return { trouble: 'film-too-little' };
  if (bars.length < 0.7 * frames.length) return { trouble: unseen };
  const broad = medianOf(bars.map(({ along, across }) => across / along));
  if (broad > BROADEST) return { trouble: 'film-wrong-side' };
  return { bars: unwound(bars) };
}
