export * from './calibration';
export * from './pendulum';
export * from './propagate';
export * from './repeats';
export * from './twist';
export * from './uncertainty';
