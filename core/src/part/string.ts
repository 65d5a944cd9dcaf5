import type { PartRule } from './rule';

export const STRING_MATERIALS = ['polyester', 'nylon', 'gut'] as const;

/** String of a reel. It belongs to the dress and is not placed. */
export interface StringPart {
  kind: 'string';
  material: (typeof STRING_MATERIALS)[number];
  gaugeMm: number;
}

export const stringRule: PartRule<StringPart> = {
  paths: [],
  shared: false,
  cut: false,
  lie: 'strip',
  fixing: 'set-in',
  amounts: () => [],
  step: () => undefined,
  massUncertaintyG: () => 0,
  cautions: () => [],
};
