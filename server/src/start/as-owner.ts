import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { OWNERS_KEY } from './demo-folder';

/** How a command (for one of several shops: that which `KEVRO_SHOP` names) shows itself to the server that is at work on a folder: by the key that lies in it, which its owner alone can read. */
export function asOwner(folder: string): Record<string, string> {
  const { KEVRO_SHOP } = process.env;
  const which: Record<string, string> = KEVRO_SHOP ? { cookie: `kevro-shop=${KEVRO_SHOP}` } : {};
  try {
    return { authorization: `Bearer ${readFileSync(join(folder, OWNERS_KEY), 'utf8')}`, ...which };
  } catch {
    return which;
  }
}
