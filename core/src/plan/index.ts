export * from './material';
export * from './milp';
export * from './options';
export * from './plan';
export * from './problem';
export * from './schools';
export * from './solve';
