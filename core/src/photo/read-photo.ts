import type { OutlinePoint } from '../frame';
import { sportData, type SportData } from '../sport';
import { closedBy, downward, evenly, smoothed, withoutStrays, type Half } from './half-head';
import { bottomOf, bridgeAt } from './head-bottom';
import { centred, endOf, hoopSeen, pairsOf, type Pair } from './head-edge';
import { cameraOf, middleOf, seenBy, type Corners, type Seen } from './projection';
import { SHEETS, type Photo } from './sheet';
import { alongOf, placeOn, silhouetteOf, type Axis, type PhotoTrouble, type Silhouette } from './silhouette';
import { tableOf } from './table';
import { takenFrom, type PhotoGiven, type Taken } from './taken';

/** What a photo of a frame beside a sheet came to. */
export interface OutlineRead {
  taken: Taken;
  /** How high above the table the camera was, cm, and how far it looked away from straight down, degrees. */
  cameraCm: number;
  tiltDeg: number;
  /** How the plane of the frame's edge is seen: from the table's places, cm, to the picture. */
  seen: Seen;
  axis: Axis;
  lengthCm: number;
  points: OutlinePoint[];
  /** How wide the hoop was seen to be, cm; undefined for heads whose size is that of the whole, or where it was not seen. */
  hoopCm?: number;
  /** Whether the lower end of the head was seen, or only guessed. */
  bottomSeen: boolean;
}
export type PhotoAnswer = OutlineRead | { trouble: PhotoTrouble; corners?: Corners };

const MOST_TILT_DEG = 50;
/** A frame this small in its photo is not read to a millimetre: picture elements a cm. */
const FEWEST_PER_CM = 5;

/** Where a throat may hide the head, only directions up to here are looked in: clock hour 3:45, radians. */
const WAYS_SEEN = 1.95;
/**
 * Reads a frame's outline from a photo: finds the sheet, takes out the perspective at the height of the frame's edge, finds the frame against the table, its long axis
 * and the head's edge on both sides, and closes it where the throat hides it.
 * @returns the outline, or what is wrong with the photo @example readPhoto(photo, { sport: 'tennis', thicknessCm: 2.3 })
 */
export function readPhoto(photo: Photo, given: PhotoGiven): PhotoAnswer {
  const sport = sportData(given.sport);
  const taken = takenFrom(photo, given);
  if ('trouble' in taken) return taken;
  const { corners } = taken;
  const size = SHEETS[taken.sheet];
  const camera = cameraOf(seenBy(corners, size[0], size[1]), middleOf(photo), taken.focal.px);
  if (camera.tiltDeg > MOST_TILT_DEG) return { trouble: 'photo-too-slanted', corners };
  const plane = camera.above(given.thicknessCm / 2);
  const [a, b] = [corners[0], corners[1]];
  if (Math.hypot(b.x - a.x, b.y - a.y) / size[0] < FEWEST_PER_CM)
    return { trouble: 'photo-too-small', corners };
  const rough = silhouetteOf(tableOf(photo, plane, corners), sport);
  if ('trouble' in rough) return { ...rough, corners };
  return outlineFrom(photo, plane, rough, sport, taken, camera);
}

function outlineFrom(
  photo: Photo,
  plane: Seen,
  rough: Silhouette,
  sport: SportData,
  taken: Taken,
  camera: { heightCm: number; tiltDeg: number },
): PhotoAnswer {
  let seen = rough;
  let bottom = bottomOf(seen, sport);
  let pairs: Pair[] = [];
  for (let round = 0; round < 3; round++) {
    const centre = (seen.lengthCm + bottom.along) / 2;
    pairs = pairsOf(photo, plane, seen, centre, bottom.isHidden ? WAYS_SEEN : Math.PI);
    if (pairs.length < 20) return { trouble: 'photo-no-frame', corners: taken.corners };
    seen = { ...seen, axis: centred(seen.axis, pairs) };
    const butt = endOf(photo, plane, seen, -1);
    const tip = endOf(photo, plane, seen, 1);
    const { x, y } = placeOn(seen.axis, butt, 0);
    seen = { ...seen, axis: { ...seen.axis, buttX: x, buttY: y }, lengthCm: tip - butt };
    bottom = bottomOf(seen, sport);
  }
  const lengthCm = seen.lengthCm;
  const centre = (lengthCm + bottom.along) / 2;
  const radiiOf = (side: 'left' | 'right'): number[] =>
    withoutStrays(
      pairs.map((pair) => {
        const [along, across] = alongOf(seen.axis, pair[side]);
        return Math.hypot(along - centre, across);
      }),
    );
  const [left, right] = [radiiOf('left'), radiiOf('right')];
  const radii = smoothed(left.map((radius, i) => (radius + (right[i] ?? radius)) / 2));
  let side = pairs.flatMap(({ left, right }, i): Half[] => {
    const [[a, b], [c, d]] = [alongOf(seen.axis, left), alongOf(seen.axis, right)];
    const angle = Math.atan2((Math.abs(b) + Math.abs(d)) / 2, (a + c) / 2 - centre);
    const radius = radii[i] ?? 0;
    return [[centre + radius * Math.cos(angle), radius * Math.sin(angle)]];
  });
  side = downward([[lengthCm, 0], ...side.filter(([, half]) => half > 0.3)]);
  if (bottom.isHidden) {
    const lowest = bottom.isSeen ? bridgeAt(photo, plane, seen, bottom.along) : bottom.along;
    side.push(...closedBy(side, lowest));
  } else {
    const { narrow } = bottom;
    const end = side.findIndex(
      ([along, half], i) => i > side.length / 2 && (half < narrow || along < bottom.along),
    );
    if (end > 0) side = side.slice(0, end);
    side.push([Math.min(bottom.along, side.at(-1)?.[0] ?? 0), 0]);
  }
  const { hoop } = sport;
  const hoopCm = hoop.sizeIsOf === 'bed' ? hoopSeen(photo, plane, seen, centre, pairs) : undefined;
  return {
    taken,
    cameraCm: camera.heightCm,
    tiltDeg: camera.tiltDeg,
    seen: plane,
    axis: seen.axis,
    lengthCm,
    points: evenly(side, lengthCm),
    ...(hoopCm === undefined ? {} : { hoopCm: Math.round(100 * hoopCm) / 100 }),
    bottomSeen: bottom.isSeen,
  };
}
