import { hostname } from 'node:os';
import { resolve } from 'node:path';
import { z } from 'zod';
import { readDatabaseUrl } from '../db/postgres';

/** What is wrong with a setting: the sentence to show. */
export class WrongSetting extends Error {
  override readonly name = 'WrongSetting';
}

const PORT = 'must be a whole number from 0 to 65535';
const HOST = 'must be a name or an address of this machine, without a port';
const NAMES = 'must be names or addresses with commas between, as in shop.lan,bench.lan';
const host = z.string().regex(/^[\w.:[\]-]+$/);

/** A number's own text, so that an empty setting is none. */
const schema = z.object({
  PORT: z
    .string()
    .regex(/^\d+$/, PORT)
    .transform(Number)
    .refine((port) => port <= 65_535, PORT)
    .default(4700),
  HOST: z
    .string()
    .refine((text) => host.safeParse(text).success, HOST)
    .default('127.0.0.1'),
  KEVRO_DATA: z
    .string()
    .default('.data/shop')
    .transform((path) => resolve(path)),
  KEVRO_NAMES: z
    .string()
    .default('')
    .transform((text) =>
      text
        .split(',')
        .map((name) => name.trim())
        .filter(Boolean),
    )
    .refine((names) => names.every((name) => host.safeParse(name).success), NAMES),
  KEVRO_SHOP_FILE: z.string().optional(),
  KEVRO_DEMO: z.enum(['fresh', 'keep'], 'must be fresh or keep').optional(),
  KEVRO_BENCH: z.string().trim().max(60).optional(),
  DATABASE_URL: z.string().optional(),
});
type Read = z.output<typeof schema>;
/** What a start is told, as `README.md` lists it. */
export interface Settings {
  port: number;
  host: string;
  folder: string;
  names: readonly string[];
  /** The shop that a new folder begins with. */
  shopFile: string | undefined;
  /** `fresh`: the demo begins anew; `keep`: it goes on with what was stored; left out: this is a shop of somebody's own. */
  demo: Read['KEVRO_DEMO'];
  /** Where the shop's database lies on a PostgreSQL server; else it lies in the folder. The demo always does. */
  databaseUrl: string | undefined;
  /** What this bench machine is called among several that serve one database: its instruments are known by it. */
  bench: string;
}

/**
 * Reads what a start is told. An empty setting counts as none.
 * @throws WrongSetting, NoDatabase with one sentence
 * @example readSettings({ PORT: '80x' }) // throws “PORT must be a whole number from 0 to 65535, not “80x”.”
 */
export function readSettings(env: Readonly<Record<string, string | undefined>>): Settings {
  const given = Object.fromEntries(Object.entries(env).filter(([, value]) => value !== ''));
  const { success, data, error } = schema.safeParse(given);
  if (!success) {
    const [issue] = error.issues;
    const name = String(issue?.path[0]);
    throw new WrongSetting(`${name} ${issue?.message}, not “${env[name] ?? ''}”.`);
  }
  return {
    port: data.PORT,
    host: data.HOST,
    folder: data.KEVRO_DATA,
    names: data.KEVRO_NAMES,
    shopFile: data.KEVRO_SHOP_FILE,
    demo: data.KEVRO_DEMO,
    bench: data.KEVRO_BENCH ?? `${hostname()}:${data.PORT}`,
    databaseUrl: data.DATABASE_URL && !data.KEVRO_DEMO ? readDatabaseUrl(data.DATABASE_URL) : undefined,
  };
}
