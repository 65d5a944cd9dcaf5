import { createHash, createHmac } from 'node:crypto';
import type { Request, Router } from 'express';
import {
  DONE_AGO,
  calls,
  type ActBodyOf,
  type ActName,
  type AnswerOf,
  type Call,
  type ChangedKind,
} from '@kevro/contract';
import type { Changes } from './changes';
import { arrivalOf, doneAt, type Clock } from './clock';
import type { Db, Queries } from './db/db';
import { ApiProblem } from './problem';
import { newId } from './records/id';
import { bodyOf } from './routes/body';
import { readBody } from './routes/route';
import { callerOf } from './safety/access';
import { log } from './safety/log';

/** What an act works with. All of it happens in one transaction. */
export interface ActInput<N extends ActName> {
  tx: Queries;
  body: ActBodyOf<N>;
  /** Of the form that it comes from; one of its own where the client said none. */
  key: string;
  /** The record that the path names; empty where it names none. */
  id: string;
  /** When it was done: before it came, where it had to wait for the server. */
  now: string;
  request: Request;
  /** Something that follows only once everything is stored. */
  later: (job: () => Promise<unknown> | unknown) => void;
}
type Answered<N extends ActName> = AnswerOf<N> | (() => Promise<AnswerOf<N>> | AnswerOf<N>);

const FITTINGS_OF_FRAME = 'select fitting_id from fitting_frame where frame_id';
/** Rows that an act waits for before it reads, fittings before frames before players: two acts never wait for each other. */
const LOCKS: Partial<Record<ChangedKind, Partial<Record<'fitting' | 'frame' | 'player', string>>>> = {
  fitting: {
    fitting: '$1',
    frame: 'select frame_id from fitting_frame where fitting_id = $1',
    player: 'select player_id from fitting where id = $1',
  },
  session: {
    fitting: 'select r.fitting_id from session s join round r on r.id = s.round_id where s.id = $1',
  },
  frame: { fitting: `${FITTINGS_OF_FRAME} = $1`, frame: '$1' },
  reading: { frame: '$1' },
  measurement: {
    fitting: `${FITTINGS_OF_FRAME} = (select frame_id from measurement where id = $1)`,
    frame: 'select frame_id from measurement where id = $1',
  },
  stringing: { frame: 'select frame_id from stringing where id = $1' },
  player: {
    fitting: 'select id from fitting where player_id = $1',
    frame:
      'select id from frame where owner_id = $1 union select ff.frame_id from fitting_frame ff join fitting f on f.id = ff.fitting_id where f.player_id = $1',
    player: '$1',
  },
};
/** Kinds whose record is one row of a table of its own. */
const OWN_ROW: Partial<Record<ChangedKind, string>> = {
  setup: 'setup',
  part: 'part',
  instrument: 'instrument',
  'follow-up': 'look_again',
  season: 'season_date',
};

/** Waits until nobody else changes what the act is about. */
export async function lock(tx: Queries, kind: ChangedKind, id: string): Promise<void> {
  for (const [table, which] of Object.entries(LOCKS[kind] ?? {}))
    await tx.query(`select 1 from ${table} where id in (${which}) order by id for update`, [id]);
  const own = OWN_ROW[kind];
  if (own) await tx.query(`select 1 from ${own} where id = $1 for update`, [id]);
}

/** The line of the change log that an act writes with what it changes: device, call and record; none of its words, so that nobody has to be erased here. */
export interface ChangeLine {
  name: ActName;
  who: string;
  id: string | null;
  at: string;
  /** Of the form that it comes from, and what the form held. */
  key?: string | undefined;
  body?: unknown;
}

/** A key is kept as its hash, since a link's code comes of it; and what was sent as a hash that only who has the key can compare. */
function hashed({ key, body }: ChangeLine): { key: string | null; sent: string | null } {
  if (key === undefined) return { key: null, sent: null };
  return {
    key: createHash('sha256').update(key).digest('base64url'),
    sent: createHmac('sha256', key)
      .update(JSON.stringify(body ?? null))
      .digest('base64url'),
  };
}

/** Writes the line. @returns its number, or undefined where the act of this key was done before */
export async function writeLine(tx: Queries, line: ChangeLine): Promise<number | undefined> {
  const { name, who, id, at } = line;
  const { key, sent } = hashed(line);
  const [written] = await tx.query<{ seq: number }>(
    `insert into change_log (at, who, call, record, record_id, key, sent) values ($1, $2, $3, $4, $5, $6, $7)
     on conflict (key, shop_id) do nothing returning seq`,
    [at, who, name, calls[name].changes, id, key, sent],
  );
  return written?.seq;
}

/**
 * What an act of this key made.
 * @throws ApiProblem where the key is another act's, or the same act's with other content: that was stored as it was sent first
 */
async function madeBefore(tx: Queries, line: ChangeLine): Promise<string> {
  const { key, sent } = hashed(line);
  const [before] = await tx.query<{
    call: string;
    about: string | null;
    made: string | null;
    sent: string | null;
  }>('select call, record_id as about, made_id as made, sent from change_log where key = $1', [key]);
  if (before?.call !== line.name || (line.id !== null && before.about !== line.id))
    throw new ApiProblem('key-used');
  const made = before.made ?? before.about ?? '';
  if (before.sent !== sent) throw new ApiProblem('stored-already', [], {}, undefined, made);
  return made;
}

/** Acts over HTTP: each in one transaction that locks what it is about, reads, checks, writes, and writes its line of the change log. */
export class Acts {
  /** @param changes told of everything that is stored, once it is */
  constructor(
    readonly db: Db,
    private readonly now: Clock,
    readonly changes: Changes,
  ) {}

  /** An act that changes what is there. */
  on<N extends ActName>(
    router: Router,
    name: N,
    work: (input: ActInput<N>) => Promise<Answered<N>> | Answered<N>,
  ): void {
    this.route(router, name, (input) => Promise.resolve(work(input)));
  }

  /**
   * An act that makes something new. Sent again with the key of its form it makes nothing more and is answered the same.
   * @param work makes it @returns its id
   * @param answer reads what is answered, of the id that was made or of the record that the path names
   */
  begin<N extends ActName>(
    router: Router,
    name: N,
    work: (input: ActInput<N>) => Promise<string>,
    answer: (q: Queries, made: string, input: ActInput<N>) => Promise<Answered<N>>,
  ): void {
    this.route(
      router,
      name,
      async (input, line) => {
        const made = await work(input);
        if (line !== undefined)
          await input.tx.query(
            'update change_log set made_id = $2, record_id = coalesce(record_id, $2) where seq = $1',
            [line, made],
          );
        return answer(input.tx, made, input);
      },
      (input, made) => answer(input.tx, made, input),
    );
  }

  private route<N extends ActName>(
    router: Router,
    name: N,
    work: (input: ActInput<N>, line: number | undefined) => Promise<Answered<N>>,
    again?: (input: ActInput<N>, made: string) => Promise<Answered<N>>,
  ): void {
    const call = calls[name] as Call & { changes: ChangedKind };
    const { method, path, changes } = call;
    router[method](path, ...bodyOf(call), async (request, response) => {
      const { key, body } = readBody(name, request.body);
      const at = this.now();
      const who = callerOf(response).name;
      const { id } = request.params as { id?: string };
      let jobs: (() => Promise<unknown> | unknown)[] = [];
      const done = await this.db.transaction(async (tx): Promise<Answered<N>> => {
        jobs = [];
        const later = (job: () => Promise<unknown> | unknown): void => void jobs.push(job);
        const own = key ?? newId();
        const done = doneAt(arrivalOf(response) ?? at, request.get(DONE_AGO));
        const input = { tx, body, key: own, id: id ?? '', now: done, request, later } as ActInput<N>;
        if (changes === 'reading') {
          await lock(tx, changes, input.id);
          return work(input, undefined);
        }
        const line = { name, who, id: id ?? null, at, key, body };
        const seq = await writeLine(tx, line);
        if (seq === undefined) {
          if (!again) throw new ApiProblem('key-used');
          return again(input, await madeBefore(tx, line));
        }
        if (id !== undefined) await lock(tx, changes, id);
        return work(input, seq);
      });
      this.changes.tell({ kind: changes, id: id ?? null, page: request.get('kevro-page') ?? '' });
      // Everything is stored: what follows from it must not make it look otherwise.
      for (const job of jobs)
        await Promise.resolve()
          .then(job)
          .catch((error: unknown) => log.error({ err: error }, 'something after an act failed'));
      response.json(typeof done === 'function' ? await done() : done);
    });
  }
}
