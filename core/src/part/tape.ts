import { DENSITY_SHARE, cutToLength, type PartRule } from './rule';

export const TAPE_MATERIALS = ['lead', 'tungsten'] as const;

/** Tape of a roll: goes along the hoop, the throat or the handle, cut to whole steps of length. */
export interface Tape {
  kind: 'tape';
  material: (typeof TAPE_MATERIALS)[number];
  widthMm: number;
  thicknessMm?: number | undefined;
  gPerCm: number;
  /** Pieces are cut to whole multiples of this length, cm. */
  stepCm: number;
  /** Standard uncertainty of its mass as a share; the usual one if left out. */
  massShare?: number | undefined;
}

export const tapeRule: PartRule<Tape> = {
  ...cutToLength<Tape>(),
  paths: ['rim', 'throat'],
  lie: 'strip',
  fixing: 'fix-head',
  massUncertaintyG: ({ massShare = DENSITY_SHARE }, massG) => massShare * massG,
  cautions: ({ material }) => (material === 'lead' ? ['lead'] : []),
};
