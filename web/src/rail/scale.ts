import type { Frame } from '@kevro/core';

/** From centimetres on the frame to pixels on the rail. */
export interface RailScale {
  width: number;
  height: number;
  /** Pixels per cm. */
  k: number;
  /** Pixel of the long axis. */
  axisY: number;
  /** Pixel of the ruler's line. */
  rulerY: number;
  px: (xCm: number) => number;
  py: (yCm: number) => number;
}

const SIDE = 26;
const ABOVE = 26;
const BELOW_HEAD = 8;
/** Where the head reaches over the balance point, as on paddles, and where all is small, the fulcrum needs room below it. */
const BELOW_PADDLE = 30;
const SMALL_K = 8;
const RULER = 36;
/** The hoop stands outside the face by half its width. */
export const HOOP_CM = 1.05;
/** Pixels per cm at most, and pixels that a head may take across. */
const LARGEST_K = 16;
const TALLEST_HEAD = 270;

/** Fits a frame into a width: drawn to scale, butt left, tip right. */
export function railScale(frame: Frame, width: number): RailScale {
  const k = Math.min(
    LARGEST_K,
    (width - 2 * SIDE) / frame.lengthCm,
    TALLEST_HEAD / (2 * frame.head.acrossCm),
  );
  const half = frame.head.acrossCm * k;
  const axisY = ABOVE + half;
  const headFrom = frame.head.centreXCm - frame.head.alongCm;
  const crowded = headFrom < frame.lengthCm / 2 || k < SMALL_K;
  const rulerY = axisY + half + (crowded ? BELOW_PADDLE : BELOW_HEAD);
  return {
    width,
    k,
    axisY,
    rulerY,
    height: rulerY + RULER,
    px: (xCm) => SIDE + xCm * k,
    py: (yCm) => axisY - yCm * k,
  };
}
