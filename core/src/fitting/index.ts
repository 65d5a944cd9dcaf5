export * from './facts';
export * from './frame-state';
export * from './round';
