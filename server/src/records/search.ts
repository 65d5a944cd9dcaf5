import type { AnswerOf, FoundKind } from '@kevro/contract';
import type { Queries } from '../db/db';
import { Conditions, readListing, type WordFound } from './listing';
import { LIVE } from './setup';

type Found = AnswerOf<'search'>;

/** Rows shown of each kind; how many more there are is told beside them. */
const SHOWN = 6;

/** The table of a kind is called as the kind is, and `t` in what is asked of it. */
interface Where {
  found: WordFound;
  title: string;
  detail: string;
  order: string;
  /** What is joined to it for title and detail. */
  join?: string;
  /** What else holds of all. */
  only?: string;
}
/** Where each kind of thing stands, and what it is called. What bothers a player and how the arm was is looked through by no search. */
const KINDS: Record<FoundKind, Where> = {
  player: {
    found: (has) => has('t.name_words'),
    title: 't.name',
    detail: "case when t.archived then 'archived' else t.level end",
    order: 't.archived, lower(t.name), t.id',
  },
  frame: {
    join: 'left join player p on p.id = t.owner_id',
    found: (has) => has('t.words'),
    title: "t.tag || ', ' || t.maker || ' ' || t.model",
    detail: "case when t.archived then 'archived' else coalesce(p.name, 'stock') end",
    order: 't.archived, lower(t.tag), t.id',
  },
  fitting: {
    join: 'join player p on p.id = t.player_id',
    found: (has) => has('t.words'),
    title: `p.name || ', ' || coalesce((select string_agg(fr.tag, ', ' order by ff.position) from fitting_frame ff
      join frame fr on fr.id = ff.frame_id where ff.fitting_id = t.id), '')`,
    detail: "case when t.closed_at is null then 'open' else 'closed' end",
    order: 't.closed_at is not null, t.seq desc',
  },
  setup: {
    found: (has) => has('t.words'),
    only: LIVE,
    title: 't.name',
    detail: "case when t.retired then 'retired' else t.frame_name end",
    order: 't.retired, lower(t.name), t.id',
  },
  part: {
    found: (has) => has("lower(t.data->>'name')"),
    title: "t.data->>'name'",
    detail: "case when t.retired then 'retired' else t.kind end",
    order: "t.retired, t.data->>'name', t.id",
  },
  instrument: {
    found: (has) => has('lower(t.name)'),
    title: 't.name',
    detail: "case when t.retired then 'retired' else t.kind end",
    order: 't.retired, t.name, t.id',
  },
};

/** What a search finds in everything that the shop keeps: the first few of each kind, and how many there are. */
export async function searchAll(db: Queries, text: string): Promise<Found> {
  if (text === '') return [];
  const found = await Promise.all(
    Object.entries(KINDS).map(async ([kind, { found: holds, title, detail, order, join = '', only }]) => {
      const asked = new Conditions().search(text, holds);
      if (only) asked.and(only);
      const { rows, ...inAll } = await readListing<Found[number]['rows'][number]>(
        db,
        {
          id: 't.id',
          find: `${kind} t`,
          from: `${kind} t ${join}`,
          columns: `t.id, ${title} as title, ${detail} as detail`,
          order,
        },
        asked,
        { limit: SHOWN, offset: 0 },
      );
      return { kind: kind as FoundKind, ...inAll, rows };
    }),
  );
  return found.filter(({ rows }) => rows.length > 0);
}
