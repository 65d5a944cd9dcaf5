import { existsSync, readdirSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { makeFolder } from './make-folder';

/** What the demo leaves in a folder of its own: only where this lies does it ever erase anything. */
const MARK = 'made-by-the-kevro-demo';
const DATABASE = 'database';
/** A file with the key by which commands on this machine are let in; it is there while a server runs. */
export const OWNERS_KEY = 'owners-key';
/** Where backups that are made by themselves are kept. */
export const BACKUPS = 'backups';

/** The folder cannot be used for what it was named for. Its message is the sentence to show. */
export class WrongFolder extends Error {
  constructor(message: string) {
    super(message);
    this.name = 'WrongFolder';
  }
}

const isDemo = (folder: string): boolean => existsSync(join(folder, MARK));

/**
 * The database folder of the demo, fresh or as it was left. Touches nothing in a folder that is not the demo's own.
 * @throws WrongFolder where something else lies in it
 */
export function demoFolder(folder: string, fresh: boolean): string {
  makeFolder(folder);
  if (!isDemo(folder)) {
    if (readdirSync(folder).some((name) => name !== OWNERS_KEY)) {
      throw new WrongFolder(
        `${folder} holds something that the demo did not make, and is left as it is. Name an empty folder in KEVRO_DATA, or none.`,
      );
    }
    writeFileSync(join(folder, MARK), 'The demo of Kevro starts this folder anew each time.\n');
  }
  const database = join(folder, DATABASE);
  if (fresh)
    for (const made of [database, `${database}.making`]) rmSync(made, { recursive: true, force: true });
  return database;
}

/** The database folder of a shop or of the demo, whichever the folder is. @throws WrongFolder where it is neither */
export const databaseIn = (folder: string): string =>
  isDemo(folder) ? demoFolder(folder, false) : shopFolder(folder);

/** Where the database of a new shop goes. @throws WrongFolder where there is something already */
export function newDatabaseIn(folder: string): string {
  const database = shopFolder(folder);
  if (database === folder)
    throw new WrongFolder(`There is a shop in ${folder} already. Name another folder for the restored one.`);
  return database;
}

/** What of a database lies in its folder: shops that were begun before they had a folder of their own for it have it right here. */
const PARTS_OF_A_DATABASE = ['PG_VERSION', 'base', 'global', 'pg_wal'];
/** A backup that was sent and is being restored. */
export const SENT_BACKUP = 'sent-backup.zip';
/** A restored shop that takes the place of the one here at the next start; and that one until the new one has opened. */
export const nextTo = (database: string): string => `${database}.next`;
export const beforeOf = (database: string): string => `${database}.before`;
/** What Kevro itself puts beside a database. */
export const OWN_NAMES = [
  DATABASE,
  `${DATABASE}.making`,
  nextTo(DATABASE),
  `${nextTo(DATABASE)}.making`,
  beforeOf(DATABASE),
  BACKUPS,
  OWNERS_KEY,
  SENT_BACKUP,
  `${SENT_BACKUP}.unfinished`,
];

/**
 * The database folder of a shop.
 * @throws WrongFolder where it is the demo's, which is erased at the demo's next start, or where it holds something else
 */
export function shopFolder(folder: string): string {
  if (isDemo(folder)) {
    throw new WrongFolder(
      `${folder} belongs to the demo, which erases it each time. Name another folder in KEVRO_DATA for a shop of your own.`,
    );
  }
  const names = readdirSync(folder);
  if (names.some((name) => PARTS_OF_A_DATABASE.includes(name))) return folder;
  const strange = names.filter((name) => !OWN_NAMES.includes(name));
  if (strange.length > 0) {
    throw new WrongFolder(
      `${folder} holds something that is no shop (${strange.slice(0, 3).join(', ')}), and is left as it is. Name an empty folder in KEVRO_DATA, or none.`,
    );
  }
  return join(folder, DATABASE);
}
