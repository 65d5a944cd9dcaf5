import { pipeline } from 'node:stream/promises';
import type { Router } from 'express';
import { backupName, type KeptBackups } from '../backup/kept';
import { backupOf } from '../backup/write';
import type { Clock } from '../clock';
import type { Db } from '../db/db';
import { answer } from './route';

/** The whole shop as one file, and those that were made by themselves. */
export function backupRoutes(router: Router, db: Db, now: Clock, kept: KeptBackups | undefined): void {
  router.get('/backup', async (_request, response) => {
    const { zip } = await backupOf(db, now);
    response.attachment(backupName(now())).type('application/zip');
    // Who goes away in the middle has half a file, and nobody to be told.
    await pipeline(zip, response).catch(() => undefined);
  });
  answer(router, 'backups', () => ({ folder: kept?.folder ?? '', rows: kept?.list() ?? [] }));
}
