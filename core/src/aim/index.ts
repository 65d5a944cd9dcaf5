export * from './aim';
export * from './guides';
export * from './other-guides';
