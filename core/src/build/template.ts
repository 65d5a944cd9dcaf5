import {
  angleOfClock,
  atAngle,
  pointAtArc,
  pointOnLine,
  rimLine,
  type Frame,
  type Outline,
  type Point,
} from '../frame';
import { partNamed, type Part, type Placement } from '../part';

/** A point of a template, mm: right of the long axis, and down from the tip. */
export interface OnPaper {
  x: number;
  y: number;
}
/** One strip, or one dab, as it lies on the frame. */
export interface TemplatePiece {
  placementId: string;
  /** Right of the long axis (as the frame is seen with its tip up), left of it, or across it. */
  side: 'right' | 'left' | 'across';
  /** Its middle line from start to end; one point for a dab. */
  line: OnPaper[];
  widthMm: number;
}
/** The head of a frame and what goes on it, at true scale. */
export interface Template {
  widthMm: number;
  heightMm: number;
  /** Outer edge of the head, and the edge of its bed or face. */
  outer: OnPaper[];
  inner: OnPaper[];
  pieces: TemplatePiece[];
  /** Where the hours of the clock stand on the rim: 12 is the tip. */
  hours: { hour: number; at: OnPaper }[];
}

const MM = 10;
/** Around the head, mm. */
const MARGIN_MM = 12;
const STEPS = 96;
/** A strip is drawn by a point every so many cm. */
const STRIP_STEP_CM = 0.25;
/** How wide something is drawn that has no width of its own, mm. */
const DAB_MM = 6;

/**
 * The head at true scale with every strip and dab that lies on it, to be printed, cut out and laid on the frame. Lengths along the rim are kept: a strip is as long
 * on paper as it is cut. What lies in the handle is not on it.
 * @param parts what the placements are made of: a tape is as wide as it is
 * @returns mm, the tip at the top
 * @example templateOf(frame, placements, parts).heightMm // as long as the head (and what lies on the throat), and 24 mm
 */
export function templateOf(frame: Frame, placements: readonly Placement[], parts: readonly Part[]): Template {
  const { rim, head } = frame;
  const widest = Math.max(...around(head).map((p) => Math.abs(p.yCm)));
  const bottom = pointAtArc(head, head.sideCm).xCm;
  const onPaper = ({ xCm, yCm }: Point): OnPaper => ({
    x: (widest + yCm) * MM + MARGIN_MM,
    y: (frame.lengthCm - xCm) * MM + MARGIN_MM,
  });
  const mirrored = ({ xCm, yCm }: Point): Point => ({ xCm, yCm: -yCm });
  const pieces = placements.flatMap((placement): TemplatePiece[] => {
    if (placement.path !== 'rim' && placement.path !== 'throat') return [];
    const { startCm, endCm, path, sides, id: placementId } = placement;
    const line = path === 'rim' && placement.hoop ? rimLine(frame, placement.hoop) : rim;
    const scale = line.sideCm / rim.sideCm;
    const at = (cm: number): Point =>
      path === 'rim' ? pointAtArc(line, scale * cm) : pointOnLine(frame, path, cm);
    const steps = Math.max(1, Math.ceil((endCm - startCm) / STRIP_STEP_CM));
    const points =
      endCm > startCm
        ? Array.from({ length: steps + 1 }, (_, i) => at(startCm + ((endCm - startCm) * i) / steps))
        : [at(startCm)];
    const part = partNamed(parts, placement.partId);
    const widthMm = part && 'widthMm' in part ? part.widthMm : DAB_MM;
    const right: TemplatePiece = { placementId, side: 'right', line: points.map(onPaper), widthMm };
    if (sides === 2) return [right, { ...right, side: 'left', line: points.map(mirrored).map(onPaper) }];
    const acrossTip = startCm < 0 && endCm > 0;
    return [{ ...right, side: acrossTip ? 'across' : (points[0]?.yCm ?? 0) < 0 ? 'left' : 'right' }];
  });
  const lowest = Math.max(
    onPaper({ xCm: bottom, yCm: 0 }).y,
    ...pieces.flatMap(({ line }) => line.map((p) => p.y)),
  );
  return {
    widthMm: 2 * widest * MM + 2 * MARGIN_MM,
    heightMm: lowest + MARGIN_MM,
    outer: around(head).map(onPaper),
    inner: around(frame.bed).map(onPaper),
    pieces,
    hours: HOURS.map((hour) => ({ hour, at: onPaper(atHour(rim, hour)) })),
  };
}

/** Where an hour of the clock stands on the rim; the hours after 6 lie left. */
function atHour(rim: Outline, hour: number): Point {
  const { xCm, yCm } = atAngle(rim, angleOfClock(hour > 6 ? 12 - hour : hour));
  return { xCm, yCm: hour > 6 ? -yCm : yCm };
}

const HOURS = [12, 1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11];

/** Once around an outline, from the bottom over the tip and back. */
const around = (outline: Outline): Point[] =>
  Array.from({ length: 2 * STEPS + 1 }, (_, i) =>
    pointAtArc(outline, ((i - STEPS) / STEPS) * outline.sideCm),
  );

/** A sheet of a template: the part of it that it shows begins here, mm. */
export interface Tile {
  column: number;
  row: number;
  x: number;
  y: number;
}

/** Sheets overlap by so much, so that they can be stuck together, mm. */
export const OVERLAP_MM = 10;

/**
 * The sheets that a template takes: one where it fits, else as many as are needed, each overlapping its neighbours.
 * @param sheet what a printer can print on, mm @returns row by row
 * @example tilesOf({ widthMm: 280, heightMm: 360 }, { widthMm: 190, heightMm: 277 }).length // 4
 */
export function tilesOf(
  { widthMm, heightMm }: Pick<Template, 'widthMm' | 'heightMm'>,
  sheet: { widthMm: number; heightMm: number },
): Tile[] {
  const count = (whole: number, one: number): number =>
    Math.max(1, Math.ceil((whole - OVERLAP_MM) / (one - OVERLAP_MM) - 1e-9));
  const [columns, rows] = [count(widthMm, sheet.widthMm), count(heightMm, sheet.heightMm)];
  return Array.from({ length: rows * columns }, (_, i): Tile => {
    const [row, column] = [Math.floor(i / columns), i % columns];
    return { row, column, x: column * (sheet.widthMm - OVERLAP_MM), y: row * (sheet.heightMm - OVERLAP_MM) };
  });
}
