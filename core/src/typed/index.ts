export * from './columns';
export * from './parse-specs';
