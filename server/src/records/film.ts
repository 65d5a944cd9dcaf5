import { createHash } from 'node:crypto';
import type { FilmKind, KeptFilm, SentFilm } from '@kevro/contract';
import type { Db, Queries } from '../db/db';
import { tableOf } from '../db/table';

interface Row extends SentFilm {
  frameId: string;
  readingId: string | null;
  isWhole: boolean;
  ofOutline: boolean;
}
const films = tableOf<Row>('film', {
  id: 'id',
  frameId: 'frame_id',
  readingId: 'reading_id',
  name: 'name',
  type: 'type',
  bytes: 'bytes',
  isWhole: 'is_whole',
  ofOutline: 'of_outline',
  sentAt: 'sent_at',
});
const shown = ({ id, name, type, bytes, sentAt }: Row): SentFilm => ({
  id,
  name,
  type,
  // A bigint comes as text from some engines.
  bytes: Number(bytes),
  sentAt,
});

const hashOf = (code: string): string => createHash('sha256').update(code).digest('hex');
interface FilmLinkRow {
  frameId: string;
  takes: FilmKind;
  endsAt: string;
}
const links = tableOf<FilmLinkRow & { codeHash: string }>('film_link', {
  codeHash: 'code_hash',
  frameId: 'frame_id',
  takes: 'takes',
  endsAt: 'ends_at',
});
export const addFilmLink = (q: Queries, code: string, link: FilmLinkRow): Promise<unknown> =>
  links.insert(q, { codeHash: hashOf(code), ...link });
/** The frame that a link is for, what it takes, and until when. */
export const findFilmLink = async (q: Queries, code: string): Promise<FilmLinkRow | undefined> =>
  (await links.find(q, 'where code_hash = $1', [hashOf(code)]))[0];

/** What waits to be read, and is not kept. */
const WAITS = 'reading_id is null and not of_outline';

/** What nobody read or kept in time goes, and links that have ended. */
export async function forgetOldFilms(q: Queries, sentBefore: string, now: string): Promise<void> {
  await q.query(`delete from film where ${WAITS} and sent_at < $1`, [sentBefore]);
  await q.query('delete from film_link where ends_at < $1', [now]);
}

/** Begins a film whose pieces follow; until it is whole nobody sees it. */
export const beginFilm = (
  q: Queries,
  film: Omit<Row, 'isWhole' | 'readingId' | 'ofOutline'>,
): Promise<unknown> => films.insert(q, film);
/** Each piece by itself: a phone may take minutes, and no transaction waits for it. */
export const addPiece = (q: Queries, filmId: string, place: number, data: Buffer): Promise<unknown> =>
  q.query('insert into film_piece (film_id, place, data) values ($1, $2, $3)', [
    filmId,
    place,
    data.toString('base64'),
  ]);
export const finishFilm = async (q: Queries, id: string, bytes: number): Promise<SentFilm | undefined> => {
  const row = await films.change(q, { isWhole: true, bytes }, 'id = $1', id);
  return row && shown(row);
};
/** Forgets a film that is not kept. */
export const dropFilm = (q: Queries, id: string): Promise<unknown> =>
  q.query(`delete from film where id = $1 and ${WAITS}`, [id]);

/** Forgets all films of a frame that wait to be read but for one. */
export const dropOthers = (q: Queries, frameId: string, id: string): Promise<unknown> =>
  q.query(`delete from film where frame_id = $1 and id <> $2 and is_whole and ${WAITS}`, [frameId, id]);

/** Films of a frame that are kept, with the measurements that their readings are of. */
export const keptFilms = async (q: Queries, frameId: string): Promise<KeptFilm[]> =>
  (
    await q.query<KeptFilm>(
      `select f.id, c.measurement_id as "measurementId", f.name, f.bytes
       from film f join reading r on r.id = f.reading_id join capture c on c.id = r.capture_id
       where f.frame_id = $1 and c.measurement_id is not null order by f.seq`,
      [frameId],
    )
  ).map((film) => ({ ...film, bytes: Number(film.bytes) }));
/** @returns whether there is such a film of the frame, and such a reading */
export const keepFilm = async (
  q: Queries,
  frameId: string,
  { filmId, readingId }: { filmId: string; readingId: string },
): Promise<boolean> => {
  const rows = await q.query(
    `update film set reading_id = $3 where id = $1 and frame_id = $2 and is_whole and exists
       (select 1 from reading r join capture c on c.id = r.capture_id where r.id = $3 and c.frame_id = $2)
     returning id`,
    [filmId, frameId, readingId],
  );
  return rows.length > 0;
};
/** The photo that a frame's outline was taken from, where it is kept. */
export const outlinePicture = async (q: Queries, frameId: string): Promise<string | null> =>
  (await films.find(q, 'where frame_id = $1 and of_outline', [frameId]))[0]?.id ?? null;
export const removeOutlinePicture = (q: Queries, frameId: string): Promise<unknown> =>
  q.query('delete from film where frame_id = $1 and of_outline', [frameId]);
/** Keeps one photo with a frame's outline. @returns whether there is such a photo of the frame */
export const keepOutlinePicture = async (q: Queries, frameId: string, id: string): Promise<boolean> => {
  const rows = await q.query(
    `update film set of_outline = true
     where id = $1 and frame_id = $2 and is_whole and type like 'image/%' and ${WAITS} returning id`,
    [id, frameId],
  );
  return rows.length > 0;
};
export const removeFilm = (q: Queries, frameId: string, filmId: string): Promise<unknown> =>
  q.query('delete from film where id = $1 and frame_id = $2', [filmId, frameId]);
/** What was kept with readings that nobody wants any more goes with them. */
export const removeFilmsOfCapture = (q: Queries, captureId: string): Promise<unknown> =>
  q.query('delete from film where reading_id in (select id from reading where capture_id = $1)', [captureId]);
export const removeFilmsOfMeasurement = (q: Queries, measurementId: string): Promise<unknown> =>
  q.query(
    `delete from film where reading_id in
       (select r.id from reading r join capture c on c.id = r.capture_id where c.measurement_id = $1)`,
    [measurementId],
  );

/** Films of a frame that have come whole, in the order of their coming. */
export const filmsOf = async (q: Queries, frameId: string): Promise<SentFilm[]> =>
  (await films.find(q, `where frame_id = $1 and is_whole and ${WAITS} order by seq`, [frameId])).map(shown);
export const findFilm = async (q: Queries, id: string): Promise<SentFilm | undefined> => {
  const [row] = await films.find(q, 'where id = $1 and is_whole', [id]);
  return row && shown(row);
};
/** Its pieces, one after the other. */
export async function* piecesOf(db: Db, id: string): AsyncGenerator<Buffer> {
  for (let place = 0; ; place++) {
    const [piece] = await db.query<{ data: string }>(
      'select data from film_piece where film_id = $1 and place = $2',
      [id, place],
    );
    if (!piece) return;
    yield Buffer.from(piece.data, 'base64');
  }
}
