export * from './guards';
