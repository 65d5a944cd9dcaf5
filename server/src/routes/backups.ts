import { pipeline } from 'node:stream/promises';
import type { Router } from 'express';
import { backupName, type KeptBackups } from '../backup/kept';
import { backupOf } from '../backup/write';
import type { Clock } from '../clock';
import type { Db } from '../db/db';
import { calls } from '@kevro/contract';
import type { Restorer } from '../backup/restorer';
import { ApiProblem } from '../problem';
import { onlyBench } from '../safety/access';
import { answer, readAs } from './route';

/** The whole shop as one file, and those that were made by themselves. */
export function backupRoutes(
  router: Router,
  db: Db,
  now: Clock,
  kept: KeptBackups | undefined,
  restorer: Restorer | undefined,
): void {
  router.get('/backup', async (_request, response) => {
    const { zip } = await backupOf(db, now);
    response.attachment(backupName(now())).type('application/zip');
    // Who goes away in the middle has half a file, and nobody to be told.
    await pipeline(zip, response).catch(() => undefined);
  });
  answer(router, 'backups', () => ({
    folder: kept?.folder ?? '',
    rows: kept?.list() ?? [],
    restores: restorer !== undefined,
    database: db.ownFiles ? ('folder' as const) : ('server' as const),
  }));
}

/** Putting a backup in the place of the shop: its body is a file, so that it stands before what reads JSON. */
export function restoreRoutes(router: Router, restorer: Restorer | undefined): void {
  router.post(calls.restoreBackup.path, onlyBench, async (request, response) => {
    const { name } = readAs(calls.restoreBackup.query, request.query);
    if (!restorer) throw new ApiProblem('restore-by-command');
    // Without its length it could fill the disk before anybody counts.
    if (name === '' && !Number(request.headers['content-length'])) throw new ApiProblem('wrong-backup');
    const done = await restorer.prepare(name || request);
    response.on('finish', restorer.startAgain);
    response.json(done);
  });
}
