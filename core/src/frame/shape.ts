import { Fault, type Problem } from '../fault';
import { sportData, type Family, type HoopPlace, type Sport, type SportData } from '../sport';
import { eggHead, ellipse, roundedRectangle, type Outline } from './outline';
import { outlineProblems, ownOutline, type OwnOutline } from './own-outline';

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
  /** The frame's own outline, as it was taken from a photo: it goes before all that is said of the head. */
  outline?: OwnOutline;
}

/** A frame's shape with every value settled. The tip of the hoop lies at the frame's length. */
export interface Frame {
  sport: SportData;
  lengthCm: number;
  /** The outer edge of the hoop, or of a paddle. */
  head: Outline;
  /** The string bed or face inside it, which the ball meets. */
  bed: Outline;
  /** The line on which pieces lie unless they say where on the hoop: arc lengths of every placement count along it. */
  rim: Outline;
  handleLengthCm: number;
  handleRadiusCm: number;
  /** From the bed to the outer edge, cm. */
  hoopCm: number;
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

/** Outlines made before: a frame is settled again and again while a weight is moved, and what is known of its head's arcs stays. */
const known = new Map<string, Outline>();
const MOST_KNOWN = 64;

/** How far outside the bed a place of the hoop lies, as a share of the hoop's width. */
const OUTWARD: Record<HoopPlace, number> = { inside: 0, beside: 0.5, bumper: 1, edge: 1 };

/** The head's outline at a distance outside the bed, the outer edge being as far out as the hoop is wide. */
function outlineOf(shape: FrameShape, sport: SportData, size: HeadSize, outwardCm: number): Outline {
  const named = sport.shapes[shape.shape ?? ''];
  const { family, hoop } = sport;
  const own = shape.outline && [shape.outline.hoopCm, ...shape.outline.points.flat()].join(',');
  const form = [family.kind, named?.cornerRadiusCm, named?.widest, ...Object.values(family), own];
  const key = [shape.lengthCm, size.lengthCm, size.widthCm, outwardCm, ...Object.values(hoop), ...form].join(
    ' ',
  );
  let outline = known.get(key);
  if (!outline) {
    if (known.size >= MOST_KNOWN) known.clear();
    known.set(key, (outline = madeOutline(shape, sport, size, outwardCm)));
  }
  return outline;
}

function madeOutline(
  shape: FrameShape,
  { family, shapes, hoop }: SportData,
  { lengthCm, widthCm }: HeadSize,
  outwardCm: number,
): Outline {
  if (shape.outline) {
    const { hoopCm = hoop.widthCm } = shape.outline;
    // The shares of the hoop stay, however wide it is.
    const inward = hoopCm * (1 - outwardCm / hoop.widthCm);
    return ownOutline(shape.outline, shape.lengthCm, inward, family.kind === 'rectangle');
  }
  const named = shapes[shape.shape ?? ''];
  // What is said of the bed grows outward; what is said of the whole shrinks inward.
  const beyond = hoop.sizeIsOf === 'bed' ? outwardCm : outwardCm - hoop.widthCm;
  const tip = shape.lengthCm - hoop.widthCm + outwardCm;
  const half = widthCm / 2 + beyond;
  const whole = hoop.sizeIsOf === 'bed' ? lengthCm + 2 * hoop.widthCm : lengthCm;
  // The face of a paddle begins at its handle; other heads have their hoop all round.
  const bottom = shape.lengthCm - whole + (family.kind === 'rectangle' ? 0 : hoop.widthCm - outwardCm);
  switch (family.kind) {
    case 'ellipse':
      return ellipse((tip + bottom) / 2, (tip - bottom) / 2, half);
    case 'rectangle': {
      const radius = named?.cornerRadiusCm ?? family.cornerRadiusCm;
      return roundedRectangle(bottom, tip, half, Math.max(0.01, radius + beyond));
    }
    case 'egg':
      return eggHead(bottom, tip, bottom + (named?.widest ?? family.widest) * (tip - bottom), half);
  }
}

/** What the size of a head is said of: the bed of a strung frame, the whole of a paddle. */
export const faceOf = ({ sport, bed, head }: Pick<Frame, 'sport' | 'bed' | 'head'>): Outline =>
  sport.hoop.sizeIsOf === 'bed' ? bed : head;

const LENGTHS = ['lengthCm', 'headAreaCm2', 'headLengthCm', 'headWidthCm', 'handleLengthCm'] as const;

/**
 * Settles a shape: the outlines of its bed and of the hoop outside it, whose tip lies at the frame's length, and its handle.
 * Tennis and badminton: an ellipse from area and aspect or from length and width. Pickleball: a rounded rectangle. Padel: two half-ellipses.
 * @param shape lengths in cm, area in cm²
 * @throws Fault `not-positive`, `head-too-large` (the head does not fit in front of the handle)
 * @example settleFrame({ sport: 'tennis', lengthCm: 68.58 }).bed.centreXCm // 50.93…
 */
export function settleFrame(shape: FrameShape): Frame {
  const data = sportData(shape.sport);
  const problems: Problem[] = [];
  for (const key of LENGTHS) {
    const value = shape[key];
    if (value !== undefined && !(value > 0)) problems.push({ code: 'not-positive', path: `shape.${key}` });
  }
  if (shape.outline) problems.push(...outlineProblems(shape.outline, 'shape.outline'));
  if (problems.length > 0) throw new Fault(...problems);

  const ownLengthCm = shape.outline?.points.at(-1)?.[0];
  const usualHandle = data.shapes[shape.shape ?? '']?.handleLengthCm ?? data.handleLengthCm;
  const standsOnHandle = data.family.kind === 'rectangle';
  const faceCm = ownLengthCm ?? shape.headLengthCm;
  const given = standsOnHandle && ownLengthCm ? undefined : shape.handleLengthCm;
  const handleLengthCm = given ?? (standsOnHandle && faceCm ? shape.lengthCm - faceCm : usualHandle);
  const size = ownLengthCm ? { lengthCm: ownLengthCm, widthCm: 0 } : headSize(shape, data, handleLengthCm);
  const { hoop } = data;
  const around = hoop.sizeIsOf === 'bed' && !ownLengthCm ? 2 * hoop.widthCm : 0;
  if (
    !(handleLengthCm > 0) ||
    !(size.lengthCm > 0) ||
    size.lengthCm + around + handleLengthCm > shape.lengthCm + 1e-9
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
    head: outlineOf(shape, data, size, hoop.widthCm),
    bed: outlineOf(shape, data, size, 0),
    rim: outlineOf(shape, data, size, OUTWARD[hoop.usual] * hoop.widthCm),
    handleLengthCm,
    handleRadiusCm: data.handleRadiusCm,
    hoopCm: shape.outline?.hoopCm ?? hoop.widthCm,
  };
}

/**
 * The line of a place on the hoop: in parallel with the usual one, inside or outside it. An ellipse that is so much larger stands for the parallel curve.
 * @param place where on the hoop; the sport's usual place if left out
 * @example rimLine(frame, 'bumper').alongCm // half the length of the whole head
 */
export function rimLine({ sport, bed, head, rim }: Frame, place: HoopPlace = sport.hoop.usual): Outline {
  if (OUTWARD[place] === OUTWARD[sport.hoop.usual]) return rim;
  // On the flat of a paddle's rim, where there are no strings to lie beside, that is the edge of its face.
  return OUTWARD[place] === 1 ? head : bed;
}
