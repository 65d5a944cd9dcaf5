import compression from 'compression';
import express, { type Express } from 'express';
import { openApiDocument } from '@kevro/contract';
import { systemClock, type Clock } from './clock';
import { whileCallerStays } from './compute/caller';
import type { Compute } from './compute/compute';
import type { Db } from './db/db';
import { ApiProblem, problemHandler } from './problem';
import type { Hub } from './instruments/hub';
import type { KeptBackups } from './backup/kept';
import { accessRoutes } from './routes/access';
import { onlySignedIn } from './safety/access';
import { backupRoutes } from './routes/backups';
import { captureRoutes } from './routes/captures';
import { computeRoutes } from './routes/compute';
import { fittingRoutes } from './routes/fittings';
import { frameRoutes } from './routes/frames';
import { housekeepingRoutes, notingChanges } from './routes/housekeeping';
import { instrumentRoutes } from './routes/instruments';
import { libraryRoutes } from './routes/library';
import { measurementRoutes } from './routes/measurements';
import { linkRoutes, playRoutes } from './routes/play';
import { paperRoutes } from './routes/papers';
import { playerRoutes } from './routes/players';
import { answer } from './routes/route';
import { safeHeaders } from './safety/headers';
import { onlyJson, onlyOwnPages, ownNames } from './safety/own-pages';
import { onlyWithRoom, type Room } from './safety/room';
import { onlyReadableText } from './safety/readable-text';
import { importRoutes, setupRoutes } from './routes/setups';

export interface AppParts {
  db: Db;
  hub: Hub;
  compute: Compute;
  /** Folder of the built page; without it only the API is served. */
  pageFolder?: string;
  /** Backups that are made by themselves; none where nothing is kept on a disk. */
  backups?: KeptBackups;
  /** Where other devices find the shop; nowhere while only this machine is listened to. */
  addresses?: () => readonly string[];
  /** Free bytes where the shop is kept; without end where it is kept in memory. */
  room?: Room;
  /** The names under which the shop may be asked for. */
  isOwnName?: (host: string) => boolean;
  now?: Clock;
}

/** What a device may send before it is let in. */
const OPEN_TO_ALL = ['/sign-in', '/sign-out', '/passphrase', '/pairings', '/played'];
const OPEN_LIMIT = '4kb';
/** What a form or a plan needs is far less. */
const BODY_LIMIT = '1mb';
/** Computations over lists that the caller brings along take 100,000 setups. */
const LIST_LIMIT = '32mb';
const TAKES_LISTS = ['/compute/nearest', '/compute/reach'];

export function createApp({
  db,
  hub,
  compute,
  pageFolder,
  backups,
  addresses = () => [],
  room = () => Infinity,
  isOwnName = ownNames(),
  now = systemClock,
}: AppParts): Express {
  const app = express();
  app.disable('x-powered-by');
  app.use(safeHeaders);
  app.use(onlyOwnPages(isOwnName));
  app.use(compression());

  const api = express.Router();
  const signedIn = onlySignedIn(db, now);
  const json = (limit: string) => express.json({ limit, strict: false });
  api.use(onlyReadableText);
  const withRoom = onlyWithRoom(room);
  api.use('/setups/import', signedIn, withRoom);
  importRoutes(api, db);
  api.use(onlyJson);
  api.use(notingChanges(db, now));
  api.use(OPEN_TO_ALL, json(OPEN_LIMIT), onlyReadableText);
  api.use('/played', withRoom);
  accessRoutes(api, db, now, addresses);
  linkRoutes(api, db, now);
  answer(api, 'health', async () => {
    await db.query('select 1');
    return { status: 'ok' as const };
  });
  api.get('/openapi.json', (_request, response) => {
    response.json(openApiDocument());
  });
  // Nothing that follows is read, let alone answered, for a device that is not let in.
  api.use(signedIn);
  api.use(withRoom);
  api.use(TAKES_LISTS, json(LIST_LIMIT));
  // After the body is read: what reads it forgets on whose behalf.
  api.use(json(BODY_LIMIT), onlyReadableText, whileCallerStays);
  computeRoutes(api, compute);
  playerRoutes(api, db, now);
  frameRoutes(api, db);
  measurementRoutes(api, db, now);
  captureRoutes(api, db, now, hub);
  instrumentRoutes(api, db, hub);
  libraryRoutes(api, db, hub, now);
  setupRoutes(api, db);
  fittingRoutes(api, db, now);
  playRoutes(api, db, now, { hub, addresses });
  housekeepingRoutes(api, db);
  paperRoutes(api, db, now);
  backupRoutes(api, db, now, backups);
  api.use(() => {
    throw new ApiProblem('not-found');
  });
  app.use('/api/v1', api);

  if (pageFolder) {
    app.use(express.static(pageFolder, { index: false, immutable: true, maxAge: '1y' }));
    // Every other path is the page's own; a file that is not there is not the page.
    app.get(/^\/(?!api\/)[^.]*$/, (_request, response) => {
      response.set('Cache-Control', 'no-cache').sendFile('index.html', { root: pageFolder });
    });
  }
  app.use(() => {
    throw new ApiProblem('not-found');
  });
  app.use(problemHandler);
  return app;
}
