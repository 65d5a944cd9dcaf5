import { rmSync } from 'node:fs';
import { basename, join } from 'node:path';
import type { Readable } from 'node:stream';
import type { Db } from '../db/db';
import { ApiProblem } from '../problem';
import { carryAccess } from '../records/access';
import { log } from '../safety/log';
import { SENT_BACKUP, nextTo } from '../start/demo-folder';
import type { KeptBackups } from './kept';
import { WrongBackup } from './read';
import { restore } from './restore';
import { writeWhole } from './whole-file';

/** Restores a backup beside the shop that is being served, to take its place when the server starts again. */
export class Restorer {
  /** From then on nothing more is stored in the shop that is to go: it would be in no backup. */
  underWay = false;

  /**
   * @param folder the shop's @param database the folder of its database
   * @param kept where the shop as it is goes first @param db that shop @param startAgain ends this server and starts it anew
   */
  constructor(
    private readonly folder: string,
    private readonly database: string,
    private readonly kept: KeptBackups,
    private readonly db: Db,
    readonly startAgain: () => void,
  ) {
    // Left by one that was cut off.
    for (const left of [this.sent, `${this.sent}.unfinished`]) rmSync(left, { force: true });
  }
  private get sent(): string {
    return join(this.folder, SENT_BACKUP);
  }

  /**
   * Makes a shop of a backup, and a backup of the shop as it is.
   * @param from the name of a kept one, or what is sent
   * @throws ApiProblem with the reason; then nothing was changed
   */
  async prepare(from: string | Readable): Promise<{ takenAt: string; before: string }> {
    if (this.underWay) throw new ApiProblem('restore-under-way');
    this.underWay = true;
    try {
      const file = typeof from === 'string' ? this.keptFile(from) : await this.receive(from);
      const next = nextTo(this.database);
      rmSync(next, { recursive: true, force: true });
      const { takenAt } = await restore(file, next, (restored) => carryAccess(this.db, restored)).catch(
        (error: unknown) => {
          if (!(error instanceof WrongBackup)) throw error;
          throw new ApiProblem('wrong-backup', [], { why: error.message.replace(file, basename(file)) });
        },
      );
      // Only now that there is something to take its place: a wrong file is no reason for a backup.
      const before = await this.kept.make().catch((error: unknown) => {
        rmSync(next, { recursive: true, force: true });
        throw error;
      });
      log.info({ takenAt, before }, 'a backup is restored at the next start');
      return { takenAt, before };
    } catch (error) {
      this.underWay = false;
      throw error;
    } finally {
      rmSync(this.sent, { force: true });
    }
  }

  private keptFile(name: string): string {
    if (!this.kept.list().some((one) => one.name === name)) throw new ApiProblem('not-found');
    return join(this.kept.folder, name);
  }
  private async receive(sent: Readable): Promise<string> {
    await writeWhole(sent, this.sent);
    return this.sent;
  }
}
