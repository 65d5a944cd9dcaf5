import { DENSITY_SHARE, cutToLength, type PartRule } from './rule';

export const WRAP_MATERIALS = ['leather', 'lead', 'foam'] as const;

/** A strip wound around the handle under the grip: leather, lead sheet, foam. */
export interface Wrap {
  kind: 'wrap';
  material: (typeof WRAP_MATERIALS)[number];
  thicknessMm?: number | undefined;
  /** Grams on one cm of the handle's length. */
  gPerCm: number;
  stepCm: number;
  massShare?: number | undefined;
}

export const wrapRule: PartRule<Wrap> = {
  ...cutToLength<Wrap>(),
  paths: ['handle'],
  shared: true,
  cut: true,
  lie: 'wrap',
  fixing: 'wrap-handle',
  massUncertaintyG: ({ massShare = DENSITY_SHARE }, massG) => massShare * massG,
  sample: { field: 'gPerCm', cm: 10 },
  cautions: ({ material }) => (material === 'lead' ? ['blade', 'lead'] : ['blade']),
};
