import type { Router } from 'express';
import { Fault, partRule, settleFrame, statedProblems } from '@kevro/core';
import type { Db } from '../db/db';
import type { PartRecord, ReadBodyOf } from '@kevro/contract';
import { ApiProblem } from '../problem';
import { newId } from '../records/id';
import { addPart, changePart, listParts, retirePart } from '../records/part';
import { addSetup, changeSetup, listSetups, retireSetup } from '../records/setup';
import type { Hub } from '../instruments/hub';
import { setShop, theShop } from '../records/shop';
import { answer } from './route';

/** The shop, its setups and its parts. */
export function libraryRoutes(router: Router, db: Db, hub: Hub): void {
  answer(router, 'shop', () => theShop(db));
  answer(router, 'editShop', async ({ body }) => {
    const { demo, timeZone } = await theShop(db);
    await setShop(db, { timeZone, ...body, demo });
    await hub.settingsChanged();
    return theShop(db);
  });
  answer(router, 'setups', ({ query }) => listSetups(db, query));
  /** Throws where the shape or the numbers cannot be. */
  function checkSetup({ shape, specs }: ReadBodyOf<'addSetup'>): void {
    const { sport, lengthCm } = settleFrame(shape);
    const problems = statedProblems(specs, sport, lengthCm);
    if (problems.length > 0) throw new Fault(...problems);
  }
  const orNone = <T>(found: T | undefined): T => {
    if (found === undefined) throw new ApiProblem('not-found');
    return found;
  };
  answer(router, 'addSetup', ({ body }) => {
    checkSetup(body);
    return addSetup(db, body);
  });
  answer(router, 'editSetup', async ({ params, body }) => {
    checkSetup(body);
    return orNone(await changeSetup(db, params.id ?? '', body));
  });
  answer(router, 'retireSetup', async ({ params, body }) =>
    orNone(await retireSetup(db, params.id ?? '', body.retired)),
  );
  answer(router, 'parts', () => listParts(db));
  /** @throws Fault where it cannot be what is said of it */
  function checked(part: PartRecord): PartRecord {
    const problems = partRule(part).problems?.(part) ?? [];
    if (problems.length > 0) throw new Fault(...problems);
    return part;
  }
  answer(router, 'addPart', ({ body }) => addPart(db, checked({ ...body, id: newId() } as PartRecord)));
  answer(router, 'editPart', async ({ params, body }) =>
    orNone(await changePart(db, checked({ ...body, id: params.id ?? '' } as PartRecord))),
  );
  answer(router, 'retirePart', async ({ params, body }) =>
    orNone(await retirePart(db, params.id ?? '', body.retired)),
  );
}
