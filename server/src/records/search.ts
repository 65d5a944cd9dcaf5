import type { AnswerOf, FoundKind } from '@kevro/contract';
import type { Queries } from '../db/db';
import { Conditions, readListing, type ListSql } from './listing';
import { LIVE } from './setup';
import { foundInFitting } from './today';

type Found = AnswerOf<'search'>;

/** Rows shown of each kind; how many more there are is told beside them. */
const SHOWN = 6;

interface Where extends Pick<ListSql, 'find' | 'from' | 'order'> {
  /** What holds of a word that is found, with `?` where the word goes. */
  found: string;
  title: string;
  detail: string;
  /** What else holds of all. */
  only?: string;
}
/** Where each kind of thing stands, and what it is called. What bothers a player and how the arm was is looked through by no search. */
const KINDS: Record<FoundKind, Where> = {
  player: {
    find: 'player t',
    from: 'player t',
    found: 't.name_words like ?',
    title: 't.name',
    detail: "case when t.archived then 'archived' else t.level end",
    order: 't.archived, lower(t.name), t.id',
  },
  frame: {
    find: 'frame t',
    from: 'frame t left join player p on p.id = t.owner_id',
    found: 't.words like ?',
    title: "t.tag || ', ' || t.maker || ' ' || t.model",
    detail: "case when t.archived then 'archived' else coalesce(p.name, 'stock') end",
    order: 't.archived, lower(t.tag), t.id',
  },
  fitting: {
    find: 'fitting t',
    from: 'fitting t join player p on p.id = t.player_id',
    found: foundInFitting('t'),
    title: `p.name || ', ' || coalesce((select string_agg(fr.tag, ', ' order by ff.position) from fitting_frame ff
      join frame fr on fr.id = ff.frame_id where ff.fitting_id = t.id), '')`,
    detail: "case when t.closed_at is null then 'open' else 'closed' end",
    order: 't.closed_at is not null, t.seq desc',
  },
  setup: {
    find: 'setup t',
    from: 'setup t',
    found: 't.words like ?',
    only: LIVE,
    title: 't.name',
    detail: "case when t.retired then 'retired' else t.frame_name end",
    order: 't.retired, lower(t.name), t.id',
  },
  part: {
    find: 'part t',
    from: 'part t',
    found: "lower(t.data->>'name') like ?",
    title: "t.data->>'name'",
    detail: "case when t.retired then 'retired' else t.kind end",
    order: "t.retired, t.data->>'name', t.id",
  },
  instrument: {
    find: 'instrument t',
    from: 'instrument t',
    found: 'lower(t.name) like ?',
    title: 't.name',
    detail: "case when t.retired then 'retired' else t.kind end",
    order: 't.retired, t.name, t.id',
  },
};

/** What a search finds in everything that the shop keeps: the first few of each kind, and how many there are. */
export async function searchAll(db: Queries, text: string): Promise<Found> {
  if (text === '') return [];
  const found = await Promise.all(
    Object.entries(KINDS).map(async ([kind, { found: words, only, title, detail, ...where }]) => {
      const asked = new Conditions().search(text, words);
      if (only) asked.and(only);
      const sql = { ...where, id: 't.id', columns: `t.id, ${title} as title, ${detail} as detail` };
      const { rows, total } = await readListing<Found[number]['rows'][number]>(db, sql, asked, {
        limit: SHOWN,
        offset: 0,
      });
      return { kind: kind as FoundKind, total, rows };
    }),
  );
  return found.filter(({ rows }) => rows.length > 0);
}
