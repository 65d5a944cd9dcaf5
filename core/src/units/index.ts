export * from './constants';
export * from './points';
export * from './typed';
export * from './day';
export * from './inches';
export * from './part-weight';
