import type { Queries } from '../db';
import { newSetup, rowOfSetup } from './frozen/as-of-0018.js';

/** Works out what is stored beside every setup that was there before: SQL alone knows neither shapes nor dresses. */
export const name = '0008_setup_sums';

type Old = Record<string, unknown>;

export async function run(tx: Queries): Promise<void> {
  const rows = await tx.query<Old>('select * from setup');
  for (const row of rows) {
    const specs = Object.fromEntries(
      Object.entries({
        massG: row.mass_g,
        balanceCm: row.balance_cm,
        swingWeight: row.swing_weight,
        twistWeight: row.twist_weight,
        axisCm: row.axis_cm,
      }).filter(([, value]) => value !== null),
    );
    const setup = newSetup.parse({
      name: row.name,
      frameName: row.frame_name,
      sourceKind: row.source_kind,
      source: row.source,
      year: row.year,
      shape: row.shape,
      dress: row.dress,
      specs,
    });
    const { sport, shapeKey, shape, bareMass, bareMoment, bareSwing, bareTwist, bareAxis, fingerprint } =
      rowOfSetup(setup);
    await tx.query(
      'insert into setup_shape (key, sport, shape) values ($1, $2, $3) on conflict (key) do nothing',
      [shapeKey, sport, JSON.stringify(shape)],
    );
    await tx.query(
      `update setup set sport = $2, shape_id = (select id from setup_shape where key = $3), bare_mass = $4, bare_moment = $5,
         bare_swing = $6, bare_twist = $7, bare_axis = $8, fingerprint = $9 where id = $1`,
      [row.id, sport, shapeKey, bareMass, bareMoment, bareSwing, bareTwist, bareAxis, fingerprint],
    );
  }
}
