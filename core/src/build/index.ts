export * from './as-built';
export * from './bench-steps';
export * from './cut-list';
export * from './expected';
export * from './on-frame';
export * from './step-readings';
export * from './surprise';
export * from './template';
