export * from './components';
export * from './grips';
export * from './redress';
export * from './strings';
