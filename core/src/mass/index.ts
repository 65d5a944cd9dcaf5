export * from './addition';
export * from './derived';
export * from './element';
export * from './join';
export * from './predict';
export * from './specs';
export * from './sums';
export * from './stated';
