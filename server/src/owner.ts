// npm run owner -- name: lets an owner in by name, with the passphrase that comes on the standard input. For a machine without a screen, or where a passphrase was forgotten.
import { text } from 'node:stream/consumers';
import { resolve } from 'node:path';
import type { StaffMember } from '@kevro/contract';
import { asOwner } from './start/as-owner';
import { databaseIn } from './start/demo-folder';
import { Held, holdShop } from './start/hold';

const folder = resolve(process.env.KEVRO_DATA ?? '.data/shop');
const [, , name = ''] = process.argv;

/** Where the server is that is at work on the folder. */
async function serverUrl(): Promise<string> {
  const { DATABASE_URL } = process.env;
  try {
    const hold = await holdShop(folder, 'an owner', () => (DATABASE_URL ? folder : databaseIn(folder)));
    await hold.release();
  } catch (error) {
    if (error instanceof Held && error.holder) return `${error.holder.url}/api/v1`;
    throw error;
  }
  throw new Error(`No Kevro is at work on ${folder}. Start it first.`);
}

try {
  if (name === '')
    throw new Error(
      'Say who it is: npm run owner -- "Halla Brandt", and give the passphrase on the standard input.',
    );
  const url = await serverUrl();
  const send = async <T>(method: string, path: string, body?: unknown): Promise<T> => {
    const answer = await fetch(url + path, {
      method,
      headers: { 'content-type': 'application/json', ...asOwner(folder) },
      ...(body === undefined ? {} : { body: JSON.stringify(body) }),
    });
    const said = (await answer.json()) as T & { detail?: string; errors?: { message: string }[] };
    if (!answer.ok) throw new Error(said.errors?.[0]?.message ?? said.detail);
    return said;
  };
  const passphrase = (await text(process.stdin)).replace(/\r?\n$/, '');
  const there = (await send<StaffMember[]>('GET', '/staff')).find(
    (one) => one.name.toLowerCase() === name.toLowerCase(),
  );
  // A shop without a passphrase has no lock, and lets nobody in from elsewhere.
  const { passphraseSet } = await send<{ passphraseSet: boolean }>('GET', '/access');
  if (!passphraseSet) await send('PUT', '/passphrase', { passphrase });
  if (there) {
    await send('PUT', `/staff/${there.id}`, { name: there.name, role: 'owner', left: false });
    await send('PUT', `/staff/${there.id}/passphrase`, { passphrase });
  } else await send('POST', '/staff', { name, role: 'owner', passphrase });
  console.log(`${name} comes in by name, as an owner.`);
} catch (error) {
  console.error(error instanceof Error ? error.message : String(error));
  process.exit(1);
}
process.exit(0);
