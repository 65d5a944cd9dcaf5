import compression from 'compression';
import express, { type Express } from 'express';
import { calls, openApiDocument } from '@kevro/contract';
import { Acts } from './act';
import { Changes } from './changes';
import { notingArrival, systemClock, type Clock } from './clock';
import type { Compute } from './compute/compute';
import type { Db } from './db/db';
import { ApiProblem, problemHandler } from './problem';
import type { Hub } from './instruments/hub';
import type { KeptBackups } from './backup/kept';
import { accessRoutes } from './routes/access';
import { Door, knowingCaller, notForReaders, onlySignedIn, onlyWhoMay } from './safety/access';
import type { Restorer } from './backup/restorer';
import { backupRoutes, restoreRoutes } from './routes/backups';
import { captureRoutes } from './routes/captures';
import { computeRoutes } from './routes/compute';
import { fittingRoutes } from './routes/fittings';
import { frameRoutes } from './routes/frames';
import { housekeepingRoutes } from './routes/housekeeping';
import { filmLinkRoutes, filmPageRoutes, filmRoutes } from './routes/films';
import { instrumentRoutes } from './routes/instruments';
import { libraryRoutes } from './routes/library';
import { measurementRoutes } from './routes/measurements';
import { linkRoutes, playRoutes } from './routes/play';
import { seasonRoutes } from './routes/season';
import { builtPage } from './routes/page';
import { paperRoutes } from './routes/papers';
import { playerRoutes } from './routes/players';
import { answer } from './routes/route';
import { roundRoutes } from './routes/rounds';
import { readHere, type ReadFile } from './exchange/setup-reading';
import type { OtherDevices } from './start/other-devices';
import { safeHeaders } from './safety/headers';
import { metrics } from './safety/metrics';
import { onlyJson, onlyOwnPages, ownNames } from './safety/own-pages';
import { mayStore, onlyWithRoom, type Room } from './safety/room';
import { onlyReadableText } from './safety/readable-text';
import { importRoutes, setupRoutes } from './routes/setups';
import { staffRoutes } from './routes/staff';
import { streamRoutes } from './routes/stream';

export interface AppParts {
  db: Db;
  hub: Hub;
  compute: Compute;
  /** Folder of the built page; without it only the API is served. */
  pageFolder?: string;
  /** Backups that are made by themselves; none where nothing is kept on a disk. */
  backups?: KeptBackups;
  /** Puts a backup in the place of the shop; none where that cannot be done while it is served. */
  restorer?: Restorer;
  /** Where other devices find the shop; nowhere while only this machine is listened to. */
  addresses?: () => readonly string[];
  /** What listens for other devices, where that can be said on the page. */
  others?: OtherDevices;
  /** Free bytes where the shop is kept; without end where it is kept in memory. */
  room?: Room;
  /** The names under which the shop may be asked for. */
  isOwnName?: (host: string) => boolean;
  now?: Clock;
  /** Who comes in. */
  door?: Door;
  /** Told the code that lets another browser of this machine in, once there is a passphrase. */
  onBenchCode?: (code: string) => void;
  /** How files of setups are read; in this thread if left out. */
  reading?: ReadFile;
  /** Told of everything that is stored. */
  changes?: Changes;
  /** By which of several shops this one is asked for. */
  shopCode?: string;
}

export function createApp({
  db,
  hub,
  compute,
  pageFolder,
  backups,
  restorer,
  addresses = () => [],
  others,
  room = () => Infinity,
  isOwnName = ownNames(),
  now = systemClock,
  door = new Door(db, now),
  onBenchCode,
  reading = readHere,
  changes = new Changes(),
  shopCode,
}: AppParts): Express {
  const app = express();
  app.disable('x-powered-by');
  app.use(notingArrival(now));
  app.use(safeHeaders);
  app.use(onlyOwnPages(isOwnName));
  app.use(compression());

  const api = express.Router();
  const acts = new Acts(db, now, changes);
  const withRoom = onlyWithRoom(room);
  const watched = metrics();
  api.use(watched.counting);
  api.use(onlyReadableText);
  api.use(knowingCaller(door));
  api.use('/setups/import', onlySignedIn, onlyWhoMay, withRoom);
  api.use((request, _response, next) => {
    if (restorer?.underWay && mayStore(request)) throw new ApiProblem('restore-under-way');
    next();
  });
  importRoutes(api, acts, now, reading);
  api.use(calls.restoreBackup.path, onlySignedIn, withRoom);
  restoreRoutes(api, restorer);
  api.use(['/filmed', calls.addFilm.path], withRoom);
  filmLinkRoutes(api, db, now);
  api.use(onlyJson);
  api.use('/played', withRoom);
  accessRoutes(api, { db, now, door, addresses, others, shopCode, ...(onBenchCode ? { onBenchCode } : {}) });
  linkRoutes(api, acts, now);
  filmPageRoutes(api, db, now);
  answer(api, 'health', async () => {
    await db.query('select 1');
    return { status: 'ok' as const };
  });
  api.get('/openapi.json', (_request, response) => {
    response.json(openApiDocument());
  });
  // Nothing that follows is read, let alone answered, for a device that is not let in.
  api.use(onlySignedIn);
  staffRoutes(api, db, now);
  api.use(onlyWhoMay);
  // What an arm went through, and copies of everything.
  for (const path of [calls.armHistory.path, '/players/:id/data', '/backup', calls.backups.path])
    api.all(path, notForReaders);
  watched.route(api);
  api.use(withRoom);
  computeRoutes(api, compute);
  playerRoutes(api, acts, now);
  frameRoutes(api, acts, now);
  measurementRoutes(api, acts);
  captureRoutes(api, acts, now, hub);
  streamRoutes(api, acts.changes, hub);
  instrumentRoutes(api, acts, hub);
  filmRoutes(api, acts, now, { addresses, shopCode });
  libraryRoutes(api, acts, hub);
  setupRoutes(api, acts);
  fittingRoutes(api, acts, now);
  roundRoutes(api, acts, now, hub);
  seasonRoutes(api, acts, now, compute);
  playRoutes(api, acts, now, { hub, compute, addresses, shopCode });
  housekeepingRoutes(api, db);
  paperRoutes(api, db, now);
  backupRoutes(api, db, now, backups, restorer);
  api.use(() => {
    throw new ApiProblem('not-found');
  });
  app.use('/api/v1', api);

  if (pageFolder) app.use(builtPage(pageFolder));
  app.use(() => {
    throw new ApiProblem('not-found');
  });
  app.use(problemHandler);
  return app;
}
