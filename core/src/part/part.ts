import { fillingRule, type Filling } from './filling';
import {
  baseGripRule,
  overgripRule,
  sleeveRule,
  type BaseGripPart,
  type Overgrip,
  type Sleeve,
} from './grip';
import { dabRule, dampenerRule, insertRule, type Dab, type Dampener, type Insert } from './piece';
import type { Path } from '../sport';
import type { Fixing, Lie, PartRule } from './rule';
import { stringRule, type StringPart } from './string';
import { tapeRule, type Tape } from './tape';
import { wrapRule, type Wrap } from './wrap';

/** What a part is, by its kind. */
export type PartData =
  Tape | Filling | Wrap | BaseGripPart | Overgrip | Sleeve | Dampener | StringPart | Insert | Dab;
export type PartKind = PartData['kind'];

/** Anything that the shop puts on a frame. */
export type Part = PartData & {
  id: string;
  name: string;
  /** Its weight is that of its kind: nobody weighed this one. */
  typical?: true | undefined;
};

type Rules = { [K in PartKind]: PartRule<Extract<PartData, { kind: K }>> };

/** Every kind of part there is; a new one is one file and one entry here. See docs/add-a-part.md. */
const RULES: Rules = {
  tape: tapeRule,
  filling: fillingRule,
  wrap: wrapRule,
  baseGrip: baseGripRule,
  overgrip: overgripRule,
  sleeve: sleeveRule,
  dampener: dampenerRule,
  string: stringRule,
  insert: insertRule,
  dab: dabRule,
};

export const PART_KINDS = Object.keys(RULES) as PartKind[];

/** The rule of a part's kind. */
export const partRule = (part: PartData): PartRule<PartData> =>
  // The table gives each kind its own rule; the compiler cannot follow that through a union.
  RULES[part.kind] as unknown as PartRule<PartData>;

/** How a part lies on a line, and in which bench step it is put there: tape on the handle lies around it, under the grip. */
export function lyingOn(part: PartData, path: Path): { lie: Lie; fixing: Fixing } {
  const { lie, fixing, onHandle } = partRule(part);
  return path === 'handle' && onHandle ? { lie: 'wrap', fixing: 'wrap-handle' } : { lie, fixing };
}

export const partNamed = (parts: readonly Part[], id: string): Part | undefined =>
  parts.find((part) => part.id === id);
