import type { Response, Router } from 'express';
import QRCode from 'qrcode';
import { calls, type Access } from '@kevro/contract';
import { writeLine } from '../act';
import type { Clock } from '../clock';
import type { Db } from '../db/db';
import { ApiProblem, badInput, wrongAt } from '../problem';
import {
  addDevice,
  devicesOf,
  dropDevice,
  forgetDevices,
  lockOf,
  setLetIn,
  setLock,
} from '../records/access';
import type { OtherDevices } from '../start/other-devices';
import { theShop } from '../records/shop';
import { hasStaff, staffByName } from '../records/staff';
import {
  BENCH_HOURS,
  BENCH_NAME,
  Pairings,
  callerOf,
  cookieOf,
  isFromHere,
  mayBeCalled,
  onlyBench,
  onlyOwner,
  tokenOf,
  type Door,
} from '../safety/access';
import { log } from '../safety/log';
import { isRight, keep } from '../safety/passphrase';
import { Tries } from '../safety/tries';
import { ofShop } from '../shops/of-shop';
import { bodyOf } from './body';
import { answer, readAs } from './route';

export interface AccessParts {
  db: Db;
  now: Clock;
  door: Door;
  addresses: () => readonly string[];
  /** By which of several shops this is asked for. */
  shopCode?: string | undefined;
  /** What listens for other devices; nothing where the way it was started does. */
  others?: OtherDevices | undefined;
  /** Told the code that lets another browser of this machine in as the bench, once there is a passphrase. */
  onBenchCode?: (code: string) => void;
}

/** Who comes in: open to everybody who can reach the shop, so that nothing here tells more than it must. */
export function accessRoutes(
  router: Router,
  { db, now, door, addresses, others, onBenchCode, shopCode }: AccessParts,
): void {
  const tries = new Tries(db);
  const pairings = new Pairings(db);
  const millis = (): number => Date.parse(now());
  const offerBench = (): void => onBenchCode?.(pairings.makeForBench());
  if (onBenchCode)
    void door.isLocked().then((locked) => {
      if (locked) offerBench();
    });

  const toldTo = async (response: Response): Promise<Access> => {
    const { bench, role, staffId, name } = callerOf(response);
    return {
      bench,
      signedIn: role !== undefined,
      role: role ?? null,
      who: staffId === undefined ? '' : name,
      named: await hasStaff(db),
      passphraseSet: await door.isLocked(),
      several: shopCode !== undefined,
      shop: shopCode ?? '',
      alwaysOpen: bench && others === undefined && addresses().length > 0,
      addresses: bench ? [...addresses()] : [],
    };
  };
  router.get(calls.access.path, async (_request, response) => {
    response.json(await toldTo(response));
  });

  /** Gives a browser its own sign-in. */
  const letIn = async (
    response: Response,
    { name, bench = false, staffId = null }: { name: string; bench?: boolean; staffId?: string | null },
  ): Promise<void> => {
    const at = now();
    const { signedInHours } = await theShop(db);
    const token = await db.transaction(async (tx) => {
      await forgetDevices(tx, signedInHours, at);
      await writeLine(tx, {
        name: 'signIn',
        who: bench ? BENCH_NAME : name || 'another device',
        id: null,
        at,
      });
      return addDevice(tx, { name: bench ? BENCH_NAME : name, bench, staffId }, at);
    });
    response.set('Set-Cookie', cookieOf(token, bench ? BENCH_HOURS : signedInHours));
  };

  router.post(calls.signIn.path, ...bodyOf(calls.signIn), async (request, response) => {
    const { person, passphrase, code, name } = readAs(calls.signIn.body, request.body);
    if (!mayBeCalled(name)) throw badInput([wrongAt('name', 'name-kept')]);
    const wait = await tries.waitMs(millis());
    if (wait > 0) {
      response.set('Retry-After', String(Math.ceil(wait / 1000)));
      throw new ApiProblem('too-many-tries', [], { seconds: Math.ceil(wait / 1000) });
    }
    const lock = await lockOf(db);
    if (!lock) throw new ApiProblem('no-passphrase');
    // Counted before it is looked at: many tries at once are many tries.
    await tries.failed(millis());
    const pairing = code === undefined ? undefined : await pairings.use(code, millis());
    // A code lets a device in, and nobody by name.
    const byName = person !== undefined && code === undefined;
    const staff = byName ? await staffByName(db, person) : undefined;
    // A name that nobody has takes as long as a wrong passphrase: else it would tell who is of the shop.
    const fits = passphrase !== undefined && (await isRight(passphrase, staff ?? lock));
    const right = pairing !== undefined || (fits && (!byName || staff !== undefined));
    if (!right) {
      log.warn('a device was not let in');
      throw badInput([wrongAt(code === undefined ? 'passphrase' : 'code', 'wrong-passphrase')]);
    }
    await tries.succeeded();
    const bench = pairing?.bench ?? false;
    if (bench) offerBench();
    // The bench's own code was read off this machine, and lets in a browser of this machine.
    if (bench && !isFromHere(request)) throw new ApiProblem('bench-only');
    await letIn(response, staff ? { name: staff.name, staffId: staff.id } : { name, bench });
    response.json({ signedIn: true });
  });

  router.post(calls.signOut.path, ...bodyOf(calls.signOut), async (request, response) => {
    const token = tokenOf(request);
    if (token)
      await db.transaction(async (tx) => {
        if (await dropDevice(tx, token))
          await writeLine(tx, { name: 'signOut', who: callerOf(response).name, id: null, at: now() });
      });
    response.set('Set-Cookie', cookieOf('', 0)).json({ signedIn: false });
  });

  for (const name of ['setPassphrase', 'letOthersIn'] as const) router.all(calls[name].path, onlyBench);
  for (const name of ['pair', 'devices'] as const) router.all(calls[name].path, onlyOwner);
  router.put(calls.setPassphrase.path, ...bodyOf(calls.setPassphrase), async (request, response) => {
    const { passphrase } = readAs(calls.setPassphrase.body, request.body);
    const kept = await keep(passphrase);
    const wasLocked = await door.isLocked();
    const at = now();
    const token = await db.transaction(async (tx) => {
      await setLock(tx, kept, at);
      await writeLine(tx, { name: 'setPassphrase', who: BENCH_NAME, id: null, at });
      return addDevice(tx, { name: BENCH_NAME, bench: true }, at);
    });
    if (!wasLocked) offerBench();
    door.lock();
    response.set('Set-Cookie', cookieOf(token, BENCH_HOURS)).json({ set: true });
  });
  router.put(calls.letOthersIn.path, ...bodyOf(calls.letOthersIn), async (request, response) => {
    const { letIn: wanted } = readAs(calls.letOthersIn.body, request.body);
    // Nobody is listened for whom nothing would keep out.
    if (wanted && !(await door.isLocked())) throw new ApiProblem('no-passphrase');
    if (wanted) await others?.open();
    else others?.close();
    if (wanted && addresses().length === 0) throw new ApiProblem('no-network');
    await db.transaction(async (tx) => {
      await setLetIn(tx, wanted);
      await writeLine(tx, { name: 'letOthersIn', who: BENCH_NAME, id: null, at: now() });
    });
    response.json(await toldTo(response));
  });
  answer(router, 'pair', async () => {
    if (!(await door.isLocked())) throw new ApiProblem('no-passphrase');
    const { code, until } = await pairings.make(millis());
    const address = `${addresses()[0] ?? ''}/sign-in${ofShop(shopCode)}#${code}`;
    const picture = await QRCode.toString(address, { type: 'svg', margin: 2, errorCorrectionLevel: 'M' });
    return { code, until: new Date(until).toISOString(), address, picture };
  });
  answer(router, 'devices', async () => devicesOf(db, (await theShop(db)).signedInHours, now()));
}
