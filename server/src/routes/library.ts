import type { Router } from 'express';
import {
  ALL_SPORTS,
  Fault,
  guideProblems,
  partRule,
  startersFor,
  weighed,
  type GuideName,
  type Sport,
} from '@kevro/core';
import type { Acts } from '../act';
import type { Queries } from '../db/db';
import { newPart, type ActBodyOf, type GuideRow, type PartRecord } from '@kevro/contract';
import { ApiProblem } from '../problem';
import { dropGuide, guideNamed, listGuides, setGuide } from '../records/guide';
import { newId } from '../records/id';
import { actOnRoll, findLearning } from '../records/learning';
import { addPart, changePart, listParts, partsOf, retirePart } from '../records/part';
import type { Hub } from '../instruments/hub';
import { beginShop, setShop, theShop } from '../records/shop';
import { answer, readAs } from './route';

type Named = { sport: Sport; name: GuideName };

/** @param path the field that it was made from, where that is not its own @throws Fault where it cannot be what is said of it */
function checked(part: PartRecord, path?: string): PartRecord {
  const problems = partRule(part).problems?.(part) ?? [];
  if (problems.length > 0) throw new Fault(...problems.map((p) => (path === undefined ? p : { ...p, path })));
  return part;
}

/** Adds common parts: typical ones, or as a sample of them weighed. @returns their ids */
async function beginStock(tx: Queries, picked: ActBodyOf<'addStarters'>['starters']): Promise<string[]> {
  const { fits } = await theShop(tx);
  const known = startersFor(fits.length > 0 ? fits : ALL_SPORTS);
  const ids: string[] = [];
  for (const [i, { starter, sampleG }] of picked.entries()) {
    const found = known.find(({ id }) => id === starter);
    if (!found) throw new Fault({ code: 'part-unknown', path: `starters.${i}.starter` });
    const { sample } = partRule(found.part);
    const part =
      sampleG === undefined
        ? { ...found.part, ...(sample ? { typical: true } : {}) }
        : (weighed(found.part, sampleG) ?? found.part);
    const data = readAs(newPart, { ...part, name: found.name });
    ids.push(
      (await addPart(tx, checked({ ...data, id: newId() } as PartRecord, `starters.${i}.sampleG`))).id,
    );
  }
  return ids;
}

/** The shop, its guides and its parts. */
export function libraryRoutes(router: Router, acts: Acts, hub: Hub): void {
  const { db } = acts;
  answer(router, 'shop', () => theShop(db));
  acts.on(router, 'editShop', async ({ tx, body, later }) => {
    const { demo, begun, ...before } = await theShop(tx);
    await setShop(tx, { ...before, ...body, demo });
    later(() => hub.settingsChanged());
    return theShop(tx);
  });
  acts.begin(
    router,
    'beginShop',
    async ({ tx, body: { starters, ...said } }) => {
      if (!(await beginShop(tx, said)))
        throw new ApiProblem('already-there', [], { what: (await theShop(tx)).name });
      await beginStock(tx, starters);
      return 'shop';
    },
    theShop,
  );
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
  acts.begin(
    router,
    'addStarters',
    async ({ tx, body }) => (await beginStock(tx, body.starters)).join(),
    (q, made) => partsOf(q, made.split(',')),
  );
  acts.begin(
    router,
    'addPart',
    async ({ tx, body }) => (await addPart(tx, checked({ ...body, id: newId() } as PartRecord))).id,
    async (q, made) => orNone((await partsOf(q, [made]))[0]),
  );
  acts.on(router, 'editPart', async ({ tx, id, body }) =>
    orNone(await changePart(tx, checked({ ...body, id } as PartRecord))),
  );
  acts.on(router, 'weighPart', async ({ tx, id, body }) => {
    const part = orNone((await partsOf(tx, [id]))[0]);
    const known = weighed(part, body.sampleG);
    if (!known) throw new ApiProblem('not-weighed');
    const { id: _, ...fields } = known;
    return orNone(await changePart(tx, checked({ ...readAs(newPart, fields), id } as PartRecord, 'sampleG')));
  });
  acts.on(router, 'retirePart', async ({ tx, id, body }) => orNone(await retirePart(tx, id, body.retired)));
}
