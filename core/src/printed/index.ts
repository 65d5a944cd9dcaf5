export * from './words';
export * from './line';
export * from './propose';
export * from './assemble';
