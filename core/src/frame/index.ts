export * from './outline';
export * from './path';
export * from './place';
export { integrate } from './quadrature';
export * from './rules';
export type { Point, Segment } from './segment';
export * from './shape';
