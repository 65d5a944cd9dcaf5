import { calls, type AnswerOf, type CallName } from '@kevro/contract';
import type { Queries } from '../db/db';

/** Paths by which nothing of the shop changes: computations, readings that are not stored yet, and who comes in. */
const NO_CHANGES =
  /^\/(compute|sign-|captures)|\/(read|cancel|stand-in|readings|set-aside|capture(\/drop)?)$/;

/** The kind of record that a call is about, by where its path begins. */
const RECORDS: Record<string, string> = {
  players: 'player',
  frames: 'frame',
  fittings: 'fitting',
  setups: 'setup',
  parts: 'part',
  instruments: 'instrument',
  measurements: 'measurement',
  stringings: 'stringing',
  guides: 'guide',
  played: 'session',
};

/** Whether a call changes what the shop keeps. */
export const changesSomething = (name: CallName): boolean =>
  calls[name].method !== 'get' && !NO_CHANGES.test(calls[name].path);

/** Notes that a call was answered: who called, which, and on which record; none of its words, so that nobody has to be erased here. */
export async function noteChange(
  db: Queries,
  { name, who, id, at }: { name: CallName; who: string; id: string | null; at: string },
): Promise<void> {
  const record = RECORDS[calls[name].path.split('/')[1] ?? ''] ?? null;
  await db.query('insert into change_log (at, who, call, record, record_id) values ($1, $2, $3, $4, $5)', [
    at,
    who,
    name,
    record,
    record === null || record === 'session' ? null : id,
  ]);
}

type Row = Omit<AnswerOf<'changes'>['rows'][number], 'what'>;

/** Changes, the newest first, with what each record is called now. */
export async function listChanges(
  db: Queries,
  { limit, offset }: { limit: number; offset: number },
): Promise<AnswerOf<'changes'>> {
  const rows = await db.query<Row>(
    `select c.at, c.who, c.call, c.record, c.record_id as "recordId", coalesce(case c.record
        when 'player' then (select name from player where id = c.record_id)
        when 'frame' then (select tag from frame where id = c.record_id)
        when 'fitting' then (select p.name from fitting f join player p on p.id = f.player_id where f.id = c.record_id)
        when 'setup' then (select name from setup where id = c.record_id)
        when 'part' then (select data->>'name' from part where id = c.record_id)
        when 'instrument' then (select name from instrument where id = c.record_id)
        when 'measurement' then (select tag from measurement m join frame on frame.id = m.frame_id where m.id = c.record_id)
        when 'stringing' then (select tag from stringing s join frame on frame.id = s.frame_id where s.id = c.record_id)
        when 'guide' then c.record_id
      end, '') as title
     from (select * from change_log order by seq desc limit ${limit} offset ${offset}) c order by c.seq desc`,
  );
  const [counted] = await db.query<{ n: number }>('select count(*) as n from change_log');
  return {
    rows: rows.map((row) => ({
      ...row,
      what: row.call in calls ? calls[row.call as CallName].summary : row.call,
    })),
    total: counted?.n ?? 0,
  };
}
