import type { Router } from 'express';
import type { Db } from '../db/db';
import { listChanges } from '../records/change-log';
import { searchAll } from '../records/search';
import { answer } from './route';

/** Searching everything, and the change log. */
export function housekeepingRoutes(router: Router, db: Db): void {
  answer(router, 'search', ({ query }) => searchAll(db, query.q));
  answer(router, 'changes', ({ query }) => listChanges(db, query));
}
