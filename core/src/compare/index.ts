export * from './bare';
export * from './become';
export * from './reports';
export * from './setup';
export * from './steps';
export type { KnownSpecs } from '../spec';
