import { log } from '../safety/log';
import type { Db } from './db';

/**
 * Indexes by which parts of words are found in a large shop: of an extension that PostgreSQL brings, and that its owner may add. Without them a search reads the words
 * of the whole library, which takes a second where there are a million setups.
 */
const BY_WORDS: Record<string, string> = {
  setup_by_words: 'setup using gin (words gin_trgm_ops)',
  frame_by_words: 'frame using gin (words gin_trgm_ops)',
  fitting_by_words: 'fitting using gin (words gin_trgm_ops)',
  player_by_words: 'player using gin (name_words gin_trgm_ops)',
};
export async function quickenSearch(db: Db): Promise<void> {
  const found = await db.query<{ name: string }>(
    'select indexname as name from pg_indexes where indexname = any($1)',
    [Object.keys(BY_WORDS)],
  );
  const lacking = Object.entries(BY_WORDS).filter(([name]) => !found.some((one) => one.name === name));
  if (lacking.length === 0) return;
  try {
    await db.run('create extension if not exists pg_trgm');
    for (const [name, on] of lacking) await db.run(`create index if not exists ${name} on ${on}`);
  } catch (error) {
    log.warn({ err: error }, 'searching a large library takes longer: pg_trgm could not be added');
  }
}
