export * from './felt';
export * from './next-step';
export * from './ready-plan';
export * from './what-works';
