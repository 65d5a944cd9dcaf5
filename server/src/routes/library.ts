import type { Router } from 'express';
import { Fault, guideProblems, partRule, type GuideName, type Sport } from '@kevro/core';
import type { Acts } from '../act';
import type { Queries } from '../db/db';
import type { GuideRow, PartRecord } from '@kevro/contract';
import { ApiProblem } from '../problem';
import { dropGuide, guideNamed, listGuides, setGuide } from '../records/guide';
import { newId } from '../records/id';
import { actOnRoll, findLearning } from '../records/learning';
import { addPart, changePart, listParts, partsOf, retirePart } from '../records/part';
import type { Hub } from '../instruments/hub';
import { setShop, theShop } from '../records/shop';
import { answer } from './route';

type Named = { sport: Sport; name: GuideName };

/** The shop, its guides and its parts. */
export function libraryRoutes(router: Router, acts: Acts, hub: Hub): void {
  const { db } = acts;
  answer(router, 'shop', () => theShop(db));
  acts.on(router, 'editShop', async ({ tx, body, later }) => {
    const { demo, ...before } = await theShop(tx);
    await setShop(tx, { ...before, ...body, demo });
    later(() => hub.settingsChanged());
    return theShop(tx);
  });
  const orNone = <T>(found: T | undefined): T => {
    if (found === undefined) throw new ApiProblem('not-found');
    return found;
  };
  const guideAt = (id: string | undefined) => orNone(guideNamed(id ?? ''));
  const guideRowOf = async (q: Queries, { sport, name }: Named): Promise<GuideRow> =>
    orNone((await listGuides(q)).find((row) => row.sport === sport && row.name === name));
  answer(router, 'guides', () => listGuides(db));
  acts.on(router, 'editGuide', async ({ tx, id, body }) => {
    const guide = guideAt(id);
    const problems = guideProblems(body, '').map((p) => ({ ...p, path: p.path.replace(/^\./, '') }));
    if (problems.length > 0) throw new Fault(...problems);
    await setGuide(tx, { ...guide, bands: body });
    return guideRowOf(tx, guide);
  });
  acts.on(router, 'restoreGuide', async ({ tx, id }) => {
    const guide = guideAt(id);
    await dropGuide(tx, guide);
    return guideRowOf(tx, guide);
  });
  answer(router, 'learning', () => findLearning(db));
  acts.begin(
    router,
    'actOnRoll',
    async ({ tx, id, body, now }) => {
      if (!(await actOnRoll(tx, id, body.act, now))) throw new ApiProblem('not-found');
      return id;
    },
    findLearning,
  );
  answer(router, 'parts', () => listParts(db));
  /** @throws Fault where it cannot be what is said of it */
  function checked(part: PartRecord): PartRecord {
    const problems = partRule(part).problems?.(part) ?? [];
    if (problems.length > 0) throw new Fault(...problems);
    return part;
  }
  acts.begin(
    router,
    'addPart',
    async ({ tx, body }) => (await addPart(tx, checked({ ...body, id: newId() } as PartRecord))).id,
    async (q, made) => orNone((await partsOf(q, [made]))[0]),
  );
  acts.on(router, 'editPart', async ({ tx, id, body }) =>
    orNone(await changePart(tx, checked({ ...body, id } as PartRecord))),
  );
  acts.on(router, 'retirePart', async ({ tx, id, body }) => orNone(await retirePart(tx, id, body.retired)));
}
