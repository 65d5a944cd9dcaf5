export * from './aim';
