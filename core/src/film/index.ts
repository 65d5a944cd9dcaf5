export * from './swing-fit';
export type { Film } from './pictures';
export type { Bar } from './bar-finder';
export type { FilmTrouble } from './track';
export * from './read-film';
