import { shortWeight } from '../words/part-weight';
import {
  faceOf,
  outlineArea,
  settleFrame,
  swingAtPlaces,
  zoneOf,
  type AnySpecKey,
  type AxisSpecs,
  type Frame,
} from '@kevro/core';
import type { FramePage } from '@kevro/contract';
import { dressWords } from '../words/dress';
import type { useUnits } from '../stores/units';
import { SPORT_NAMES, ZONE_NAMES } from '../words';

type Shown = Pick<ReturnType<typeof useUnits>, 'showMeasure' | 'showFound'>;
type Show = (key: AnySpecKey, value: number) => string;

/** Its swing weight about the places that people speak of, beside that about the hand. */
function swingWords(frame: Frame, specs: AxisSpecs, show: Show): string {
  const { butt, wrist, balance } = swingAtPlaces(specs, frame.sport.axisCm);
  const [a, b, c] = [butt, wrist, balance].map((value) => show('swingWeight', value));
  return `butt ${a}, wrist ${b}, balance point ${c} kg·cm²`;
}

/** How large its head is: by its own outline where it has one, else as it was typed. */
function headWords(
  { outline, headAreaCm2 }: FramePage['frame']['shape'],
  frame: Frame,
  units: Shown,
): string | undefined {
  if (!outline) return headAreaCm2 ? units.showMeasure('area', headAreaCm2) : undefined;
  const area = outlineArea(faceOf(frame));
  const band = outline.faceSdCm2 === undefined ? '' : ` ±${units.showFound('area', 2 * outline.faceSdCm2)}`;
  return `${units.showFound('area', area)}${band}, ${units.showFound('length', 2 * frame.head.acrossCm)} wide, by its own outline`;
}

/**
 * What a frame is, name and value, as far as it is known.
 * @param specs as it was measured last @param show a spec as the fitter reads it
 */
export function factsOf(
  { frame: f, ownerName }: FramePage,
  specs: AxisSpecs | undefined,
  units: Shown,
  show: Show,
): [string, string][] {
  const frame = settleFrame(f.shape);
  const all: [string, string | undefined][] = [
    ['Sport', SPORT_NAMES[f.shape.sport] + (f.shape.shape ? `, ${f.shape.shape}` : '')],
    ['Owner', ownerName ?? 'shop stock'],
    ['Paint says', f.paint],
    ['Length', units.showMeasure('length', f.shape.lengthCm)],
    ['Head', headWords(f.shape, frame, units)],
    ['String pattern', f.pattern],
    ['Beam', f.beam ? `${f.beam} mm` : undefined],
    ['Stiffness', f.stiffness === null ? undefined : String(f.stiffness)],
    ['Grip size', f.gripSize],
    ['Swings about', specs && swingWords(frame, specs, show)],
    ['On it', dressWords(f.onIt, f.shape.sport)],
    ...f.weights.map((w, i): [string, string] => [
      i === 0 ? 'Pieces on it' : '',
      `${shortWeight(w.massG, 2)} ${w.what} · ${ZONE_NAMES[zoneOf(frame, w)].toLowerCase()}${w.sides === 2 ? ', both sides' : ''}`,
    ]),
    ['Note', f.note],
  ];
  return all.filter((row): row is [string, string] => Boolean(row[1]));
}
