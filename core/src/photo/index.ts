export type { Corners, Spot2 } from './projection';
export { SHEETS, type Photo, type SheetName } from './sheet';
export type { PhotoTrouble } from './head-finder';
export { readPhoto, type OutlineRead, type PhotoAnswer, type PhotoGiven } from './read-photo';
export * from './corrected';
