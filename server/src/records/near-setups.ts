import {
  dressSums,
  sportData,
  swingAbout,
  withOwn,
  type Dress,
  type FrameShape,
  type OwnNumbers,
  type Specs,
  type Sport,
} from '@kevro/core';
import type { BroughtSetups, Setup, SetupQuery } from '@kevro/contract';
import type { Queries } from '../db/db';
import { countAll, countToLimit, type Conditions, type Listing } from './listing';
import { askedOf, setupsById } from './setup';

/** A measured frame, as far as setups are set against it. */
export interface Measured {
  shape: FrameShape;
  dress: Dress;
  specs: Specs & { axisCm: number };
  /** What the shop takes a hand to notice. */
  own?: OwnNumbers | undefined;
}

/** Sums of what a frame's dress adds to each shape of its sport. */
interface Dressed {
  ids: number[];
  massG: number[];
  firstGCm: number[];
  /** About the butt, and about the frame's own axis, kg·cm². */
  secondKgCm2: number[];
  swing: number[];
  twist: number[];
}
async function dressedShapes(db: Queries, { shape, dress, specs }: Measured): Promise<Dressed> {
  const shapes = await db.query<{ id: number; shape: FrameShape }>(
    'select id, shape from setup_shape where sport = $1',
    [shape.sport],
  );
  const on = shapes.map(({ shape: of }) => dressSums(of, dress));
  return {
    ids: shapes.map(({ id }) => id),
    massG: on.map(({ massG }) => massG),
    firstGCm: on.map(({ firstGCm }) => firstGCm),
    secondKgCm2: on.map((sums) => swingAbout(sums, 0)),
    swing: on.map((sums) => swingAbout(sums, specs.axisCm)),
    twist: on.map(({ twistGCm2 }) => twistGCm2 / 1000),
  };
}

/**
 * Setups in the dress and about the axis of a measured frame, as SQL: the sums of the bare frame and what the dress adds, worked out once a shape; and how far
 * each is in noticeable steps. The same equations as `bringTo` and `stepDistance` of the core; a test holds them together.
 * @param arms what else holds of those that are looked at: they are found arm by arm, as none is in two of them
 * @param cut which of those that an arm finds, such as a part of them in an order
 * @returns the `with` part, whose `near` has a row a setup; its values are added to those of the conditions
 */
function nearSql(
  { shape, specs, own: shop }: Measured,
  dressed: Dressed,
  conditions: Conditions,
  arms: readonly string[] = ['true'],
  cut = '',
): string {
  const { noticeable } = withOwn(sportData(shape.sport), shop);
  const value = (of: unknown): string => {
    conditions.values.push(of);
    return `$${conditions.values.length}`;
  };
  const axis = `${value(specs.axisCm)}::float8`;
  const { where } = conditions;
  const steps = (
    [
      ['mass', specs.massG, noticeable.massG],
      ['balance', specs.balanceCm, noticeable.balanceCm],
      ['swing', specs.swingWeight, noticeable.swingWeightShare * specs.swingWeight],
      ['twist', specs.twistWeight, noticeable.twistWeight],
    ] as const
  ).flatMap(([column, own, step]) =>
    own === undefined ? [] : [`((${column} - ${value(own)}::float8) / ${value(step)}::float8) ^ 2`],
  );
  const { ids, massG, firstGCm, secondKgCm2, twist } = dressed;
  const columns = [massG, firstGCm, secondKgCm2, twist].map((column) => `${value(column)}::float8[]`);
  // The swing weight about the frame's own axis: what is put on, and what moving the axis of the whole adds.
  const swung = 'bare_swing + d.s + (bare_axis * bare_axis * d.m - 2 * bare_axis * d.f) / 1000';
  const bare = 'id, shape_id, bare_mass, bare_moment, bare_swing, bare_twist, bare_axis';
  const found = arms.map((arm) => `(select ${bare} from setup ${where} and ${arm} ${cut})`);
  return `with dressed as (
      select * from unnest(${value(ids)}::int[], ${columns.join(', ')}) as d (shape_id, m, f, s, t)),
    found as (${found.join(' union all ')}),
    brought as (
      select id, bare_mass + d.m as mass, (bare_moment + d.f) / (bare_mass + d.m) as balance,
        case when bare_axis = ${axis} then ${swung}
          else ${swung} + (bare_mass + d.m) * (
            ((bare_moment + d.f) / (bare_mass + d.m) - ${axis}) ^ 2
            - ((bare_moment + d.f) / (bare_mass + d.m) - bare_axis) ^ 2) / 1000 end as swing,
        bare_twist + d.t as twist
      from found join dressed d using (shape_id) offset 0),
    near as (
      select id, mass, balance, swing, twist,
        case when coalesce(${steps.join(', ')}) is null then null
          else sqrt(${steps.map((s) => `coalesce(${s}, 0)`).join(' + ')}) end as steps
      from brought)`;
}

/** What is offered beside a frame: not what is retired, nor a report that stands back; what was asked for by name is found all the same. */
const offered = (query: Pick<SetupQuery, 'search' | 'kind' | 'ids'> & { sport: Sport }): Conditions => {
  const conditions = askedOf(query);
  return query.ids ? conditions : conditions.and('not stands_back');
};

/** Within how many noticeable steps of weight and swing weight the nearest are looked for first; as often as they are too few the window is so much wider, up to the widest, or at once as wide as the last is far where that is not so many times as wide. */
const WINDOW = { first: 0.4, wider: 2, jump: 3, widest: 3 };

/** Those that can lie within so many steps, what is further off in one spec alone being further off. Each arm is found by an index, those with a weight gram by gram and without reading a setup. */
function within({ specs, shape, own: shop }: Measured, dressed: Dressed, steps: number): string[] {
  if (steps === Infinity || dressed.ids.length === 0) return ['true'];
  const { noticeable } = withOwn(sportData(shape.sport), shop);
  const ends = (own: number, on: readonly number[], step: number): [number, number] => [
    own - Math.max(...on) - steps * step,
    own - Math.min(...on) + steps * step,
  ];
  const { massG, swingWeight, axisCm } = specs;
  const [lightest, heaviest] = ends(massG, dressed.massG, noticeable.massG);
  const grams = Array.from(
    { length: Math.floor(heaviest) - Math.floor(lightest) + 1 },
    (_, i) => Math.floor(lightest) + i,
  );
  const mass = `floor(bare_mass) = any('{${grams.join()}}') and bare_mass between ${lightest} and ${heaviest}`;
  const swing = `bare_swing between ${ends(swingWeight, dressed.swing, noticeable.swingWeightShare * swingWeight).join(' and ')}`;
  return [
    `bare_axis = ${axisCm} and ${mass} and ${swing}`,
    `bare_axis = ${axisCm} and ${mass} and bare_swing is null`,
    `bare_axis < ${axisCm} and ${mass}`,
    `bare_axis > ${axisCm} and ${mass}`,
    `floor(bare_mass) is null and (bare_swing is null or bare_axis <> ${axisCm} or ${swing})`,
  ];
}

type NearQuery = Pick<SetupQuery, 'search' | 'kind' | 'ids' | 'limit' | 'offset'>;

/**
 * The ids of the nearest. One query finds them within a window, which is widened until the last of them lies inside it: then none outside can be nearer. Nor need
 * it be wider than the last is far.
 */
async function nearestIds(db: Queries, frame: Measured, query: NearQuery): Promise<string[]> {
  const { limit, offset } = query;
  const dressed = await dressedShapes(db, frame);
  for (let steps = WINDOW.first; ;) {
    const conditions = offered({ ...query, sport: frame.shape.sport });
    const sql = nearSql(frame, dressed, conditions, within(frame, dressed, steps));
    // Only where several are as near do their names say which comes first: no others are read for theirs.
    const found = await db.query<{ id: string; steps: number | null }>(
      `${sql}, first as (select id, steps from near order by steps nulls last fetch first ${offset + limit} rows with ties)
        select id, steps from first join setup using (id) order by steps nulls last, lower(name), year, id limit ${limit} offset ${offset}`,
      conditions.values,
    );
    const last = found.length === limit ? (found.at(-1)?.steps ?? Infinity) : Infinity;
    if (last <= steps || steps === Infinity) return found.map(({ id }) => id);
    if (last <= WINDOW.jump * steps) steps = last * (1 + 1e-9);
    else steps = steps < WINDOW.widest ? steps * WINDOW.wider : Infinity;
  }
}

/** The setups nearest to a measured frame; those with nothing in common come last. */
export async function nearestSetups(db: Queries, frame: Measured, query: NearQuery): Promise<Listing<Setup>> {
  // Of a large library either takes a while: a server does both at once.
  const [ids, inAll] = await Promise.all([
    nearestIds(db, frame, query),
    countToLimit(db, 'setup', offered({ ...query, sport: frame.shape.sport })),
  ]);
  return { rows: await setupsById(db, ids), ...inAll };
}

/** The ids of all that a search finds. */
export async function offeredIds(db: Queries, query: Parameters<typeof offered>[0]): Promise<string[]> {
  const { where, values } = offered(query);
  const [all] = await db.query<{ ids: string[] }>(
    `select coalesce(json_agg(id), '[]') as ids from setup ${where}`,
    values,
  );
  return all?.ids ?? [];
}

/** Setups brought to a measured frame, part by part in the order of their ids, in columns. */
export async function broughtSetups(
  db: Queries,
  frame: Measured,
  after: string,
  limit: number,
): Promise<BroughtSetups> {
  const { sport } = frame.shape;
  const conditions = offered({ sport }).and('id > ?', after);
  const sql = nearSql(
    frame,
    await dressedShapes(db, frame),
    conditions,
    ['true'],
    `order by sport, id limit ${limit}`,
  );
  const column = (of: string): string => `coalesce(json_agg(${of} order by id), '[]') as "${of}"`;
  const columns = ['id', 'mass', 'balance', 'swing', 'twist', 'steps'].map(column).join(', ');
  // One row of columns: a row a setup takes the driver longer than the database.
  const [all] = await db.query<Record<string, (number | null)[]> & { id: string[] }>(
    `${sql} select ${columns} from near`,
    conditions.values,
  );
  const ids = all?.id ?? [];
  return {
    ids,
    massG: all?.mass ?? [],
    balanceCm: all?.balance ?? [],
    swingWeight: all?.swing ?? [],
    twistWeight: all?.twist ?? [],
    distanceSteps: all?.steps ?? [],
    // Whoever brings them all wants to know how far it is.
    total: await countAll(db, 'setup', offered({ sport })),
    next: ids.length === limit ? (ids.at(-1) ?? null) : null,
  };
}
