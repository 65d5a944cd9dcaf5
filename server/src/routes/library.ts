import type { Router } from 'express';
import { bringTo, settleFrame } from '@kevro/core';
import type { Db } from '../db/db';
import type { PartRecord } from '@kevro/contract';
import { ApiProblem } from '../problem';
import { newId } from '../records/id';
import { addPart, changePart, listParts, retirePart } from '../records/part';
import { addSetup, listSetups } from '../records/setup';
import type { Hub } from '../instruments/hub';
import { setShop, theShop } from '../records/shop';
import { answer } from './route';

/** The shop, its setups and its parts. */
export function libraryRoutes(router: Router, db: Db, hub: Hub): void {
  answer(router, 'shop', () => theShop(db));
  answer(router, 'editShop', async ({ body }) => {
    const { demo } = await theShop(db);
    await setShop(db, { ...body, demo });
    await hub.settingsChanged();
    return theShop(db);
  });
  answer(router, 'setups', ({ query }) => listSetups(db, query));
  answer(router, 'addSetup', ({ body }) => {
    // Throws where the shape cannot be.
    bringTo(body, body.dress, body.specs.axisCm ?? settleFrame(body.shape).sport.axisCm);
    return addSetup(db, body);
  });
  answer(router, 'parts', () => listParts(db));
  answer(router, 'addPart', ({ body }) => addPart(db, { ...body, id: newId() }));
  answer(router, 'editPart', async ({ params, body }) => {
    const part = await changePart(db, { ...body, id: params.id ?? '' } as PartRecord);
    if (!part) throw new ApiProblem('not-found');
    return part;
  });
  answer(router, 'retirePart', async ({ params, body }) => {
    const row = await retirePart(db, params.id ?? '', body.retired);
    if (!row) throw new ApiProblem('not-found');
    return row;
  });
}
