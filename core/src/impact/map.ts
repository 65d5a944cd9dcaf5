import { polygon, type Frame, type Point } from '../frame';
import type { AxisSpecs } from '../mass';
import { ballSpeedOff, effectiveMass, strokeWith } from './impact';
import type { Stroke } from '../sport';

/** Values over the face on a grid; NaN outside the outline. */
export interface FaceMap {
  columns: number;
  rows: number;
  /** Middle of the first cell, and the size of a cell, cm. */
  origin: Point;
  stepXCm: number;
  stepYCm: number;
  /** Row by row from the least y, each from the least x. */
  values: Float64Array;
}

export type MapOf = 'ball-speed' | 'effective-mass';

/**
 * A map of the face: outgoing ball speed in m/s, or effective mass in g, at the middle of each cell.
 * @param specs with twist weight @param columns, rows cells along x and across y
 * @example faceMap(frame, specs, 'ball-speed', 60, 40).values.length // 2400
 */
export function faceMap(
  frame: Frame,
  specs: AxisSpecs & { twistWeight: number },
  of: MapOf,
  columns: number,
  rows: number,
  stroke?: Stroke,
): FaceMap {
  const { centreXCm, alongCm, acrossCm } = frame.bed;
  const stepXCm = (2 * alongCm) / columns;
  const stepYCm = (2 * acrossCm) / rows;
  const origin = { xCm: centreXCm - alongCm + stepXCm / 2, yCm: -acrossCm + stepYCm / 2 };
  const values = new Float64Array(columns * rows).fill(Number.NaN);
  const half = halfWidths(frame, columns, origin.xCm, stepXCm);
  const value =
    of === 'ball-speed'
      ? (p: Point): number => ballSpeedOff(frame, specs, p, stroke)
      : (p: Point): number => effectiveMass(specs, p);
  for (let row = 0; row < rows; row++) {
    const yCm = origin.yCm + row * stepYCm;
    for (let column = 0; column < columns; column++) {
      if (Math.abs(yCm) > (half[column] as number)) continue;
      values[row * columns + column] = value({ xCm: origin.xCm + column * stepXCm, yCm });
    }
  }
  return { columns, rows, origin, stepXCm, stepYCm, values };
}

const EDGE_POINTS = 720;

/** Half the width of the face at each column, from the outline as a fine polygon. */
function halfWidths(frame: Frame, columns: number, firstXCm: number, stepXCm: number): Float64Array {
  const side = polygon(frame.bed, EDGE_POINTS).slice(0, EDGE_POINTS / 2 + 1);
  return Float64Array.from({ length: columns }, (_, i) => {
    const xCm = firstXCm + i * stepXCm;
    let widest = 0;
    for (let k = 0; k + 1 < side.length; k++) {
      const [a, b] = [side[k] as Point, side[k + 1] as Point];
      if (a.xCm === b.xCm || (a.xCm - xCm) * (b.xCm - xCm) > 0) continue;
      widest = Math.max(widest, a.yCm + ((xCm - a.xCm) / (b.xCm - a.xCm)) * (b.yCm - a.yCm));
    }
    return widest;
  });
}

/**
 * What another build changes over the face: its map less this one's, with the swing as much slower as its swing weight makes it.
 * @example compareBuilds(frame, before, after, 'ball-speed', 60, 40).values
 */
export function compareBuilds(
  frame: Frame,
  before: AxisSpecs & { twistWeight: number },
  after: AxisSpecs & { twistWeight: number },
  of: MapOf,
  columns: number,
  rows: number,
  stroke: Stroke = frame.sport.strokes[0],
): FaceMap {
  const slower = strokeWith(stroke, before.swingWeight, after.swingWeight);
  return mapDifference(
    faceMap(frame, before, of, columns, rows, stroke),
    faceMap(frame, after, of, columns, rows, slower),
  );
}

/** Another map less this one, cell by cell: what a plan changes. */
export const mapDifference = (before: FaceMap, after: FaceMap): FaceMap => ({
  ...after,
  values: after.values.map((v, i) => v - (before.values[i] as number)),
});
