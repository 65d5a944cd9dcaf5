import { z } from 'zod';

/** A minute of a phone at its usual quality. */
export const FILM_MOST_BYTES = 300 * 1024 * 1024;

/** What phones send: films of a swing, or photos of a frame. */
export const FILM_KINDS = ['film', 'photo'] as const;
export type FilmKind = (typeof FILM_KINDS)[number];
/** What a browser can draw without running anything that stands in it. */
export const PHOTO_TYPES = ['image/jpeg', 'image/png', 'image/webp'] as const;
export const newFilmLink = z.strictObject({ takes: z.enum(FILM_KINDS).default('film') });

/** A link by which a phone sends films or photos of one frame. */
export const filmLink = z.strictObject({
  code: z.string(),
  endsAt: z.string(),
  address: z.string().nullable().describe('null where the bench machine is on no network'),
  picture: z.string().nullable().describe('that address as a QR code, SVG'),
});
export const filmPage = z.strictObject({
  shop: z.string(),
  frame: z.strictObject({ maker: z.string(), model: z.string(), tag: z.string() }),
  takes: z.enum(FILM_KINDS),
  endsAt: z.string(),
});
export const filmQuery = z.strictObject({ name: z.string().trim().max(120).default('') });
/** A film that is kept with a measurement. */
export const keptFilm = z.strictObject({
  id: z.string(),
  measurementId: z.string(),
  name: z.string(),
  bytes: z.number(),
});
export const keepFilm = z.strictObject({ filmId: z.string(), readingId: z.string() });
export const removeFilm = z.strictObject({ filmId: z.string() });
/** A film that has come, and is not read yet. */
export const sentFilm = z.strictObject({
  id: z.string(),
  name: z.string(),
  type: z.string(),
  bytes: z.number(),
  sentAt: z.string(),
});
export type SentFilm = z.output<typeof sentFilm>;
export type KeptFilm = z.output<typeof keptFilm>;
