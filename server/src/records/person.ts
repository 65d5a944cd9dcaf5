import type { Db, Queries } from '../db/db';

const FITTINGS = 'select id from fitting where player_id = $1';
const ROUNDS = `select id from round where fitting_id in (${FITTINGS})`;
const PLANS = `select id from plan where round_id in (${ROUNDS})`;

/** Where something about a player stands, table by table; `$1` is the player. */
const ABOUT: Record<string, string> = {
  player: 'id = $1',
  frame: 'owner_id = $1',
  fitting: 'player_id = $1',
  round: `fitting_id in (${FITTINGS})`,
  measurement: `round_id in (${ROUNDS})`,
  measurement_mark: `measurement_id in (select id from measurement where round_id in (${ROUNDS}))`,
  aim: `round_id in (${ROUNDS})`,
  plan: `round_id in (${ROUNDS})`,
  step_mark: `plan_id in (${PLANS})`,
  sign_off: `plan_id in (${PLANS})`,
  session: `round_id in (${ROUNDS})`,
  session_link: `round_id in (${ROUNDS})`,
  programme: `fitting_id in (${FITTINGS})`,
  programme_event: `programme_id in (select id from programme where fitting_id in (${FITTINGS}))`,
  look_again: 'player_id = $1',
};
/** What is taken out of each: the person, and every word that somebody wrote. Frames, numbers and builds stay. */
const BLANKED: Record<string, string> = {
  player: `name = 'erased', birth_year = null, level = '', style = '', sports = '[]', height_cm = null, build = null, level_scale = null,
    handedness = null, puts_first = null, bother_note = '', sessions_a_week = null, arm_history = '', archived = true, bothers = '[]',
    ceilings = '{}', ceiling_notes = '{}', guides = '{}'`,
  frame: 'owner_id = null',
  fitting:
    "closed_note = '', closed_at = coalesce(closed_at, $2), closed_how = coalesce(closed_how, 'given-up')",
  round: "note = ''",
  measurement: "note = '', why = ''",
  measurement_mark: "reason = ''",
  aim: "note = '', guards = '[]', by = ''",
  step_mark: "reason = '', by = ''",
  sign_off: "note = '', by = ''",
  programme: "note = '', by = ''",
  programme_event: "note = '', by = ''",
};

/** Everything that is stored about a player, table by table, as it is stored; undefined where there is no such player. */
export async function aboutPlayer(db: Queries, id: string): Promise<Record<string, unknown[]> | undefined> {
  const found: Record<string, unknown[]> = {};
  for (const [table, where] of Object.entries(ABOUT)) {
    const rows = await db.query<{ row: unknown }>(
      `select to_jsonb(t) as row from "${table}" t where ${where}`,
      [id],
    );
    found[table] = rows.map(({ row }) => row);
  }
  return found.player?.length === 0 ? undefined : found;
}

/** What forms about a person are named by. */
const NAMED = ['player', 'fitting', 'round', 'measurement', 'aim', 'programme', 'session'];

/**
 * Takes a person out of the shop: sessions go, words and the person's own facts are blanked, frames and builds stay. Then out of what the database leaves behind:
 * old pages, statistics and the log. Backups that were made before still hold the person.
 * @returns the ids of what held words about them
 */
export async function erasePlayer(db: Db, id: string, now: string): Promise<string[]> {
  const ids = await db.transaction(async (tx) => {
    const named = NAMED.map((table) => `select id from "${table}" where ${ABOUT[table]}`);
    const found = await tx.query<{ id: string }>(named.join(' union all '), [id]);
    for (const table of ['session_link', 'session', 'look_again'])
      await tx.query(`delete from ${table} where ${ABOUT[table]}`, [id]);
    // What leads to the others is blanked last.
    for (const table of Object.keys(BLANKED).toReversed()) {
      const set = BLANKED[table] ?? '';
      await tx.query(
        `update "${table}" set ${set} where ${ABOUT[table]}`,
        set.includes('$2') ? [id, now] : [id],
      );
    }
    return found.map((row) => row.id);
  });
  // Rows that were changed leave their old form in the pages; each statement stands alone, since none may run within a transaction.
  for (const table of Object.keys(ABOUT)) await db.run(`vacuum full "${table}"`);
  for (const table of Object.keys(ABOUT)) await db.run(`analyze "${table}"`);
  await db.run('vacuum full pg_statistic');
  // The log is begun anew twice, so that no file of it that is kept was written before.
  for (let i = 0; i < 2; i++) {
    await db.query('select pg_switch_wal()');
    await db.run('checkpoint');
  }
  return ids;
}
