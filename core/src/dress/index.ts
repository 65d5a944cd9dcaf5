export * from './components';
export * from './redress';
export * from './strings';
