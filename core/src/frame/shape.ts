import { Fault, type Problem } from '../fault';
import { sportData, type Sport, type SportData } from '../sport';
import type { Ellipse } from './ellipse';

/** A frame's shape as a fitter gives it; what is left out takes the sport's typical value. */
export interface FrameShape {
  sport: Sport;
  lengthCm: number;
  headAreaCm2?: number;
  headLengthCm?: number;
  headWidthCm?: number;
  handleLengthCm?: number;
  shape?: string;
}

/** A frame's shape with every value settled. The tip of the head lies at the frame's length. */
export interface Frame {
  sport: SportData;
  lengthCm: number;
  head: Ellipse;
  handleLengthCm: number;
  handleRadiusCm: number;
}

function headHalfAxes(shape: FrameShape, data: SportData): { alongCm: number; acrossCm: number } {
  const { headAreaCm2, headLengthCm, headWidthCm } = shape;
  const aspect = data.typical.headAspect;
  if (headLengthCm && headWidthCm) return { alongCm: headLengthCm / 2, acrossCm: headWidthCm / 2 };
  if (headLengthCm) {
    const alongCm = headLengthCm / 2;
    return { alongCm, acrossCm: headAreaCm2 ? headAreaCm2 / (Math.PI * alongCm) : alongCm / aspect };
  }
  if (headWidthCm) {
    const acrossCm = headWidthCm / 2;
    return { alongCm: headAreaCm2 ? headAreaCm2 / (Math.PI * acrossCm) : acrossCm * aspect, acrossCm };
  }
  const acrossCm = Math.sqrt((headAreaCm2 ?? data.typical.headAreaCm2) / (Math.PI * aspect));
  return { alongCm: acrossCm * aspect, acrossCm };
}

/**
 * Settles a shape: an elliptical head whose tip lies at the frame's length, from area and aspect or from length and width.
 * @param shape lengths in cm, area in cm²
 * @throws Fault `not-positive`, `head-too-large` (the head does not fit in front of the handle), `sport-not-computed`
 * @example settleFrame({ sport: 'tennis', lengthCm: 68.58 }).head.centreXCm // 52.03…
 */
export function settleFrame(shape: FrameShape): Frame {
  const data = sportData(shape.sport);
  const problems: Problem[] = [];
  for (const key of ['lengthCm', 'headAreaCm2', 'headLengthCm', 'headWidthCm', 'handleLengthCm'] as const) {
    const value = shape[key];
    if (value !== undefined && !(value > 0)) problems.push({ code: 'not-positive', path: `shape.${key}` });
  }
  if (problems.length > 0) throw new Fault(...problems);

  const half = headHalfAxes(shape, data);
  const handleLengthCm = shape.handleLengthCm ?? data.typical.handleLengthCm;
  if (2 * half.alongCm + handleLengthCm > shape.lengthCm) {
    throw new Fault({
      code: 'head-too-large',
      path: 'shape',
      values: { headLengthCm: 2 * half.alongCm, handleLengthCm, lengthCm: shape.lengthCm },
    });
  }
  return {
    sport: data,
    lengthCm: shape.lengthCm,
    head: { centreXCm: shape.lengthCm - half.alongCm, ...half },
    handleLengthCm,
    handleRadiusCm: data.typical.handleRadiusCm,
  };
}
