export * from './addition';
export * from './element';
export * from './predict';
export * from './specs';
export * from './sums';
