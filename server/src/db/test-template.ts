import type { Db } from './db';
import { migrate } from './migrate';
import { FIRST_SHOP } from '../shops/list';
import { dbOfPool, poolAt } from './postgres';
import { raiseFirstWall } from './walls';
import { asked, newDatabase, type Cluster } from './test-cluster';

const TEMPLATE = 'an_empty_shop';

/** Makes the empty shop of which each test has a copy. */
export async function makeTemplate({ url }: Cluster): Promise<void> {
  await asked(url('postgres'), `create database ${TEMPLATE}`);
  const db = dbOfPool(poolAt(url(TEMPLATE)));
  await migrate(db);
  await raiseFirstWall(db);
  await db.close();
}

/** A copy of the empty shop, asked as one of several: every test on the server goes through the views of a shop's own rows. @param of the address of the server's first database */
export const copyOnServer = async (of: string): Promise<Db> =>
  dbOfPool(poolAt(await newDatabase(of, TEMPLATE), FIRST_SHOP));
