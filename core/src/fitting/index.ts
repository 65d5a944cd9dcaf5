export * from './stations';
