import { oneOfIt, type PartRule } from './rule';

interface Grip {
  massG: number;
  massUncertaintyG?: number | undefined;
  thicknessMm?: number | undefined;
  /** Handle sizes (eighths of an inch of circumference) that it adds. */
  sizes?: number | undefined;
}

/** A base grip, wound over the whole handle. */
export interface BaseGripPart extends Grip {
  kind: 'baseGrip';
  material: 'synthetic' | 'leather';
}

/** A grip that is wound over the base grip. */
export interface Overgrip extends Grip {
  kind: 'overgrip';
}

/** A sleeve that is drawn over the handle and makes it thicker. */
export interface Sleeve extends Grip {
  kind: 'sleeve';
}

/** A grip of its kind weighs so, unless somebody weighed it, g (from memory). */
const GRIP_UNCERTAINTY_G = 0.5;

const rule = <P extends Grip>(): PartRule<P> => ({
  ...oneOfIt<P>((roomCm) => roomCm),
  paths: ['handle'],
  shared: false,
  cut: false,
  lie: 'wrap',
  fixing: 'wrap-handle',
  massUncertaintyG: ({ massUncertaintyG = GRIP_UNCERTAINTY_G }) => massUncertaintyG,
  sample: { field: 'massG' },
  cautions: () => [],
});

export const baseGripRule = rule<BaseGripPart>();
export const overgripRule = rule<Overgrip>();
export const sleeveRule = rule<Sleeve>();
