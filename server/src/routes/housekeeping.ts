import type { RequestHandler, Router } from 'express';
import type { Clock } from '../clock';
import type { Db } from '../db/db';
import { deviceNamed } from '../records/access';
import { changesSomething, listChanges, noteChange } from '../records/change-log';
import { searchAll } from '../records/search';
import { isBench, tokenOf } from '../safety/access';
import { answer, type Answered } from './route';

/** Searching everything, and who changed what. */
export function housekeepingRoutes(router: Router, db: Db): void {
  answer(router, 'search', ({ query }) => searchAll(db, query.q));
  answer(router, 'changes', ({ query }) => listChanges(db, query));
}

/** Notes every call that changed something, with the device that it came from. */
export const notingChanges =
  (db: Db, now: Clock): RequestHandler =>
  (request, response, next) => {
    (response.locals as Answered).changed = async (name, id) => {
      if (!changesSomething(name)) return;
      const token = isBench(request) ? undefined : tokenOf(request);
      const device = token === undefined ? undefined : await deviceNamed(db, token);
      const who = isBench(request) ? 'bench' : (device ?? 'a player’s link');
      await noteChange(db, { name, who: who || 'another device', id, at: now() });
    };
    next();
  };
