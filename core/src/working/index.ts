export * from './explain';
export * from './working';
