import { readdirSync, rmSync, statSync } from 'node:fs';
import { join } from 'node:path';
import type { Clock } from '../clock';
import type { Db } from '../db/db';
import { makeFolder } from '../start/make-folder';
import { theShop } from '../records/shop';
import { needRoom, type Room } from '../safety/room';
import { log } from '../safety/log';
import { writeWhole } from './whole-file';
import { backupOf } from './write';

/** One that is kept on the bench machine. */
export interface KeptBackup {
  name: string;
  takenAt: string;
  bytes: number;
}

const NAME = /^kevro-(\d{4}-\d\d-\d\dT)(\d\d)(\d\d)(\d\d)Z\.zip$/;
const EVERY_MS = 24 * 3_600_000;
/** A clock that is set back by less was only put right. */
const CLOCKS_DIFFER_MS = 3_600_000;
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

  /** Those that are there, the last that was made first. One whose name is of a day to come was made while the clock was ahead: it is no newer than the others. */
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
      .toSorted((a, b) => Number(this.isAhead(a)) - Number(this.isAhead(b)) || (a.name < b.name ? 1 : -1));
  }

  private isAhead({ takenAt }: KeptBackup): boolean {
    return Date.parse(takenAt) > Date.parse(this.now()) + CLOCKS_DIFFER_MS;
  }

  /** Makes one where the last is a day old, and drops those that are over the number kept; the last one stays. */
  async keepUp(): Promise<void> {
    const { backupsKept } = await theShop(this.db);
    if (backupsKept === 0) return;
    const [last] = this.list();
    const isDue =
      !last || this.isAhead(last) || Date.parse(this.now()) - Date.parse(last.takenAt) >= EVERY_MS;
    if (isDue) await this.make();
    for (const { name } of this.list().slice(backupsKept)) rmSync(join(this.folder, name));
  }

  /** Makes one now. It has its name only when it is whole and on the disk. */
  async make(): Promise<string> {
    makeFolder(this.folder);
    const name = backupName(this.now());
    const [{ bytes } = { bytes: 0 }] = await this.db.query<{ bytes: number }>(
      'select pg_database_size(current_database())::float8 as bytes',
    );
    needRoom(this.room, bytes);
    const { zip, done } = await backupOf(this.db, this.now);
    await writeWhole(zip, join(this.folder, name));
    await done;
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
