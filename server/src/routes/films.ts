import { randomBytes } from 'node:crypto';
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import QRCode from 'qrcode';
import type { Request, Router } from 'express';
import { FILM_MOST_BYTES, PHOTO_TYPES, calls, type FilmKind, type SentFilm } from '@kevro/contract';
import type { Acts } from '../act';
import type { Clock } from '../clock';
import type { Db } from '../db/db';
import { ApiProblem } from '../problem';
import {
  addFilmLink,
  addPiece,
  beginFilm,
  dropFilm,
  dropOthers,
  filmsOf,
  findFilm,
  findFilmLink,
  finishFilm,
  forgetOldFilms,
  keepFilm,
  keptFilms,
  piecesOf,
  removeFilm,
} from '../records/film';
import { newId } from '../records/id';
import { codeOf } from '../records/link';
import { theShop } from '../records/shop';
import { notForReaders, onlySignedIn } from '../safety/access';
import { ofShop } from '../shops/of-shop';
import { frameOrNone } from './frames';
import { answer, readAs } from './route';

/** A link is good for one sitting at the bench; a film waits as long to be read. */
const LINK_MINUTES = 60;
const FILM_MINUTES = 120;
/** So much of a film is one row: a backup reads five hundred rows at once. */
const PIECE_BYTES = 48 * 1024;
const minutesFrom = (now: string, minutes: number): string =>
  new Date(Date.parse(now) + minutes * 60_000).toISOString();

async function linkOrNone(db: Db, code: string | undefined, now: string) {
  const link = await findFilmLink(db, code ?? '');
  if (!link) throw new ApiProblem('not-found');
  if (Date.parse(link.endsAt) <= Date.parse(now)) throw new ApiProblem('link-ended');
  return link;
}

/** A body in pieces of one size. @throws ApiProblem where it is larger than any film */
async function* pieces(request: Request): AsyncGenerator<Buffer> {
  let waiting: Buffer[] = [];
  let [length, all] = [0, 0];
  for await (const chunk of request as AsyncIterable<Buffer>) {
    all += chunk.length;
    if (all > FILM_MOST_BYTES) throw new ApiProblem('too-large');
    waiting.push(chunk);
    length += chunk.length;
    while (length >= PIECE_BYTES) {
      const joined = Buffer.concat(waiting);
      yield joined.subarray(0, PIECE_BYTES);
      waiting = [joined.subarray(PIECE_BYTES)];
      length -= PIECE_BYTES;
    }
  }
  if (length > 0) yield Buffer.concat(waiting);
}

/** Which of the two a body is. What a browser might run is neither: it is shown again from here. */
function kindOf(type: string): FilmKind | undefined {
  if (type.startsWith('video/')) return 'film';
  return PHOTO_TYPES.some((known) => type.startsWith(known)) ? 'photo' : undefined;
}

/** Stores the body of a request as a film or a photo of a frame. @param takes which of them it must be */
async function receive(
  db: Db,
  now: Clock,
  frameId: string,
  request: Request,
  takes?: FilmKind,
): Promise<SentFilm | undefined> {
  const { name } = readAs(calls.sendFilm.query, request.query);
  const type = request.headers['content-type'] ?? '';
  const kind = kindOf(type);
  const wrong = (takes ?? 'film') === 'photo' ? 'not-a-photo' : 'not-a-film';
  if (!kind || kind !== (takes ?? kind)) throw new ApiProblem(wrong);
  if (Number(request.headers['content-length'] ?? 0) > FILM_MOST_BYTES) throw new ApiProblem('too-large');
  const id = newId();
  await beginFilm(db, { id, frameId, name, type: type.slice(0, 100), bytes: 0, sentAt: now() });
  try {
    let [place, bytes] = [0, 0];
    for await (const piece of pieces(request)) {
      await addPiece(db, id, place++, piece);
      bytes += piece.length;
    }
    if (bytes === 0) throw new ApiProblem(wrong);
    return await finishFilm(db, id, bytes);
  } catch (error) {
    // What came of it is no film.
    await dropFilm(db, id);
    throw error;
  }
}

/** Bodies that are films, so that they stand before what reads JSON: a phone's that comes by a link, and this device's own. */
export function filmLinkRoutes(router: Router, db: Db, now: Clock): void {
  router.put(calls.sendFilm.path, async (request, response) => {
    const { frameId, takes } = await linkOrNone(db, String(request.params.code), now());
    const film = await receive(db, now, frameId, request, takes);
    // The last one counts: who has the link fills no disk with more of them.
    if (film) await dropOthers(db, frameId, film.id);
    response.json(film);
  });
  router.post(calls.addFilm.path, onlySignedIn, notForReaders, async (request, response) => {
    const { id } = await frameOrNone(db, String(request.params.id));
    response.json(await receive(db, now, id, request));
  });
}
export function filmPageRoutes(router: Router, db: Db, now: Clock): void {
  answer(router, 'filmPage', async ({ params }) => {
    const { frameId, endsAt, takes } = await linkOrNone(db, params.code, now());
    const { maker, model, tag } = await frameOrNone(db, frameId);
    return { shop: (await theShop(db)).name, frame: { maker, model, tag }, takes, endsAt };
  });
}

/** Films that phones sent, for the page that asked for them, and films that are kept. */
export function filmRoutes(
  router: Router,
  acts: Acts,
  now: Clock,
  { addresses, shopCode }: { addresses: () => readonly string[]; shopCode: string | undefined },
): void {
  const { db } = acts;
  answer(router, 'makeFilmLink', async ({ params, body }) => {
    const { id } = await frameOrNone(db, params.id ?? '');
    const at = now();
    await forgetOldFilms(db, minutesFrom(at, -FILM_MINUTES), at);
    const code = codeOf(randomBytes(16).toString('hex'));
    const endsAt = minutesFrom(at, LINK_MINUTES);
    await addFilmLink(db, code, { frameId: id, takes: body.takes, endsAt });
    const [base] = addresses();
    const address = base === undefined ? null : `${base}/filmed/${code}${ofShop(shopCode)}`;
    const picture =
      address && (await QRCode.toString(address, { type: 'svg', margin: 2, errorCorrectionLevel: 'M' }));
    return { code, endsAt, address, picture };
  });
  acts.on(router, 'keepFilm', async ({ tx, id, body }) => {
    if (!(await keepFilm(tx, id, body))) throw new ApiProblem('not-found');
    return keptFilms(tx, id);
  });
  acts.on(router, 'removeFilm', async ({ tx, id, body }) => {
    await removeFilm(tx, id, body.filmId);
    return keptFilms(tx, id);
  });
  answer(router, 'sentFilms', async ({ params }) => filmsOf(db, (await frameOrNone(db, params.id ?? '')).id));
  answer(router, 'dropFilm', async ({ params }) => {
    await dropFilm(db, params.id ?? '');
    return { dropped: true as const };
  });
  router.get(calls.sentFilm.path, async (request, response) => {
    const film = await findFilm(db, String(request.params.id));
    if (!film) throw new ApiProblem('not-found');
    response.setHeader('content-type', film.type);
    response.setHeader('content-length', film.bytes);
    await pipeline(Readable.from(piecesOf(db, film.id)), response).catch(() => undefined);
  });
}
