export * from './uncertainty';
