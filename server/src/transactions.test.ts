import { expect, it } from 'vitest';
import type { Queries } from './db/db';
import { emptyShop } from './test-server';

const settle = (tx: Queries): Promise<unknown[]> =>
  tx.query('insert into shop (name, town) values ($1, $2)', ['Plumb & Loop', 'Marrowby']);
const towns = (db: Queries): Promise<unknown[]> => db.query('select town from shop');

it('a transaction in which a failure was passed over tells that nothing of it is stored', async () => {
  const db = await emptyShop();
  const passedOver = db.transaction(async (tx) => {
    await settle(tx);
    await tx.query('select 1 / 0').catch(() => undefined);
  });
  await expect(passedOver).rejects.toThrow('nothing was stored');
  expect(await towns(db)).toEqual([]);
  await db.transaction(settle);
  expect(await towns(db)).toEqual([{ town: 'Marrowby' }]);
  await db.close();
});

it('what is asked beside a transaction sees what was stored, not what is about to be', async () => {
  const db = await emptyShop();
  let asked: Promise<unknown[]> | undefined;
  const failing = db.transaction(async (tx) => {
    await settle(tx);
    asked = towns(db);
    throw new Error('no');
  });
  await expect(failing).rejects.toThrow('no');
  expect(await asked).toEqual([]);
  await db.close();
});
