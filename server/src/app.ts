import compression from 'compression';
import express, { type Express } from 'express';
import { openApiDocument } from '@kevro/contract';
import { systemClock, type Clock } from './clock';
import type { Compute } from './compute/compute';
import type { Db } from './db/db';
import { ApiProblem, problemHandler } from './problem';
import type { Hub } from './instruments/hub';
import { captureRoutes } from './routes/captures';
import { computeRoutes } from './routes/compute';
import { fittingRoutes } from './routes/fittings';
import { frameRoutes } from './routes/frames';
import { instrumentRoutes } from './routes/instruments';
import { libraryRoutes } from './routes/library';
import { measurementRoutes } from './routes/measurements';
import { paperRoutes } from './routes/papers';
import { playerRoutes } from './routes/players';
import { answer } from './routes/route';
import { safeHeaders } from './safety/headers';
import { onlyJson, onlyOwnPages, ownNames } from './safety/own-pages';
import { onlyReadableText } from './safety/readable-text';
import { importRoutes, setupRoutes } from './routes/setups';

export interface AppParts {
  db: Db;
  hub: Hub;
  compute: Compute;
  /** Folder of the built page; without it only the API is served. */
  pageFolder?: string;
  /** The names under which the shop may be asked for. */
  isOwnName?: (host: string) => boolean;
  now?: Clock;
}

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
  isOwnName = ownNames(),
  now = systemClock,
}: AppParts): Express {
  const app = express();
  app.disable('x-powered-by');
  app.use(safeHeaders);
  app.use(onlyOwnPages(isOwnName));
  app.use(compression());

  const api = express.Router();
  api.use(onlyReadableText);
  importRoutes(api, db);
  api.use(onlyJson);
  api.use(TAKES_LISTS, express.json({ limit: LIST_LIMIT, strict: false }));
  api.use(express.json({ limit: BODY_LIMIT, strict: false }));
  api.use(onlyReadableText);
  answer(api, 'health', async () => {
    await db.query('select 1');
    return { status: 'ok' as const };
  });
  api.get('/openapi.json', (_request, response) => {
    response.json(openApiDocument());
  });
  computeRoutes(api, compute);
  playerRoutes(api, db);
  frameRoutes(api, db);
  measurementRoutes(api, db, now);
  captureRoutes(api, db, now, hub);
  instrumentRoutes(api, db, hub);
  libraryRoutes(api, db, hub, now);
  setupRoutes(api, db);
  fittingRoutes(api, db, now);
  paperRoutes(api, db, now);
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
