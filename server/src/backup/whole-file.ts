import { createWriteStream, linkSync, rmSync } from 'node:fs';
import { dirname } from 'node:path';
import type { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { sync } from '../db/durable-fs';

/**
 * Writes a file that has its name only when it is whole and on the disk: cut off anywhere, nothing is there under that name. A file of that name is left alone.
 * @throws Error where the name is taken, or not all of it came
 */
export async function writeWhole(from: Readable, file: string): Promise<void> {
  const making = `${file}.unfinished`;
  try {
    await pipeline(from, createWriteStream(making, { mode: 0o600 }));
    sync(making);
    // Unlike a renaming it takes no other file's place.
    linkSync(making, file);
    sync(dirname(file));
  } finally {
    rmSync(making, { force: true });
  }
}
