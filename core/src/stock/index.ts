export * from './shelf';
