export * from './aim';
export * from './guards';
export * from './guides';
export * from './juniors';
export * from './tolerance';
