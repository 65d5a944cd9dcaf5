export { FILLING_MATERIALS, type Filling } from './filling';
export type { BaseGripPart, Overgrip, Sleeve } from './grip';
export * from './part';
export type { Dab, Dampener, Insert } from './piece';
export * from './placement';
export {
  CAUTIONS,
  DENSITY_SHARE,
  type Amount,
  type Caution,
  type Fixing,
  type Lie,
  type PartRule,
  type Room,
} from './rule';
export { STRING_MATERIALS, type StringPart } from './string';
export { TAPE_MATERIALS, type Tape } from './tape';
export { WRAP_MATERIALS, type Wrap } from './wrap';
