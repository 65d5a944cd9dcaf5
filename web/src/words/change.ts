import { partWeight } from './part-weight';
import { zoneOf, type ChangeTerm, type Frame } from '@kevro/core';
import { ZONE_NAMES } from '.';

const grams = (massG: number): string => partWeight(massG, 2);

/** What a plan does, as one line of a working: «shoulders, tungsten tape 6 mm, 4.51 g». */
export function changeWords(term: ChangeTerm, frame: Frame): string {
  switch (term.kind) {
    case 'placement': {
      const { placement, part } = term;
      const of = part ? `, ${part.name}` : '';
      return `${ZONE_NAMES[zoneOf(frame, placement)].toLowerCase()}${of}, ${grams(placement.massG)}`;
    }
    case 'removal': {
      const { of, left } = term.removal;
      const zone = ZONE_NAMES[zoneOf(frame, of)].toLowerCase();
      return left ? `${zone}, down to ${grams(left.massG)}` : `${zone}, ${grams(of.massG)} taken off`;
    }
    case 'dress':
      return `${term.part.name}, ${term.part.takenOff ? 'taken off' : 'put on'}`;
  }
}
