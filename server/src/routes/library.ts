import type { Router } from 'express';
import { bringTo, settleFrame } from '@kevro/core';
import type { Db } from '../db/db';
import { addPart, listParts } from '../records/part';
import { addSetup, listSetups } from '../records/setup';
import { setShop, theShop } from '../records/shop';
import { answer } from './route';

/** The shop, its setups and its parts. */
export function libraryRoutes(router: Router, db: Db): void {
  answer(router, 'shop', () => theShop(db));
  answer(router, 'editShop', async ({ body }) => {
    const { demo } = await theShop(db);
    await setShop(db, { ...body, demo });
    return theShop(db);
  });
  answer(router, 'setups', () => listSetups(db));
  answer(router, 'addSetup', ({ body }) => {
    // Throws where the shape cannot be.
    bringTo(body, body.dress, body.specs.axisCm ?? settleFrame(body.shape).sport.axisCm);
    return addSetup(db, body);
  });
  answer(router, 'parts', () => listParts(db));
  answer(router, 'addPart', async ({ body }) => {
    await addPart(db, body);
    return listParts(db);
  });
}
