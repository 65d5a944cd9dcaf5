import { z } from 'zod';
import { key, rowsOf } from './records/text';

/** What a change is about, as the change log names it. Readings are no change of the shop until they are stored as a measurement. */
export type ChangedKind =
  | 'player'
  | 'frame'
  | 'fitting'
  | 'measurement'
  | 'stringing'
  | 'session'
  | 'setup'
  | 'part'
  | 'instrument'
  | 'guide'
  | 'follow-up'
  | 'season'
  | 'shop'
  | 'device'
  | 'reading';

/** What comes down the stream of changes: which kind of record was changed, which one, and by which open page. */
export interface ToldChange {
  /** `everything` where it is not known what was changed. */
  kind: ChangedKind | 'everything';
  id: string | null;
  page: string;
}

/** One call of the API. The server routes by these, the page is typed by them, and the OpenAPI document lists them. */
export interface Call {
  method: 'get' | 'post' | 'put';
  path: string;
  summary: string;
  body?: z.ZodType;
  /** What may stand behind the question mark; every part has a default. */
  query?: z.ZodType;
  answer: z.ZodType;
  /** Media types of a body that is a file. */
  upload?: readonly string[];
  /** Media type of an answer that is a file. */
  download?: string;
  /** The kind of record that it changes. A call without one only reads or computes. */
  changes?: ChangedKind;
  /** The most that its body may hold, in bytes, where that is more than {@link BODY_MOST_BYTES}. */
  bodyMostBytes?: number;
}

/** More than any form of the shop sends. */
export const BODY_MOST_BYTES = 64 * 1024;
/** What a device may send before it is let in. */
export const OPEN_MOST_BYTES = 4 * 1024;

type Place = Pick<Call, 'method' | 'path'>;

/** A call by where it is and its schemas. */
export const call = <B extends z.ZodType | undefined, A extends z.ZodType>(
  at: Place,
  summary: string,
  answer: A,
  body?: B,
) => ({ ...at, summary, answer, body: body as B, query: undefined });

/** A call that changes the shop: an act. */
export const act = <B extends z.ZodType | undefined, A extends z.ZodType>(
  at: Place,
  changes: ChangedKind,
  summary: string,
  answer: A,
  body?: B,
) => ({ ...call(at, summary, answer, body), changes });

interface OwnKey {
  key?: string | undefined;
}
type WithKey<T> = T extends Record<string, never> ? OwnKey : T & OwnKey;
type Keyed<B extends z.ZodType> = z.ZodType<WithKey<z.output<B>>, WithKey<z.input<B>>>;

/** A body with the key of its form. Without one each call is an act of its own, as a script may want. */
function keyed<B extends z.ZodObject | z.ZodDiscriminatedUnion>(body: B): Keyed<B> {
  const own = { key: key.optional() };
  if (body instanceof z.ZodObject)
    return ('key' in body.shape ? body : body.safeExtend(own)) as unknown as Keyed<B>;
  const options = (body.options as z.ZodObject[]).map((option) => option.safeExtend(own));
  return z.discriminatedUnion(
    body.def.discriminator,
    options as unknown as Parameters<typeof z.discriminatedUnion>[1],
  ) as unknown as Keyed<B>;
}

/** An act that makes something new: sent twice with one key, it makes it once and answers both times. */
export const begin = <B extends z.ZodObject | z.ZodDiscriminatedUnion, A extends z.ZodType>(
  at: Place,
  changes: ChangedKind,
  summary: string,
  answer: A,
  body: B,
) => act(at, changes, summary, answer, keyed(body));

/** A list that is searched, sorted and read in parts. */
export const listing = <Q extends z.ZodType, R extends z.ZodType>(
  at: Place,
  summary: string,
  row: R,
  query: Q,
) => ({
  ...at,
  summary,
  answer: rowsOf(row),
  body: undefined,
  query,
});

export const retiredBody = z.strictObject({ retired: z.boolean() });
