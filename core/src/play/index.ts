export * from './felt';
export * from './next-step';
export * from './programme';
export * from './programme-state';
export * from './ready-plan';
export * from './suggest';
export * from './what-works';
