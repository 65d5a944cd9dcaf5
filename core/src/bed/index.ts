export * from './kinds';
export * from './change';
export * from './due';
export * from './levers';
