import type { Sport } from '../sport';
import { focalSeen, middleOf, ratioSeen, type Corners, type Focal } from './projection';
import { SHEETS, findSheet, type Photo, type SheetName } from './sheet';
import type { PhotoTrouble } from './silhouette';

/** What is known of a photo beside what it shows. */
export interface PhotoGiven {
  sport: Sport;
  /** How thick the frame is at its head, cm. */
  thicknessCm: number;
  /** The lens as the camera wrote it into the file: its focal length on 35 mm film, mm. */
  focal35Mm?: number | undefined;
  /** The sheet and its corners where the fitter says them; else they are found. */
  sheet?: SheetName | undefined;
  corners?: Corners | undefined;
}
/** How a photo was taken, as far as it is known. */
export interface Taken {
  width: number;
  height: number;
  corners: Corners;
  /** Standard uncertainty of a corner, picture elements. */
  cornerSd: number;
  sheet: SheetName;
  focal: Focal;
  /** How thick the frame is at its head, cm: its edge is seen halfway up. */
  thicknessCm: number;
}
/** A phone’s usual lens on 35 mm film, mm, and how far others are from it, as a share; where the file says it, as a share too (from memory). */
const USUAL_FOCAL = { mm: 26, share: 0.15, said: 0.03 };
const FILM_DIAGONAL_MM = 43.27;
/** A sheet that seems longer or shorter than any known one by more than this, as a share, is none. */
const OTHER_SHEET = 0.05;
const focalBefore = ({ width, height }: Photo, said: number | undefined) => {
  const px = ((said ?? USUAL_FOCAL.mm) / FILM_DIAGONAL_MM) * Math.hypot(width, height);
  return { px, sdPx: px * (said === undefined ? USUAL_FOCAL.share : USUAL_FOCAL.said) };
};

interface NearestSheet {
  sheet: SheetName;
  /** The first of them leads along its longer side. */
  corners: Corners;
  /** How much longer or shorter it seems, as a share. */
  off: number;
}
/** Which sheet comes nearest, and which of its sides is the longer, by how the camera sees it. */
function nearestSheet(photo: Photo, found: Corners, focalPx: number): NearestSheet {
  const ratio = ratioSeen(found, middleOf(photo), focalPx);
  const [a, b, c, d] = found;
  const corners: Corners = ratio >= 1 ? found : [b, c, d, a];
  const seen = Math.max(ratio, 1 / ratio);
  const [best] = (Object.keys(SHEETS) as SheetName[])
    .map((sheet) => ({ sheet, corners, off: Math.abs(seen / (SHEETS[sheet][0] / SHEETS[sheet][1]) - 1) }))
    .toSorted((one, other) => one.off - other.off);
  return best as NearestSheet;
}

/** How the photo was taken: from where the sheet is seen. */
export function takenFrom(
  photo: Photo,
  given: PhotoGiven,
): Taken | { trouble: PhotoTrouble; corners?: Corners } {
  const found = given.corners ? { corners: given.corners, cornerSd: 0.6 } : findSheet(photo);
  if (!found) return { trouble: 'photo-no-sheet' };
  const { cornerSd } = found;
  const { width, height } = photo;
  const before = focalBefore(photo, given.focal35Mm);
  let focal = before;
  let nearest = nearestSheet(photo, found.corners, focal.px);
  // Which side is the longer is said by the usual lens; which sheet it is, once the sheet has said what it can of the lens.
  for (let round = 0; round < 2; round++) {
    nearest = nearestSheet(photo, found.corners, focal.px);
    if (nearest.off >= OTHER_SHEET) break;
    const size = SHEETS[given.sheet ?? nearest.sheet];
    focal = focalSeen(nearest.corners, size, middleOf(photo), cornerSd, before);
  }
  if (nearest.off >= OTHER_SHEET && !given.sheet)
    return { trouble: 'photo-other-sheet', corners: found.corners };
  return {
    width,
    height,
    corners: nearest.corners,
    cornerSd,
    focal,
    sheet: given.sheet ?? nearest.sheet,
    thicknessCm: given.thicknessCm,
  };
}
