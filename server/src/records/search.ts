import type { AnswerOf, FoundKind } from '@kevro/contract';
import type { Queries } from '../db/db';
import { Conditions } from './listing';

type Found = AnswerOf<'search'>;

/** Rows shown of each kind; how many more there are is told beside them. */
const SHOWN = 6;

interface Where {
  from: string;
  /** What is looked through, in small letters. */
  words: string;
  title: string;
  detail: string;
  order: string;
}
/** Where each kind of thing stands, and what it is called. What bothers a player and how the arm was is looked through by no search. */
const KINDS: Record<FoundKind, Where> = {
  player: {
    from: 'player t',
    words: 't.name_words',
    title: 't.name',
    detail: "case when t.archived then 'archived' else t.level end",
    order: 't.archived, lower(t.name), t.id',
  },
  frame: {
    from: 'frame t left join player p on p.id = t.owner_id',
    words: "(t.words || ' ' || coalesce(p.name_words, 'stock'))",
    title: "t.tag || ', ' || t.maker || ' ' || t.model",
    detail: "case when t.archived then 'archived' else coalesce(p.name, 'stock') end",
    order: 't.archived, t.tag, t.id',
  },
  fitting: {
    from: 'fitting t join player p on p.id = t.player_id',
    words: `(p.name_words || ' ' || coalesce((select string_agg(fr.words, ' ') from fitting_frame ff join frame fr on fr.id = ff.frame_id
      where ff.fitting_id = t.id), ''))`,
    title: `p.name || ', ' || coalesce((select string_agg(fr.tag, ', ' order by ff.position) from fitting_frame ff
      join frame fr on fr.id = ff.frame_id where ff.fitting_id = t.id), '')`,
    detail: "case when t.closed_at is null then 'open' else 'closed' end",
    order: 't.closed_at is not null, t.seq desc',
  },
  setup: {
    from: 'setup t',
    words: 't.words',
    title: 't.name',
    detail: "case when t.retired then 'retired' else t.frame_name end",
    order: 't.retired, lower(t.name), t.id',
  },
  part: {
    from: 'part t',
    words: "lower(t.data->>'name')",
    title: "t.data->>'name'",
    detail: "case when t.retired then 'retired' else t.kind end",
    order: "t.retired, t.data->>'name', t.id",
  },
  instrument: {
    from: 'instrument t',
    words: 'lower(t.name)',
    title: 't.name',
    detail: "case when t.retired then 'retired' else t.kind end",
    order: 't.retired, t.name, t.id',
  },
};

/** What a search finds in everything that the shop keeps: the first few of each kind, and how many there are. */
export async function searchAll(db: Queries, text: string): Promise<Found> {
  if (text === '') return [];
  const found = await Promise.all(
    Object.entries(KINDS).map(async ([kind, { from, words, title, detail, order }]) => {
      const { where, values } = new Conditions().search(text, `${words} like ?`);
      const rows = await db.query<{ id: string; title: string; detail: string; n: number }>(
        `select t.id, ${title} as title, ${detail} as detail, count(*) over () as n from ${from} ${where} order by ${order} limit ${SHOWN}`,
        values,
      );
      return {
        kind: kind as FoundKind,
        total: rows[0]?.n ?? 0,
        rows: rows.map(({ n: _, ...row }) => row),
      };
    }),
  );
  return found.filter(({ rows }) => rows.length > 0);
}
