export * from './learn';
export * from './normal-update';
