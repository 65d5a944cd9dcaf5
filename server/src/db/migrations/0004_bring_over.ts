import type { Queries } from '../db';
import { SPORTS, benchSteps, fromSpot, settleFrame } from './frozen/as-of-0018.js';

/**
 * Brings fittings, plans, weights, ceilings and guides of the earlier shape over. SQL alone cannot: a place along the hoop is worked out from the frame's
 * outline. Never edited once landed, as the files beside it.
 */
export const name = '0004_bring_over';

interface OldMaterials {
  tape: { name: string; material: 'lead' | 'tungsten'; widthMm: number; gPerCm: number; stepCm: number };
  filling: { name: string; material: 'putty' | 'silicone'; dabG: number; gPerCm: number };
}
interface OldPart {
  id: string;
  kind: string;
  name: string;
}
interface OldPlacement {
  zone: string;
  massG: number;
  xCm: number;
  yCm: number;
  mirrored: boolean;
  spanCm?: number;
  layers?: number;
}
interface OldWeight {
  what?: string;
  massG: number;
  at: unknown;
  spanCm?: number;
  mirrored?: boolean;
}

/** How long silicone set by the earlier shape, which knew one time for all of them, minutes. */
const SILICONE_MINUTES = 12 * 60;

const json = JSON.stringify;

/** One round a fitting, which starts from the measurement that its newest plan was made for; without one, from the frame's newest. */
async function bringFittings(tx: Queries): Promise<void> {
  await tx.run(`
    insert into fitting_frame (fitting_id, frame_id, position) select id, frame_id, 0 from fitting;
    insert into round (id, fitting_id, frame_id, number, why, begun_at, start_id)
      select 'round-' || f.id, f.id, f.frame_id, 1, 'first', f.opened_at, coalesce(
        (select p.measurement_id from plan p
          where p.fitting_id = f.id
            and p.aim_id = (select a.id from aim a where a.fitting_id = f.id order by a.seq desc limit 1)
          order by p.seq desc limit 1),
        (select m.id from measurement m where m.frame_id = f.frame_id order by m.seq desc limit 1))
      from fitting f order by f.seq;
    update aim set round_id = 'round-' || fitting_id;
    update plan set round_id = 'round-' || fitting_id;
    update measurement m set round_id = (select r.id from round r
      where r.frame_id = m.frame_id and r.begun_at <= m.taken_at order by r.begun_at desc, r.seq desc limit 1);
    insert into step_mark (plan_id, step, mark, at)
      select plan_id, step, 'done', done_at from build_step order by done_at, ctid;
  `);
}

/** The parts of a plan: those of the shop of that name and making, or ones that are added as retired. */
async function partsOf(
  tx: Queries,
  { tape, filling }: OldMaterials,
): Promise<{ tape: OldPart; filling: OldPart }> {
  const wanted = {
    tape: { kind: 'tape' as const, ...tape },
    filling: {
      kind: 'filling' as const,
      ...filling,
      ...(filling.material === 'silicone' ? { setMinutes: SILICONE_MINUTES } : {}),
    },
  };
  const found = async (of: (typeof wanted)['tape' | 'filling']): Promise<OldPart> => {
    const { kind, ...data } = of;
    const [same] = await tx.query<{ id: string }>(
      'select id from part where kind = $1 and data @> $2::jsonb order by seq limit 1',
      [kind, json(data)],
    );
    const id = same?.id ?? `${kind}-${data.name}`.replace(/\s+/g, '-');
    if (!same) {
      await tx.query(
        'insert into part (id, kind, data, retired) values ($1, $2, $3, true) on conflict do nothing',
        [id, kind, json(data)],
      );
    }
    return { ...of, id };
  };
  return { tape: await found(wanted.tape), filling: await found(wanted.filling) };
}

async function bringPlans(tx: Queries): Promise<void> {
  const plans = await tx.query<{
    id: string;
    shape: unknown;
    dress: unknown;
    materials: OldMaterials;
    placements: OldPlacement[];
  }>(`select p.id, f.shape, m.dress, p.materials, p.placements from plan p
      join round r on r.id = p.round_id join frame f on f.id = r.frame_id join measurement m on m.id = p.measurement_id`);
  for (const { id, shape, dress, materials, placements: old } of plans) {
    const frame = settleFrame(shape);
    const made = await partsOf(tx, materials);
    // A zone held one placement at most: its name is the placement's, so that the marks find it.
    const placements = old.map((p) => {
      const part = p.xCm <= frame.handleLengthCm ? made.filling : made.tape;
      return fromSpot(frame, { ...p, at: { xCm: p.xCm, yCm: p.yCm } }, { id: p.zone, partId: part.id });
    });
    const parts = [made.tape, made.filling].filter((part) => placements.some((p) => p.partId === part.id));
    const steps = benchSteps({ placements, swaps: [], removals: [], parts }, dress);
    await tx.query('update plan set placements = $2, parts = $3, steps = $4 where id = $1', [
      id,
      json(placements),
      json(parts),
      json(steps),
    ]);
  }
}

async function bringWeights(tx: Queries): Promise<void> {
  const frames = await tx.query<{ id: string; shape: unknown; weights: OldWeight[] }>(
    "select id, shape, weights from frame where weights <> '[]'",
  );
  for (const { id, shape, weights } of frames) {
    const frame = settleFrame(shape);
    const brought = weights.map((w, i) => ({
      ...fromSpot(frame, { ...w, mirrored: w.mirrored ?? false }, { id: `w${i + 1}`, partId: '' }),
      what: w.what ?? '',
    }));
    await tx.query('update frame set weights = $2 where id = $1', [id, json(brought)]);
  }
}

/** A ceiling was said without its sport: it is the one of the player's sports whose usual swing weight comes nearest. Guides were those of tennis. */
async function bringPlayers(tx: Queries): Promise<void> {
  const players = await tx.query<{ id: string; sports: string[]; ceiling: number | null }>(
    'select id, sports, ceiling_swing_weight as ceiling from player where ceiling_swing_weight is not null',
  );
  for (const { id, sports, ceiling } of players) {
    const away = (sport: string): number =>
      Math.abs(Math.log((ceiling ?? 1) / (SPORTS[sport]?.usual.swingWeight ?? 1)));
    const [nearest] = sports.toSorted((a, b) => away(a) - away(b));
    await tx.query('update player set ceilings = $2 where id = $1', [
      id,
      json(nearest ? { [nearest]: ceiling } : {}),
    ]);
  }
  await tx.run("update player set guides = jsonb_build_object('tennis', guide) where guide is not null");
}

export async function run(tx: Queries): Promise<void> {
  await bringFittings(tx);
  await tx.query(
    `update part set data = data || $1::jsonb where kind = 'filling' and data->>'material' = 'silicone'`,
    [json({ setMinutes: SILICONE_MINUTES })],
  );
  await bringPlans(tx);
  await bringWeights(tx);
  await bringPlayers(tx);
}
