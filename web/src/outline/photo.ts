import type { Photo, Spot2 } from '@kevro/core';

/** A photo this wide shows a frame to a tenth of a millimetre or two; a larger one only takes longer. */
const MOST_WIDE = 2000;
const QUALITY = 0.88;

/** A photo that was opened: its picture for the screen, its light for reading, and what its file says of the lens. */
export interface OpenPhoto {
  photo: Photo;
  /** Drawn anew, so that nothing of the file stays that says where it was taken; and its address on this page. */
  file: Blob;
  address: string;
  focal35Mm: number | undefined;
}

/** The focal length on 35 mm film, mm, where the camera wrote it. */
async function focalOf(file: Blob): Promise<number | undefined> {
  try {
    const { default: ExifReader } = await import('exifreader');
    const tags = ExifReader.load(await file.arrayBuffer());
    const mm = Number(tags.FocalLengthIn35mmFilm?.value);
    return mm >= 10 && mm <= 400 ? mm : undefined;
  } catch {
    // A file without such tags can be read too: the sheet says what it can of the lens.
    return undefined;
  }
}

/** Opens a photo, upright and no larger than it has to be. @throws where the browser cannot read it */
export async function openPhoto(given: Blob): Promise<OpenPhoto> {
  const [focal35Mm, picture] = await Promise.all([focalOf(given), createImageBitmap(given)]);
  const scale = Math.min(1, MOST_WIDE / Math.max(picture.width, picture.height));
  const [width, height] = [Math.round(picture.width * scale), Math.round(picture.height * scale)];
  const canvas = document.createElement('canvas');
  Object.assign(canvas, { width, height });
  const context = canvas.getContext('2d', { willReadFrequently: true });
  if (!context) throw new Error('no canvas');
  context.imageSmoothingQuality = 'high';
  context.drawImage(picture, 0, 0, width, height);
  picture.close();
  const { data } = context.getImageData(0, 0, width, height);
  const file = await new Promise<Blob>((done, fail) =>
    canvas.toBlob((blob) => (blob ? done(blob) : fail(new Error('no picture'))), 'image/jpeg', QUALITY),
  );
  return { photo: { width, height, data }, file, address: URL.createObjectURL(file), focal35Mm };
}

/** A part of a photo: where it begins and how large it is, picture elements. */
export interface Part {
  x: number;
  y: number;
  width: number;
  height: number;
}
/** Beside what is shown so much of it is shown around. */
const AROUND = 0.08;
/** The part of a photo in which all that was found lies; all of it where nothing was. */
export function partAround({ width, height }: Photo, found: readonly Spot2[]): Part {
  if (found.length === 0) return { x: 0, y: 0, width, height };
  const [xs, ys] = [found.map(({ x }) => x), found.map(({ y }) => y)];
  const room = AROUND * Math.max(Math.max(...xs) - Math.min(...xs), Math.max(...ys) - Math.min(...ys));
  const [left, top] = [Math.max(0, Math.min(...xs) - room), Math.max(0, Math.min(...ys) - room)];
  const right = Math.min(width, Math.max(...xs) + room);
  const bottom = Math.min(height, Math.max(...ys) + room);
  return { x: left, y: top, width: right - left, height: bottom - top };
}
