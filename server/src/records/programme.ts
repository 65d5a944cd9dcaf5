import { PROGRAMMES, programmeTraits, type ZoneChange } from '@kevro/core';
import type { ProgrammeView } from '@kevro/contract';
import type { Queries } from '../db/db';
import { tableOf } from '../db/table';

export interface ProgrammeRecord {
  id: string;
  key: string;
  fittingId: string;
  frameId: string;
  name: ProgrammeView['name'];
  begunAt: string;
  roundId: string;
  sessionsBefore: number;
  startId: string;
  towards: ProgrammeView['towards'];
  /** Where players alike were happiest when it began. */
  happiest: ProgrammeView['happiest'];
  /** What lay on the frame when it began. */
  there: ZoneChange[];
  note: string;
  by: string;
}
export const programmes = tableOf<ProgrammeRecord>('programme', {
  id: 'id',
  key: 'key',
  fittingId: 'fitting_id',
  frameId: 'frame_id',
  name: 'name',
  begunAt: 'begun_at',
  roundId: 'round_id',
  sessionsBefore: 'sessions_before',
  startId: 'start_id',
  towards: 'towards',
  happiest: 'happiest',
  there: 'there',
  note: 'note',
  by: 'by',
});

export type ProgrammeEvent = ProgrammeView['events'][number] & { programmeId: string; sessions: number };
/** Each is kept, in the order of arrival. */
export const programmeEvents = tableOf<ProgrammeEvent>('programme_event', {
  programmeId: 'programme_id',
  what: 'what',
  at: 'at',
  sessions: 'sessions',
  day: 'day',
  note: 'note',
  by: 'by',
});

/** The programmes of a fitting with what was done about each, in the order of arrival. */
export async function programmesOf(
  db: Queries,
  fittingId: string,
): Promise<{ programme: ProgrammeRecord; events: ProgrammeEvent[] }[]> {
  const list = await programmes.find(db, 'where fitting_id = $1 order by seq', [fittingId]);
  if (list.length === 0) return [];
  const events = await programmeEvents.find(db, 'where programme_id = any($1) order by seq', [
    list.map(({ id }) => id),
  ]);
  return list.map((programme) => ({
    programme,
    events: events.filter(({ programmeId }) => programmeId === programme.id),
  }));
}

const OF_STRINGS = PROGRAMMES.filter((name) => programmeTraits(name).changesStrings);
/** Whether a programme of a frame goes on that answers with strings: then a session is asked where balls landed. */
export async function looksAtBall(db: Queries, fittingId: string, frameId: string): Promise<boolean> {
  const rows = await db.query(
    `select 1 from programme p where fitting_id = $1 and frame_id = $2 and name = any($3)
       and not exists (select from programme_event e where e.programme_id = p.id and e.what = 'end')`,
    [fittingId, frameId, OF_STRINGS],
  );
  return rows.length > 0;
}
