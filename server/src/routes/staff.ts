import type { Response, Router } from 'express';
import { calls, sentence, type ActName, type StaffMember } from '@kevro/contract';
import { writeLine } from '../act';
import type { Clock } from '../clock';
import type { Db, Queries } from '../db/db';
import { ApiProblem, badInput, wrongAt } from '../problem';
import { addDevice } from '../records/access';
import { theShop } from '../records/shop';
import {
  addStaff,
  changeStaff,
  listStaff,
  nameOfAnother,
  setPassphraseOf,
  signOutStaff,
  staffById,
} from '../records/staff';
import { callerOf, cookieOf, mayBeCalled, onlyOwner } from '../safety/access';
import { isRight, keep } from '../safety/passphrase';
import { Tries } from '../safety/tries';
import { bodyOf } from './body';
import { answer, readAs } from './route';

/** The people of the shop: who they are and what they may do is the owner's to say. */
export function staffRoutes(router: Router, db: Db, now: Clock): void {
  for (const name of ['staff', 'editStaff', 'resetStaff'] as const) router.all(calls[name].path, onlyOwner);

  const tries = new Tries(db);
  function taken(name: string): ApiProblem {
    const values = { what: `somebody named ${name}` };
    const message = sentence('already-there', values);
    return new ApiProblem('already-there', [{ path: 'name', code: 'already-there', message }], values);
  }
  /** What happens to somebody, with its line in the change log. */
  const written = <T>(
    response: Response,
    name: ActName,
    id: string | null,
    work: (tx: Queries, at: string) => Promise<T>,
  ): Promise<T> =>
    db.transaction(async (tx) => {
      const at = now();
      await writeLine(tx, { name, who: callerOf(response).name, id, at });
      return work(tx, at);
    });
  const orNone = (found: StaffMember | undefined): StaffMember => {
    if (!found) throw new ApiProblem('not-found');
    return found;
  };
  const nameFor = (name: string): string => {
    if (!mayBeCalled(name)) throw badInput([wrongAt('name', 'name-kept')]);
    return name;
  };

  answer(router, 'staff', () => listStaff(db));
  router.post(calls.addStaff.path, ...bodyOf(calls.addStaff), async (request, response) => {
    const { passphrase, role, name } = readAs(calls.addStaff.body, request.body);
    nameFor(name);
    const kept = await keep(passphrase);
    const added = await written(response, 'addStaff', null, async (tx, at) => {
      const made = await addStaff(tx, { name, role }, kept, at);
      // Nothing is written of what was not done.
      if (!made) throw taken(name);
      return made;
    });
    response.json(added);
  });
  router.put(calls.editStaff.path, ...bodyOf(calls.editStaff), async (request, response) => {
    const id = String(request.params.id);
    const change = readAs(calls.editStaff.body, request.body);
    nameFor(change.name);
    const changed = await written(response, 'editStaff', id, async (tx) => {
      if (await nameOfAnother(tx, change.name, id)) throw taken(change.name);
      if (change.left) await signOutStaff(tx, id);
      return orNone(await changeStaff(tx, id, change));
    });
    response.json(changed);
  });
  router.put(calls.resetStaff.path, ...bodyOf(calls.resetStaff), async (request, response) => {
    const id = String(request.params.id);
    const kept = await keep(readAs(calls.resetStaff.body, request.body).passphrase);
    const set = await written(response, 'resetStaff', id, async (tx, at) =>
      orNone(await setPassphraseOf(tx, id, kept, at)),
    );
    response.json(set);
  });
  router.put(calls.ownPassphrase.path, ...bodyOf(calls.ownPassphrase), async (request, response) => {
    const { before, passphrase } = readAs(calls.ownPassphrase.body, request.body);
    const { staffId: id } = callerOf(response);
    const staff = id === undefined ? undefined : await staffById(db, id);
    // The shop's own passphrase is set on the bench machine.
    if (!staff) throw new ApiProblem('not-named');
    const millis = Date.parse(now());
    const wait = Math.ceil((await tries.waitMs(millis)) / 1000);
    if (wait > 0) throw new ApiProblem('too-many-tries', [], { seconds: wait });
    await tries.failed(millis);
    if (!(await isRight(before, staff))) throw badInput([wrongAt('before', 'wrong-passphrase')]);
    await tries.succeeded();
    const kept = await keep(passphrase);
    const { signedInHours } = await theShop(db);
    const token = await written(response, 'ownPassphrase', staff.id, async (tx, at) => {
      await setPassphraseOf(tx, staff.id, kept, at);
      return addDevice(tx, { name: staff.name, staffId: staff.id }, at);
    });
    response.set('Set-Cookie', cookieOf(token, signedInHours)).json({ set: true });
  });
}
