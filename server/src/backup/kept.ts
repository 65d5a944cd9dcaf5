import { createWriteStream, readdirSync, renameSync, rmSync, statSync } from 'node:fs';
import { join } from 'node:path';
import { pipeline } from 'node:stream/promises';
import type { Clock } from '../clock';
import type { Db } from '../db/db';
import { sync } from '../db/durable-fs';
import { makeFolder } from '../start/make-folder';
import { theShop } from '../records/shop';
import { needRoom, type Room } from '../safety/room';
import { log } from '../safety/log';
import { backupOf } from './write';

/** One that is kept on the bench machine. */
export interface KeptBackup {
  name: string;
  takenAt: string;
  bytes: number;
}

const NAME = /^kevro-(\d{4}-\d\d-\d\dT)(\d\d)(\d\d)(\d\d)Z\.zip$/;
const EVERY_MS = 24 * 3_600_000;
/** How often it is looked whether one is due. */
const LOOK_MS = 5 * 60_000;

/** A file name that says when: sorted by name, they are sorted by time. */
export const backupName = (takenAt: string): string =>
  `kevro-${takenAt.replace(/\.\d+/, '').replaceAll(':', '')}.zip`;

/** Backups that are made by themselves, one a day, of which the newest few are kept. */
export class KeptBackups {
  private timer: NodeJS.Timeout | undefined;

  constructor(
    private readonly db: Db,
    readonly folder: string,
    private readonly now: Clock,
    private readonly room: Room = () => Infinity,
  ) {}

  /** Those that are there, the newest first. */
  list(): KeptBackup[] {
    let names: string[];
    try {
      names = readdirSync(this.folder);
    } catch {
      return [];
    }
    return names
      .flatMap((name): KeptBackup[] => {
        const [, day, hour, minute, second] = NAME.exec(name) ?? [];
        if (!day) return [];
        const takenAt = `${day}${hour}:${minute}:${second}.000Z`;
        return [{ name, takenAt, bytes: statSync(join(this.folder, name)).size }];
      })
      .toSorted((a, b) => (a.name < b.name ? 1 : -1));
  }

  /** Makes one where the newest is a day old, and drops those that are over the number kept; the last one stays. */
  async keepUp(): Promise<void> {
    const { backupsKept } = await theShop(this.db);
    if (backupsKept === 0) return;
    const [newest] = this.list();
    if (!newest || Date.parse(this.now()) - Date.parse(newest.takenAt) >= EVERY_MS) await this.make();
    for (const { name } of this.list().slice(backupsKept)) rmSync(join(this.folder, name));
  }

  /** Makes one now. It has its name only when it is whole and on the disk. */
  async make(): Promise<string> {
    makeFolder(this.folder);
    const name = backupName(this.now());
    const making = join(this.folder, 'unfinished.zip');
    const [{ bytes } = { bytes: 0 }] = await this.db.query<{ bytes: number }>(
      'select pg_database_size(current_database())::float8 as bytes',
    );
    needRoom(this.room, bytes);
    const { zip, done } = await backupOf(this.db, this.now);
    try {
      await pipeline(zip, createWriteStream(making, { mode: 0o600 }));
    } catch (error) {
      rmSync(making, { force: true });
      throw error;
    }
    await done;
    sync(making);
    renameSync(making, join(this.folder, name));
    sync(this.folder);
    return name;
  }

  start(): void {
    const look = (): void =>
      void this.keepUp().catch((error: unknown) => log.error({ err: error }, 'no backup was made'));
    // Not at once: who has just started wants to work.
    this.timer = setInterval(look, LOOK_MS);
    this.timer.unref();
  }
  stop(): void {
    clearInterval(this.timer);
  }
}
