export * from './ellipse';
export * from './place';
export * from './shape';
