export { airTwisting } from './air';
export * from './calibration';
export * from './pendulum';
export * from './propagate';
export * from './random';
export * from './repeats';
export * from './twist';
export * from './uncertainty';
export * from './normal-box';
