import type { FittingView } from '@kevro/contract';
import type { Queries } from '../db/db';
import { findMeasurements, lastStanding } from '../records/measurement';
import { listParts } from '../records/part';
import { programmeEvents, programmes } from '../records/programme';
import type { OutlookCase } from './programmes';

/** Reads what the next step of a programme is worked out from; undefined where the fitting has no such programme. */
export async function outlookCase(
  db: Queries,
  fitting: FittingView,
  programmeId: string,
): Promise<OutlookCase | undefined> {
  const [programme] = await programmes.find(db, 'where id = $1', [programmeId]);
  const entry = fitting.frames.find(({ frame }) => frame.id === programme?.frameId);
  if (!programme || programme.fittingId !== fitting.id || !entry) return undefined;
  const [events, [start], standing, parts] = await Promise.all([
    programmeEvents.find(db, 'where programme_id = $1 order by seq', [programmeId]),
    findMeasurements(db, [programme.startId]),
    lastStanding(db, programme.frameId),
    listParts(db),
  ]);
  const usable = parts.filter(({ retired }) => !retired).map(({ part }) => part);
  const { frame, rounds, bed } = entry;
  return { frame, rounds, start, standing, programme, events, parts: usable, bed };
}
