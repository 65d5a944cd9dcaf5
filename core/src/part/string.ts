import type { PartRule } from './rule';

export const STRING_MATERIALS = ['polyester', 'nylon', 'gut'] as const;
/** What a string is made of, as far as its tension and feel go. Multifilaments and synthetic gut are of nylon. */
export type StringKind = (typeof STRING_MATERIALS)[number];

/** String of a reel. It belongs to the dress and is not placed. */
export interface StringPart {
  kind: 'string';
  material: StringKind;
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
