export * from './estimate';
export * from './judge';
export * from './reading';
export * from './settle';
export * from './surest-pivot';
export * from './instrument-reading';
export * from './measurement';
