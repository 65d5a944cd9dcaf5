export * from './constants';
export * from './points';
export * from './typed';
