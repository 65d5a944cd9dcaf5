import type { Router } from 'express';
import { Fault, guideProblems, partRule, type GuideName, type Sport } from '@kevro/core';
import type { Clock } from '../clock';
import type { Db } from '../db/db';
import type { GuideRow, PartRecord } from '@kevro/contract';
import { ApiProblem } from '../problem';
import { dropGuide, guideNamed, listGuides, setGuide } from '../records/guide';
import { newId } from '../records/id';
import { actOnRoll, findLearning } from '../records/learning';
import { addPart, changePart, listParts, retirePart } from '../records/part';
import type { Hub } from '../instruments/hub';
import { setShop, theShop } from '../records/shop';
import { answer } from './route';

/** The shop, its guides and its parts. */
export function libraryRoutes(router: Router, db: Db, hub: Hub, now: Clock): void {
  answer(router, 'shop', () => theShop(db));
  answer(router, 'editShop', async ({ body }) => {
    const { demo, ...stands } = await theShop(db);
    await setShop(db, { ...stands, ...body, demo });
    await hub.settingsChanged();
    return theShop(db);
  });
  const orNone = <T>(found: T | undefined): T => {
    if (found === undefined) throw new ApiProblem('not-found');
    return found;
  };
  const guideAt = (id: string | undefined) => orNone(guideNamed(id ?? ''));
  const guideRowOf = async ({ sport, name }: { sport: Sport; name: GuideName }): Promise<GuideRow> =>
    orNone((await listGuides(db)).find((row) => row.sport === sport && row.name === name));
  answer(router, 'guides', () => listGuides(db));
  answer(router, 'editGuide', async ({ params, body }) => {
    const guide = guideAt(params.id);
    const problems = guideProblems(body, '').map((p) => ({ ...p, path: p.path.replace(/^\./, '') }));
    if (problems.length > 0) throw new Fault(...problems);
    await setGuide(db, { ...guide, bands: body });
    return guideRowOf(guide);
  });
  answer(router, 'restoreGuide', async ({ params }) => {
    const guide = guideAt(params.id);
    await dropGuide(db, guide);
    return guideRowOf(guide);
  });
  answer(router, 'learning', () => findLearning(db));
  answer(router, 'actOnRoll', ({ params, body }) =>
    db.transaction(async (tx) => {
      if (!(await actOnRoll(tx, params.id ?? '', body.act, now()))) throw new ApiProblem('not-found');
      return findLearning(tx);
    }),
  );
  answer(router, 'parts', () => listParts(db));
  /** @throws Fault where it cannot be what is said of it */
  function checked(part: PartRecord): PartRecord {
    const problems = partRule(part).problems?.(part) ?? [];
    if (problems.length > 0) throw new Fault(...problems);
    return part;
  }
  answer(router, 'addPart', ({ body }) => addPart(db, checked({ ...body, id: newId() } as PartRecord)));
  answer(router, 'editPart', async ({ params, body }) =>
    orNone(await changePart(db, checked({ ...body, id: params.id ?? '' } as PartRecord))),
  );
  answer(router, 'retirePart', async ({ params, body }) =>
    orNone(await retirePart(db, params.id ?? '', body.retired)),
  );
}
