import type { Db, Queries } from '../db/db';
import { raiseWalls } from '../db/walls';
import { newId } from '../records/id';

/** One of the shops of a database. */
export interface ListedShop {
  id: string;
  /** By which its people ask for it. */
  code: string;
}

/** What stands in the way, in a sentence. */
export class ShopRefused extends Error {
  override readonly name = 'ShopRefused';
}

/** What the first shop of a database is called until it is named. */
export const FIRST_SHOP = 'one';

const LISTED = 'shop_id as id, code';
export const listShops = (db: Queries): Promise<ListedShop[]> =>
  db.query<ListedShop>(`select ${LISTED} from shop_list order by code`);
export const shopByCode = async (db: Queries, code: string): Promise<ListedShop | undefined> =>
  (await db.query<ListedShop>(`select ${LISTED} from shop_list where code = $1`, [code]))[0];

/** How a shop may be asked for. */
export const CODE = /^[a-z0-9][a-z0-9-]{1,39}$/;
function requireCode(code: string): void {
  if (!CODE.test(code))
    throw new ShopRefused(
      'A shop is asked for by 2 to 40 small letters, digits and hyphens, as in lantern-lane.',
    );
}

/** @throws ShopRefused where this user of the database would see through the walls between shops */
async function requireWalled(db: Queries): Promise<void> {
  const [user] = await db.query<{ sees: boolean }>(
    'select rolsuper or rolbypassrls as sees from pg_roles where rolname = current_user',
  );
  if (user?.sees !== false)
    throw new ShopRefused(
      'This user of the database sees the rows of every shop. Name one in DATABASE_URL that is no superuser, without BYPASSRLS, and owns the tables.',
    );
}
/**
 * Looks at the walls before several shops are served: whoever last brought the tables up to date may not have lived to raise them.
 * @throws ShopRefused
 */
export async function standWalls(db: Db): Promise<void> {
  await requireWalled(db);
  await db.transaction(raiseWalls);
}

/**
 * Adds a shop to a database. With the second one the walls between their rows are raised.
 * @param fill stores what it begins with, as its own
 * @throws ShopRefused where the code is taken, or where this user of the database would see through the walls
 */
export async function addShop(
  db: Db,
  code: string,
  fill: (ofShop: Queries) => Promise<void> = async () => undefined,
): Promise<ListedShop> {
  requireCode(code);
  // In a transaction of its own: it keeps everybody out of the tables for a moment, and to fill a shop may take minutes.
  await standWalls(db);
  return db.transaction(async (tx) => {
    // It meets nobody: what it reads it stored itself. In an order with all others a long one would give way again and again.
    await tx.run('set transaction isolation level read committed');
    const [shop] = await tx.query<ListedShop>(
      `insert into shop_list (shop_id, code) values ($1, $2) on conflict (code) do nothing returning ${LISTED}`,
      [newId(), code],
    );
    if (!shop) throw new ShopRefused(`There is a shop that is asked for by ${code} already.`);
    await tx.query("select set_config('kevro.shop', $1, true)", [shop.id]);
    await fill(tx);
    return shop;
  });
}

/** Has a shop asked for by another word. @throws ShopRefused */
export async function renameShop(db: Db, from: string, to: string): Promise<void> {
  requireCode(to);
  if (await shopByCode(db, to)) throw new ShopRefused(`There is a shop that is asked for by ${to} already.`);
  const changed = await db.query('update shop_list set code = $2 where code = $1 returning 1', [from, to]);
  if (changed.length === 0) throw new ShopRefused(`There is no shop that is asked for by ${from}.`);
}
