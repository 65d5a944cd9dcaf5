import { existsSync, mkdirSync, readdirSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';

/** What the demo leaves in a folder of its own: only where this lies does it ever erase anything. */
const MARK = 'made-by-the-kevro-demo';
const DATABASE = 'database';

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
  mkdirSync(folder, { recursive: true });
  if (!isDemo(folder)) {
    if (readdirSync(folder).length > 0) {
      throw new WrongFolder(
        `${folder} holds something that the demo did not make, and is left as it is. Name an empty folder in KEVRO_DATA, or none.`,
      );
    }
    writeFileSync(join(folder, MARK), 'The demo of Kevro starts this folder anew each time.\n');
  }
  const database = join(folder, DATABASE);
  if (fresh) rmSync(database, { recursive: true, force: true });
  return database;
}

/** The database folder of a shop. @throws WrongFolder where it is the demo's, which is erased at the demo's next start */
export function shopFolder(folder: string): string {
  if (isDemo(folder)) {
    throw new WrongFolder(
      `${folder} belongs to the demo, which erases it each time. Name another folder in KEVRO_DATA for a shop of your own.`,
    );
  }
  return folder;
}
