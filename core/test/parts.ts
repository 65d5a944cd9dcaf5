import { fromSpot } from '../src/plan';
import { zoneMiddle, zoneNamed, type Frame } from '../src/frame';
import type { Part, Placement } from '../src/part';
import type { ZoneName } from '../src/sport';

/** Parts as a shop has them. */
export const tape: Part = {
  id: 'tape',
  kind: 'tape',
  name: 'grey tape 6 mm',
  material: 'tungsten',
  widthMm: 6,
  gPerCm: 0.265,
  stepCm: 0.5,
};
export const lead: Part = { ...tape, id: 'lead', name: 'lead tape 6 mm', material: 'lead' };
export const putty: Part = {
  id: 'putty',
  kind: 'filling',
  name: 'handle putty',
  material: 'putty',
  dabG: 0.5,
  gPerCm: 1.6,
};
export const silicone: Part = { ...putty, id: 'silicone', material: 'silicone', setMinutes: 720 };

/** So much of a part around the middle of a zone, in strips of this length. */
export function laidAt(frame: Frame, zone: ZoneName, part: Part, massG: number, spanCm: number): Placement {
  return fromSpot(frame, { at: { zone }, massG, spanCm }, { id: zone, partId: part.id });
}

/** Where the middle of a zone lies along its line, cm. */
export const middleOfZone = (frame: Frame, zone: ZoneName): number =>
  zoneMiddle(frame, zoneNamed(frame, zone));
