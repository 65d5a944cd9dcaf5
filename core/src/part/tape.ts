import { DENSITY_SHARE, besideOneAnother, cutToLength, type PartRule } from './rule';

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

/** The densest of all materials, g/cm³ (osmium; CRC Handbook of Chemistry and Physics). With its glue a tape is lighter. */
const DENSEST = 22.6;

/** On the handle tape lies on every other bevel, so that the grip stays even (common practice). */
const BEVELS = 4;
const lengths = cutToLength<Tape>();

export const tapeRule: PartRule<Tape> = {
  ...lengths,
  amounts: (tape, room) =>
    room.path === 'handle' ? besideOneAnother(tape, BEVELS, room) : lengths.amounts(tape, room),
  paths: ['rim', 'throat', 'handle'],
  onHandle: { strips: BEVELS },
  shared: true,
  cut: true,
  lie: 'strip',
  fixing: 'fix-head',
  massUncertaintyG: ({ massShare = DENSITY_SHARE }, massG) => massShare * massG,
  problems: ({ widthMm, thicknessMm, gPerCm }) =>
    thicknessMm !== undefined && gPerCm > (widthMm / 10) * (thicknessMm / 10) * DENSEST
      ? [{ code: 'heavier-than-metal', path: 'gPerCm' }]
      : [],
  sample: { field: 'gPerCm', cm: 100 },
  cautions: ({ material }) => (material === 'lead' ? ['lead'] : []),
};
