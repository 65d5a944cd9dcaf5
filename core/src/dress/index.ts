export * from './components';
export * from './redress';
export * from './strings';
export * from './typical';
