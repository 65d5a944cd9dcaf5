import { byThePiece, oneOfIt, type PartRule } from './rule';

interface Weighed {
  massG: number;
  massUncertaintyG?: number | undefined;
}

/** A dab of tungsten putty of known weight: the same at any place, for trials too. */
export interface Dab extends Weighed {
  kind: 'dab';
}

/** A screw or an insert for a slot. */
export interface Insert extends Weighed {
  kind: 'insert';
}

/** A dampener in the strings. It belongs to the dress and is not placed. */
export interface Dampener extends Weighed {
  kind: 'dampener';
}

/** What a bench scale leaves uncertain of a piece that is weighed by itself, g (from memory). */
const WEIGHED_G = 0.1;

const weighed = <P extends Weighed>(part: P, massG: number): number =>
  (part.massUncertaintyG ?? WEIGHED_G) * Math.sqrt(Math.max(1, massG / part.massG));

export const dabRule: PartRule<Dab> = {
  ...byThePiece<Dab>(({ massG }) => ({ pieceG: massG })),
  paths: ['rim', 'throat', 'handle'],
  shared: false,
  cut: false,
  lie: 'point',
  fixing: 'set-in',
  massUncertaintyG: weighed,
  sample: { field: 'massG' },
  cautions: () => [],
};

export const insertRule: PartRule<Insert> = {
  ...byThePiece<Insert>(({ massG }) => ({ pieceG: massG })),
  paths: ['slot'],
  shared: false,
  cut: false,
  lie: 'point',
  fixing: 'set-in',
  massUncertaintyG: weighed,
  sample: { field: 'massG' },
  cautions: () => [],
};

export const dampenerRule: PartRule<Dampener> = {
  ...oneOfIt<Dampener>(() => 0),
  paths: [],
  shared: false,
  cut: false,
  lie: 'point',
  fixing: 'set-in',
  massUncertaintyG: weighed,
  sample: { field: 'massG' },
  cautions: () => [],
};
