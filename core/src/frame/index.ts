export * from './outline';
export * from './path';
export * from './place';
export * from './rules';
export type { Point } from './segment';
export * from './shape';
