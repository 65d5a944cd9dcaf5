import type { Db } from '../db/db';

/** How many wrong tries are free: a finger slips. */
const FREE = 4;
const FIRST_WAIT_MS = 2000;
const MOST_WAIT_MS = 15 * 60_000;

const waitAfter = (wrong: number): number =>
  wrong > FREE ? Math.min(MOST_WAIT_MS, FIRST_WAIT_MS * 2 ** (wrong - FREE - 1)) : 0;

/** Wrong tries, counted for the whole shop: whoever guesses from many addresses, or at several processes, waits as well. Each one after the first few doubles the wait. */
export class Tries {
  constructor(private readonly db: Db) {}

  /** How long the next try has to wait, ms; 0 where it need not. */
  async waitMs(now: number): Promise<number> {
    const [found] = await this.db.query<{ until: string }>('select wait_until as until from wrong_tries');
    return found ? Math.max(0, Date.parse(found.until) - now) : 0;
  }
  failed(now: number): Promise<void> {
    return this.db.transaction(async (tx) => {
      const [{ wrong } = { wrong: 0 }] = await tx.query<{ wrong: number }>(
        `insert into wrong_tries (wrong, wait_until) values (1, $1)
         on conflict (only_row, shop_id) do update set wrong = wrong_tries.wrong + 1 returning wrong`,
        [new Date(now).toISOString()],
      );
      await tx.query('update wrong_tries set wait_until = $1', [
        new Date(now + waitAfter(wrong)).toISOString(),
      ]);
    });
  }
  async succeeded(): Promise<void> {
    await this.db.query('delete from wrong_tries');
  }
}
