export * from './bench-steps';
export * from './cut-list';
