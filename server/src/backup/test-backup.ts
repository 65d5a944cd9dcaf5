import { createWriteStream, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { pipeline } from 'node:stream/promises';
import { computeHere } from '../compute/compute';
import type { Db } from '../db/db';
import { loadShop, readShopFile } from '../exchange/shop-file';
import { backupOf, type Manifest } from './write';

/** The day of these tests. */
export const NOW = '2026-11-23T09:00:00.000Z';

/** Puts the demo shop into an empty one. */
export async function loadDemo(db: Db): Promise<void> {
  const file = join(import.meta.dirname, '../../../demo/shop.json');
  await loadShop(db, readShopFile(JSON.parse(readFileSync(file, 'utf8'))), computeHere, NOW);
}

/** Writes a backup into a file. */
export async function saveBackup(db: Db, file: string): Promise<{ file: string; manifest: Manifest }> {
  const { zip, done } = await backupOf(db, () => NOW);
  await pipeline(zip, createWriteStream(file));
  return { file, manifest: await done };
}
