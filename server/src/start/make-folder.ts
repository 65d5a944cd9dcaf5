import { existsSync, mkdirSync } from 'node:fs';
import { dirname } from 'node:path';

/** A folder with all that it lies in. The system's own recursive call asks for ever where a folder cannot be made, as in /proc. */
export function makeFolder(path: string): void {
  if (existsSync(path)) return;
  makeFolder(dirname(path));
  try {
    mkdirSync(path);
  } catch (error) {
    if ((error as NodeJS.ErrnoException).code !== 'EEXIST') throw error;
  }
}
