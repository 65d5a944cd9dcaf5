export * from './constants';
export * from './points';
export * from './typed';
export * from './day';
export * from './numbers';
export * from './inches';
export * from './part-weight';
