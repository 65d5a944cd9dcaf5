import { calls, type AnswerOf, type CallName } from '@kevro/contract';
import type { Queries } from '../db/db';

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
        when 'season' then (select name from season_date d join player p on p.id = d.player_id where d.id = c.record_id)
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
