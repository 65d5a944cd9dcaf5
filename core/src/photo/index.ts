export type { Corners, Spot2 } from './projection';
export { SHEETS, type Photo, type SheetName } from './sheet';
export type { PhotoTrouble } from './silhouette';
export { readPhoto, type OutlineRead, type PhotoAnswer } from './read-photo';
export type { PhotoGiven } from './taken';
export * from './corrected';
