export * from './parse-specs';
