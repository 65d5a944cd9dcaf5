export * from './aim';
export * from './guides';
