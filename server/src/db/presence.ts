import { randomUUID } from 'node:crypto';
import { setTimeout as wait } from 'node:timers/promises';
import pg from 'pg';
import { log } from '../safety/log';
import { NoDatabase } from './no-database';

/** The lock of those that serve a database: shared by all that do, alone for who changes its tables. */
const SERVING = 4_700_017;
const CHANNEL = 'kevro_change';
/** How often a lock that others have is asked for again, and for how long, ms. */
const AGAIN_MS = 250;
const LONGEST_MS = 60_000;
/** What is told within this time goes together, ms; and how much of it at the most: a notice holds 8000 bytes. */
const TOGETHER_MS = 20;
const TOGETHER_MOST = 40;

/** What processes at one database tell each other. */
export interface Wire {
  tell: (told: unknown) => void;
  /** @param heard what others told @param missed told that something may have been told while this process could not hear */
  listen: (heard: (told: unknown) => void, missed: () => void) => void;
}

const OTHERS =
  'another Kevro is at work on it, of another version or restoring a backup. Stop that one first';

async function lockBy(client: pg.Client, how: 'shared' | 'alone'): Promise<boolean> {
  const call = how === 'shared' ? 'pg_try_advisory_lock_shared' : 'pg_try_advisory_lock';
  const { rows } = await client.query<{ taken: boolean }>(`select ${call}($1) as taken`, [SERVING]);
  return rows[0]?.taken ?? false;
}
const unlock = (client: pg.Client, how: 'shared' | 'alone'): Promise<unknown> =>
  client.query(`select ${how === 'shared' ? 'pg_advisory_unlock_shared' : 'pg_advisory_unlock'}($1)`, [
    SERVING,
  ]);

async function connect(url: string): Promise<pg.Client> {
  const client = new pg.Client({ connectionString: url, application_name: 'kevro, keeping the shop' });
  // What breaks is said by whoever asks; unheard, it would end this process.
  client.on('error', () => undefined);
  await client.connect();
  return client;
}

/**
 * Keeps a database for one process alone, as long as it changes all of it.
 * @returns gives it back
 * @throws NoDatabase where others are at work
 */
export async function holdAlone(url: string): Promise<() => Promise<void>> {
  const client = await connect(url);
  if (await lockBy(client, 'alone')) return () => client.end();
  await client.end();
  throw new NoDatabase('another Kevro is at work on it. Stop that one first');
}

export interface Tables {
  /** Whether they are as this Kevro knows them. @throws where they are newer */
  areCurrent: () => Promise<boolean>;
  /** Brings them up to date, alone. */
  bring: () => Promise<void>;
}

/** A process at a database, beside others: what it holds there lasts as long as its connection, which is made anew when it goes. */
export class Presence implements Wire {
  private readonly id = randomUUID();
  private client: pg.Client | undefined;
  private left = false;
  private heard: (told: unknown) => void = () => undefined;
  private missed: () => void = () => undefined;
  private toTell: unknown[] = [];
  private telling: NodeJS.Timeout | undefined;

  private constructor(
    private readonly url: string,
    private readonly tables: Tables,
    private readonly onTaken: (error: Error) => void,
  ) {}

  /**
   * Comes to a database. Where its tables are to be brought up to date, one process does it alone while the others wait.
   * @param onTaken told when the database is not this process's any more: its tables are newer now, or somebody has it alone
   * @throws NoDatabase where others stay at work on older tables
   */
  static async at(url: string, tables: Tables, onTaken: (error: Error) => void): Promise<Presence> {
    const presence = new Presence(url, tables, onTaken);
    await presence.come();
    return presence;
  }

  private async come(): Promise<void> {
    const client = await connect(this.url);
    try {
      const end = Date.now() + LONGEST_MS;
      while (!(await this.tryToStay(client))) {
        if (Date.now() > end) throw new NoDatabase(OTHERS);
        await wait(AGAIN_MS);
      }
      client.on('notification', ({ payload = '' }) => this.hear(payload));
      await client.query(`listen ${CHANNEL}`);
    } catch (error) {
      await client.end().catch(() => undefined);
      throw error;
    }
    client.on('end', () => {
      if (this.client !== client) return;
      this.client = undefined;
      if (!this.left) void this.comeAgain();
    });
    this.client = client;
  }
  private async tryToStay(client: pg.Client): Promise<boolean> {
    if (await lockBy(client, 'shared')) {
      if (await this.tables.areCurrent()) return true;
      await unlock(client, 'shared');
    }
    if (!(await lockBy(client, 'alone'))) return false;
    try {
      // Another process may have done it just now.
      if (!(await this.tables.areCurrent())) await this.tables.bring();
      return await lockBy(client, 'shared');
    } finally {
      await unlock(client, 'alone').catch(() => undefined);
    }
  }
  private async comeAgain(): Promise<void> {
    while (!this.left)
      try {
        await wait(2 * AGAIN_MS);
        await this.come();
        this.missed();
        return this.tellSoon();
      } catch (error) {
        if (error instanceof NoDatabase || (error as Error).name === 'NewerDatabase')
          return this.onTaken(error as Error);
      }
  }

  private hear(payload: string): void {
    const { from, told } = JSON.parse(payload) as { from: string; told: unknown[] };
    if (from !== this.id) for (const one of told) this.heard(one);
  }
  listen(heard: (told: unknown) => void, missed: () => void): void {
    this.heard = heard;
    this.missed = missed;
  }
  tell(told: unknown): void {
    this.toTell.push(told);
    this.tellSoon();
  }
  private tellSoon(): void {
    if (this.toTell.length > 0) this.telling ??= setTimeout(() => void this.tellNow(), TOGETHER_MS);
  }
  private async tellNow(): Promise<void> {
    const { client } = this;
    // It waits until there is a connection again.
    if (!client) return void (this.telling = undefined);
    const part = this.toTell.splice(0, TOGETHER_MOST);
    try {
      await client.query('select pg_notify($1, $2)', [
        CHANNEL,
        JSON.stringify({ from: this.id, told: part }),
      ]);
    } catch (error) {
      log.warn({ err: error }, 'other processes could not be told of a change');
      this.toTell.unshift(...part);
    }
    this.telling = undefined;
    if (this.client) this.tellSoon();
  }

  async leave(): Promise<void> {
    this.left = true;
    clearTimeout(this.telling);
    const { client } = this;
    this.client = undefined;
    await client?.end().catch(() => undefined);
  }
}
