export * from './felt';
export * from './next-step';
