import type { FilmTrouble } from '@kevro/core';

/** Why a film is not read, and what to do. */
export const FILM_WORDS: Record<FilmTrouble, string> = {
  'film-unreadable': 'This film can’t be opened here. Save it as MP4 and try again.',
  'film-short': 'Fewer than six swings are in the film. Film 20 swings.',
  'film-dark': 'Too dark to see the frame. Turn a lamp on it.',
  'film-still': 'Nothing is seen to swing. Hang it before a plain wall of another colour.',
  'film-cut-off': 'The frame swings out of the picture. Step back until all of it stays in.',
  'film-two-move': 'Two things move in the film. Let only the frame move.',
  'film-wrong-side': 'The face is seen. Film it edge-on, so that it looks like a bar.',
  'film-sideways': 'It sways or turns as it swings. Let it settle, then swing it straight.',
  'film-uneven': 'It does not swing evenly. Fix the camera, and touch nothing while you film.',
  'film-too-little': 'It swings too little to be seen. Swing it wider.',
  'film-too-wide': 'It swings too wide. Let it swing less than 60°.',
};
