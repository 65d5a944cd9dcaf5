export * from './setup';
export * from './steps';
