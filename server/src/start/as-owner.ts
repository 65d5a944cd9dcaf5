import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { OWNERS_KEY } from './demo-folder';

/** How a command shows itself to the server that is at work on a folder: by the key that lies in it, which its owner alone can read. */
export function asOwner(folder: string): { authorization: string } {
  try {
    return { authorization: `Bearer ${readFileSync(join(folder, OWNERS_KEY), 'utf8')}` };
  } catch {
    return { authorization: '' };
  }
}
