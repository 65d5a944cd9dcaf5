export * from './components';
export * from './redress';
