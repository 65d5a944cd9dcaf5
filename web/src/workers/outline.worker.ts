import { expose } from 'comlink';
import { readPhoto, type Photo, type PhotoAnswer, type PhotoGiven } from '@kevro/core';

const outlines = {
  /** Reads the outline of a frame from a photo, beside the page: it takes a second or two. */
  read: (photo: Photo, given: PhotoGiven): PhotoAnswer => readPhoto(photo, given),
};
export type OutlineWorker = typeof outlines;
expose(outlines);
