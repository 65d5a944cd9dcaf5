import type { PhotoTrouble } from '@kevro/core';

/** Why a photo is not read, and what to do. */
export const PHOTO_WORDS: Record<PhotoTrouble | 'photo-unreadable', string> = {
  'photo-unreadable': 'This photo can’t be opened here. Save it as JPEG and try again.',
  'photo-no-sheet':
    'No sheet of paper is seen. Lay a whole white sheet, A4 or Letter, flat beside the frame, or mark its corners.',
  'photo-other-sheet':
    'The sheet is neither A4 nor Letter, or something covers it. Drag its corners into place, or take the photo again.',
  'photo-over-sheet': 'The frame lies on the sheet or close to it. Lay the sheet a hand’s width away.',
  'photo-cut-off': 'The frame reaches the edge of the photo. Take all of it, with some table around it.',
  'photo-no-frame': 'The frame hardly stands out from the table. Lay it on a plain cloth of another colour.',
  'photo-too-slanted': 'Taken from too far aside. Hold the phone above the middle of the frame.',
  'photo-too-small': 'The frame is small in the photo. Go nearer, until it fills most of it.',
};
