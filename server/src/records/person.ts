import type { Db, Queries } from '../db/db';
import { log } from '../safety/log';

const FITTINGS = 'select id from fitting where player_id = $1';
const ROUNDS = `select id from round where fitting_id in (${FITTINGS})`;
const PLANS = `select id from plan where round_id in (${ROUNDS})`;

const FRAMES = 'select id from frame where owner_id = $1';
const MEASUREMENTS = `(round_id in (${ROUNDS}) or frame_id in (${FRAMES}))`;

/** Where something about a player is stored, table by table; `$1` is the player. */
const ABOUT: Record<string, string> = {
  player: 'id = $1',
  frame: 'owner_id = $1',
  fitting: 'player_id = $1',
  round: `fitting_id in (${FITTINGS})`,
  stringing: `frame_id in (${FRAMES})`,
  measurement: MEASUREMENTS,
  measurement_mark: `measurement_id in (select id from measurement where ${MEASUREMENTS})`,
  film: `frame_id in (${FRAMES})`,
  aim: `round_id in (${ROUNDS})`,
  plan: `round_id in (${ROUNDS})`,
  step_mark: `plan_id in (${PLANS})`,
  sign_off: `plan_id in (${PLANS})`,
  session: `round_id in (${ROUNDS})`,
  session_link: `round_id in (${ROUNDS})`,
  programme: `fitting_id in (${FITTINGS})`,
  programme_event: `programme_id in (select id from programme where fitting_id in (${FITTINGS}))`,
  look_again: 'player_id = $1',
  season_date: 'player_id = $1',
};
/** What is taken out of each: the person, and every word that somebody wrote. Frames, numbers and builds stay. */
const BLANKED: Record<string, string> = {
  player: `name = 'erased', birth_year = null, level = '', style = '', sports = '[]', height_cm = null, build = null, level_scale = null,
    handedness = null, puts_first = null, bother_note = '', sessions_a_week = null, arm_history = '', archived = true, bothers = '[]',
    ceilings = '{}', ceiling_notes = '{}', guides = '{}'`,
  // Of the pieces on it the names go: what they weigh and where they are stays.
  frame: `owner_id = null, note = '', paint = '',
    weights = (select coalesce(jsonb_agg(piece || '{"what": ""}'), '[]') from jsonb_array_elements(weights) piece)`,
  stringing: `data = data || '{"note": ""}'`,
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

/** Words that stand elsewhere and may name a person: a frame that they borrowed, its strings and measurements, the shop's parts. */
const MAY_NAME: Record<string, readonly string[]> = {
  frame: ['note', 'paint'],
  measurement: ['note', 'why'],
  measurement_mark: ['reason'],
  fitting: ['closed_note'],
  look_again: ['note'],
  instrument: ['note'],
};
/** The same within what is kept as JSON. */
const MAY_NAME_INSIDE: Record<string, string> = {
  frame: 'weights',
  stringing: 'data',
  part: 'data',
  session: 'data',
  round: 'on_frame',
  sign_off: 'on_frame',
};

/** Takes a name out wherever else it was written, as whole words and however it is written. */
async function takeNameOut(tx: Queries, name: string): Promise<void> {
  const escaped = name.trim().replaceAll(/[.*+?^${}()|[\]\\]/g, '\\$&');
  if (escaped === '') return;
  // In JSON a quotation mark or a backslash is written otherwise.
  const inJson = JSON.stringify(name.trim())
    .slice(1, -1)
    .replaceAll(/[.*+?^${}()|[\]\\]/g, '\\$&');
  const words = (text: string): string => `(?<!\\w)${text}(?!\\w)`;
  for (const [table, columns] of Object.entries(MAY_NAME))
    for (const column of columns)
      await tx.query(
        `update "${table}" set ${column} = regexp_replace(${column}, $1, 'erased', 'gi') where ${column} ~* $1`,
        [words(escaped)],
      );
  for (const [table, column] of Object.entries(MAY_NAME_INSIDE))
    await tx.query(
      `update "${table}" set ${column} = regexp_replace(${column}::text, $1, 'erased', 'gi')::jsonb where ${column}::text ~* $1`,
      [words(inJson)],
    );
}

const ERASING = 'erasing';

/**
 * Takes a person out of the shop: sessions go, words and the person's own facts are blanked, frames and builds stay. Backups that were made before still hold the
 * person. What the database leaves behind is cleared by {@link finishErasing}, at the next start where this one does not come to it.
 * @returns the ids of what held words about them
 */
export async function erasePlayer(tx: Queries, id: string, now: string): Promise<string[]> {
  const named = NAMED.map((table) => `select id from "${table}" where ${ABOUT[table]}`);
  const found = await tx.query<{ id: string }>(named.join(' union all '), [id]);
  const [player] = await tx.query<{ name: string }>('select name from player where id = $1', [id]);
  for (const table of ['session_link', 'session', 'look_again', 'season_date', 'film'])
    await tx.query(`delete from ${table} where ${ABOUT[table]}`, [id]);
  // What leads to the others is blanked last.
  for (const table of Object.keys(BLANKED).toReversed()) {
    const set = BLANKED[table] ?? '';
    await tx.query(
      `update "${table}" set ${set} where ${ABOUT[table]}`,
      set.includes('$2') ? [id, now] : [id],
    );
  }
  await takeNameOut(tx, player?.name ?? '');
  await tx.query(
    'insert into unfinished (what, since) values ($1, $2) on conflict (what, shop_id) do nothing',
    [ERASING, now],
  );
  return found.map((row) => row.id);
}

/** Every table in which words about a person may have been. */
const CLEARED = [
  ...new Set([
    ...Object.keys(ABOUT),
    'film_piece',
    ...Object.keys(MAY_NAME),
    ...Object.keys(MAY_NAME_INSIDE),
  ]),
];

/**
 * Clears what an erasing leaves in the files: old pages, statistics and the log. Begun again wherever it was cut off.
 * @returns whether nothing is left to clear
 */
export async function finishErasing(db: Db): Promise<boolean> {
  try {
    const open = await db.query('select 1 from unfinished where what = $1', [ERASING]);
    if (open.length === 0) return true;
    // Each statement stands alone, since none of them may run within a transaction.
    for (const table of CLEARED) await db.run(`vacuum full public."${table}"`);
    for (const table of CLEARED) await db.run(`analyze public."${table}"`);
    if (db.ownFiles) {
      await db.run('vacuum full pg_statistic');
      // The log is begun anew twice, so that no file of it that is kept was written before.
      for (let i = 0; i < 2; i++) {
        await db.query('select pg_switch_wal()');
        await db.run('checkpoint');
      }
    }
    await db.query('delete from unfinished where what = $1', [ERASING]);
    return true;
  } catch (error) {
    log.error({ err: error }, 'an erasing is finished at the next start');
    return false;
  }
}
