import { benchSteps, settleFrame, stationStates } from '@kevro/core';
import type { FittingRow, FittingView } from '@kevro/contract';
import type { Queries } from '../db/db';
import { newestAim } from './aim';
import { findFrame } from './frame';
import { newId } from './id';
import { newestMeasurement } from './measurement';
import { findPlayer } from './player';
import { newestPlan, stepsDone } from './plan';

interface Row {
  id: string;
  playerId: string;
  frameId: string;
  openedAt: string;
}

const COLUMNS = 'id, player_id as "playerId", frame_id as "frameId", opened_at as "openedAt"';

export async function openFitting(
  db: Queries,
  fitting: { playerId: string; frameId: string },
  openedAt: string,
  id = newId(),
): Promise<string> {
  await db.query('insert into fitting (id, player_id, frame_id, opened_at) values ($1, $2, $3, $4)', [
    id,
    fitting.playerId,
    fitting.frameId,
    openedAt,
  ]);
  return id;
}

async function references(db: Queries, fittingId: string): Promise<string[]> {
  const rows = await db.query<{ setup_id: string }>(
    'select setup_id from fitting_reference where fitting_id = $1 order by position',
    [fittingId],
  );
  return rows.map((row) => row.setup_id);
}

export async function setReferences(
  db: Queries,
  fittingId: string,
  setupIds: readonly string[],
): Promise<void> {
  await db.query('delete from fitting_reference where fitting_id = $1', [fittingId]);
  for (const [position, setupId] of setupIds.entries()) {
    await db.query('insert into fitting_reference (fitting_id, setup_id, position) values ($1, $2, $3)', [
      fittingId,
      setupId,
      position,
    ]);
  }
}

async function viewOf(db: Queries, row: Row): Promise<FittingView> {
  const player = await findPlayer(db, row.playerId);
  const frame = await findFrame(db, row.frameId);
  if (!player || !frame) throw new Error(`fitting ${row.id} has lost its player or frame`);
  const measurement = (await newestMeasurement(db, row.frameId)) ?? null;
  const aim = (await newestAim(db, row.id)) ?? null;
  const newest = await newestPlan(db, row.id);
  // A plan made for an earlier aim or measurement no longer counts; it stays stored.
  const plan = newest && newest.aimId === aim?.id && newest.measurementId === measurement?.id ? newest : null;
  const done = plan ? await stepsDone(db, plan.id) : [];
  const steps =
    plan && measurement
      ? benchSteps(settleFrame(frame.shape), plan.placements, plan.materials, measurement.dress)
      : [];
  const refs = await references(db, row.id);
  const { states, next } = stationStates({
    measured: measurement !== null,
    compared: refs.length > 0,
    aimed: aim !== null,
    planned: plan !== null,
    stepsDone: steps.filter((step) => done.includes(step.key)).length,
    stepsInAll: steps.length,
  });
  return {
    id: row.id,
    openedAt: row.openedAt,
    player,
    frame,
    measurement,
    references: refs,
    aim,
    plan,
    stepsDone: done,
    states,
    next: next ?? null,
  };
}

export async function findFitting(db: Queries, id: string): Promise<FittingView | undefined> {
  const rows = await db.query<Row>(`select ${COLUMNS} from fitting where id = $1`, [id]);
  return rows[0] && viewOf(db, rows[0]);
}

/** Open fittings, newest first, with their next step. */
export async function listFittings(db: Queries): Promise<FittingRow[]> {
  const rows = await db.query<Row>(`select ${COLUMNS} from fitting order by seq desc limit 200`);
  const views: FittingRow[] = [];
  for (const row of rows) {
    const { id, openedAt, player, frame, next } = await viewOf(db, row);
    views.push({
      id,
      openedAt,
      playerName: player.name,
      frameTag: frame.tag,
      frameName: `${frame.maker} ${frame.model}`,
      next,
    });
  }
  return views;
}
