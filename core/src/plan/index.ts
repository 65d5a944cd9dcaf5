export * from './edit';
export * from './material';
export * from './options';
export * from './plan';
export * from './problem';
export * from './reach';
export * from './schools';
export { searchPlan, type Choice } from './search';
