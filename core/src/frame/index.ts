export * from './outline';
export { OUTLINE_POINTS, type OutlinePoint } from './own-outline';
export * from './path';
export * from './place';
export * from './rules';
export type { Point } from './segment';
export * from './shape';
