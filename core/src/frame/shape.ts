import { Fault, type Problem } from '../fault';
import { sportData, type Family, type Sport, type SportData } from '../sport';
import { eggHead, ellipse, roundedRectangle, type Outline } from './outline';

/** A frame's shape as a fitter gives it; what is left out takes the typical value of the named shape or the sport. */
export interface FrameShape {
  sport: Sport;
  lengthCm: number;
  headAreaCm2?: number;
  headLengthCm?: number;
  headWidthCm?: number;
  handleLengthCm?: number;
  /** A named shape of the sport: `elongated`, `diamond` … An unknown name changes nothing. */
  shape?: string;
}

/** A frame's shape with every value settled. The tip of the head lies at the frame's length. */
export interface Frame {
  sport: SportData;
  lengthCm: number;
  head: Outline;
  handleLengthCm: number;
  handleRadiusCm: number;
}

interface HeadSize {
  lengthCm: number;
  widthCm: number;
}

/** Length and width of an elliptical head from what is given of area, length and width; the aspect settles the rest. */
function ellipseSize(shape: FrameShape, family: Extract<Family, { kind: 'ellipse' }>): HeadSize {
  const { headAreaCm2: area, headLengthCm: lengthCm, headWidthCm: widthCm } = shape;
  const other = (given: number): number => (4 * (area ?? 0)) / (Math.PI * given);
  if (lengthCm && widthCm) return { lengthCm, widthCm };
  if (lengthCm) return { lengthCm, widthCm: area ? other(lengthCm) : lengthCm / family.headAspect };
  if (widthCm) return { lengthCm: area ? other(widthCm) : widthCm * family.headAspect, widthCm };
  const across = 2 * Math.sqrt((area ?? family.headAreaCm2) / (Math.PI * family.headAspect));
  return { lengthCm: across * family.headAspect, widthCm: across };
}

function headSize(shape: FrameShape, { family, shapes }: SportData, handleLengthCm: number): HeadSize {
  const named = shapes[shape.shape ?? ''];
  switch (family.kind) {
    case 'ellipse':
      return ellipseSize(shape, family);
    case 'rectangle':
      return {
        lengthCm: shape.headLengthCm ?? shape.lengthCm - handleLengthCm,
        widthCm: shape.headWidthCm ?? named?.widthCm ?? family.widthCm,
      };
    case 'egg':
      return {
        lengthCm: shape.headLengthCm ?? family.headLengthCm,
        widthCm: shape.headWidthCm ?? named?.widthCm ?? family.widthCm,
      };
  }
}

function outlineOf(
  shape: FrameShape,
  { family, shapes }: SportData,
  { lengthCm, widthCm }: HeadSize,
): Outline {
  const named = shapes[shape.shape ?? ''];
  const tip = shape.lengthCm;
  const bottom = tip - lengthCm;
  switch (family.kind) {
    case 'ellipse':
      return ellipse((tip + bottom) / 2, lengthCm / 2, widthCm / 2);
    case 'rectangle':
      return roundedRectangle(bottom, tip, widthCm / 2, named?.cornerRadiusCm ?? family.cornerRadiusCm);
    case 'egg':
      return eggHead(bottom, tip, bottom + (named?.widest ?? family.widest) * lengthCm, widthCm / 2);
  }
}

const LENGTHS = ['lengthCm', 'headAreaCm2', 'headLengthCm', 'headWidthCm', 'handleLengthCm'] as const;

/**
 * Settles a shape: the outline of its head, whose tip lies at the frame's length, and its handle.
 * Tennis and badminton: an ellipse from area and aspect or from length and width. Pickleball: a rounded rectangle. Padel: two half-ellipses.
 * @param shape lengths in cm, area in cm²
 * @throws Fault `not-positive`, `head-too-large` (the head does not fit in front of the handle)
 * @example settleFrame({ sport: 'tennis', lengthCm: 68.58 }).head.centreXCm // 52.03…
 */
export function settleFrame(shape: FrameShape): Frame {
  const data = sportData(shape.sport);
  const problems: Problem[] = [];
  for (const key of LENGTHS) {
    const value = shape[key];
    if (value !== undefined && !(value > 0)) problems.push({ code: 'not-positive', path: `shape.${key}` });
  }
  if (problems.length > 0) throw new Fault(...problems);

  const usualHandle = data.shapes[shape.shape ?? '']?.handleLengthCm ?? data.handleLengthCm;
  const handleLengthCm =
    shape.handleLengthCm ??
    (data.family.kind === 'rectangle' && shape.headLengthCm
      ? shape.lengthCm - shape.headLengthCm
      : usualHandle);
  const size = headSize(shape, data, handleLengthCm);
  if (
    !(handleLengthCm > 0) ||
    !(size.lengthCm > 0) ||
    size.lengthCm + handleLengthCm > shape.lengthCm + 1e-9
  ) {
    throw new Fault({
      code: 'head-too-large',
      path: 'shape',
      values: { headLengthCm: size.lengthCm, handleLengthCm, lengthCm: shape.lengthCm },
    });
  }
  return {
    sport: data,
    lengthCm: shape.lengthCm,
    head: outlineOf(shape, data, size),
    handleLengthCm,
    handleRadiusCm: data.handleRadiusCm,
  };
}
