export * from './swing-fit';
export * from './track';
export * from './read-film';
