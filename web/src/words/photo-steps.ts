/** How a photo of a frame is taken, step by step. */
export const PHOTO_STEPS = [
  'Lay the frame flat on a plain table of another colour.',
  'Lay a sheet of white paper, A4 or Letter, a hand’s width beside it.',
  'Hold the phone level above the middle, and take all of both with some table around.',
];
