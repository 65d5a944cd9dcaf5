import { DENSITY_SHARE, byThePiece, type PartRule } from './rule';

export const FILLING_MATERIALS = ['putty', 'silicone'] as const;

/** Putty or silicone for the inside of the handle: whole dabs. */
export interface Filling {
  kind: 'filling';
  material: (typeof FILLING_MATERIALS)[number];
  dabG: number;
  /** Grams that fill one cm of the handle. */
  gPerCm: number;
  /** How long it sets before a grip goes over it, minutes; nothing for what does not set. */
  setMinutes?: number | undefined;
  /** Standard uncertainty of its mass as a share; the usual one if left out. */
  massShare?: number | undefined;
}

export const fillingRule: PartRule<Filling> = {
  ...byThePiece<Filling>(({ dabG, gPerCm }) => ({ pieceG: dabG, gPerCm })),
  paths: ['handle'],
  shared: true,
  cut: false,
  lie: 'column',
  fixing: 'fill-handle',
  massUncertaintyG: ({ massShare = DENSITY_SHARE }, massG) => massShare * massG,
  sample: { field: 'gPerCm', cm: 10 },
  cautions: ({ material }) => (material === 'silicone' ? ['solvent'] : []),
  waitMinutes: ({ setMinutes = 0 }) => setMinutes,
};
