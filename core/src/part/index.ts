export { FILLING_MATERIALS } from './filling';
export * from './part';
export * from './placement';
export { CAUTIONS, DENSITY_SHARE, type Amount, type Caution } from './rule';
export { startersFor, weighed, type Starter } from './starter';
export { STRING_MATERIALS, type StringKind } from './string';
export * from './stringing-job';
export { TAPE_MATERIALS } from './tape';
export { WRAP_MATERIALS } from './wrap';
