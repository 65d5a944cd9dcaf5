import type { Router } from 'express';
import QRCode from 'qrcode';
import { calls, type Access } from '@kevro/contract';
import type { Clock } from '../clock';
import type { Db } from '../db/db';
import { ApiProblem, badInput, wrongAt } from '../problem';
import { addDevice, devicesOf, dropDevice, lockOf, setLock } from '../records/access';
import { theShop } from '../records/shop';
import { Pairings, cookieOf, isBench, maySee, onlyBench, tokenOf } from '../safety/access';
import { log } from '../safety/log';
import { isRight, keep } from '../safety/passphrase';
import { Tries } from '../safety/tries';
import { answer, readAs } from './route';

/** Who comes in: open to everybody who can reach the shop, so that nothing here tells more than it must. */
export function accessRoutes(router: Router, db: Db, now: Clock, addresses: () => readonly string[]): void {
  const tries = new Tries();
  const pairings = new Pairings();
  const millis = (): number => Date.parse(now());

  router.get(calls.access.path, async (request, response) => {
    const bench = isBench(request);
    const told: Access = {
      bench,
      signedIn: await maySee(request, db, now),
      passphraseSet: (await lockOf(db)) !== undefined,
      addresses: bench ? [...addresses()] : [],
    };
    response.json(told);
  });

  router.post(calls.signIn.path, async (request, response) => {
    const { passphrase, code, name } = readAs(calls.signIn.body, request.body);
    const wait = tries.waitMs(millis());
    if (wait > 0) {
      response.set('Retry-After', String(Math.ceil(wait / 1000)));
      throw new ApiProblem('too-many-tries', [], { seconds: Math.ceil(wait / 1000) });
    }
    const lock = await lockOf(db);
    if (!lock) throw new ApiProblem('no-passphrase');
    // Counted before it is looked at: many tries at once are many tries.
    tries.failed(millis());
    const right =
      code === undefined
        ? passphrase !== undefined && (await isRight(passphrase, lock))
        : pairings.use(code, millis());
    if (!right) {
      log.warn('a device was not let in');
      throw badInput([wrongAt(code === undefined ? 'passphrase' : 'code', 'wrong-passphrase')]);
    }
    tries.succeeded();
    const { signedInHours } = await theShop(db);
    const token = await addDevice(db, name, now());
    response.set('Set-Cookie', cookieOf(token, signedInHours)).json({ signedIn: true });
  });

  router.post(calls.signOut.path, async (request, response) => {
    const token = tokenOf(request);
    if (token) await dropDevice(db, token);
    response.set('Set-Cookie', cookieOf('', 0)).json({ signedIn: false });
  });

  for (const name of ['setPassphrase', 'pair', 'devices'] as const) router.all(calls[name].path, onlyBench);
  answer(router, 'setPassphrase', async ({ body }) => {
    const kept = await keep(body.passphrase);
    await db.transaction((tx) => setLock(tx, kept, now()));
    return { set: true as const };
  });
  answer(router, 'pair', async () => {
    if (!(await lockOf(db))) throw new ApiProblem('no-passphrase');
    const { code, until } = pairings.make(millis());
    const address = `${addresses()[0] ?? ''}/sign-in#${code}`;
    const picture = await QRCode.toString(address, { type: 'svg', margin: 2, errorCorrectionLevel: 'M' });
    return { code, until: new Date(until).toISOString(), address, picture };
  });
  answer(router, 'devices', async () => devicesOf(db, (await theShop(db)).signedInHours, now()));
}
