export * from './growth';
export * from './season';
