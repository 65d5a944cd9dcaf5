export * from './alike';
export * from './conformance';
