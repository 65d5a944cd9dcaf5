export * from './become';
export * from './setup';
export * from './steps';
export type { KnownSpecs } from '../spec';
