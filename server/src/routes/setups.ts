import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import type { Request, Response, Router } from 'express';
import Papa from 'papaparse';
import { SPEC_KEYS, averageOf, compareReports, settleFrame } from '@kevro/core';
import {
  EXPORTED,
  HEADERS,
  fieldErrors,
  importQuery,
  newSetup,
  setupCells,
  setupFileQuery,
  setupMapping,
  setupProblems,
  type SetupFileQuery,
  type SetupImport,
  type SetupPage,
  type SetupToStore,
} from '@kevro/contract';
import { writeLine, type Acts } from '../act';
import type { Clock } from '../clock';
import type { Db, Queries } from '../db/db';
import { importSetups } from '../exchange/setup-import';
import type { ReadFile } from '../exchange/setup-reading';
import { MOST_BYTES } from '../exchange/table-text';
import { ApiProblem, badInput, wrongAt } from '../problem';
import {
  addSetup,
  allSetups,
  changeSetup,
  chooseReport,
  listSetups,
  markAveraged,
  retireSetup,
  setupPageOf,
  setupsById,
  tensionsOf,
} from '../records/setup';
import { whileNobodyImports } from '../records/setup-batch';
import { callerOf } from '../safety/access';
import { answer, readAs } from './route';

const orNone = <T>(found: T | undefined): T => {
  if (found === undefined) throw new ApiProblem('not-found');
  return found;
};

/** @throws ApiProblem where the shape or the numbers cannot be */
function checked(setup: SetupToStore): SetupToStore {
  const problems = setupProblems(setup);
  if (problems.length === 0) return setup;
  throw badInput(
    problems.map(({ field, code, message }) => {
      const spec = SPEC_KEYS.some((key) => key === field) || field === 'axisCm';
      return { path: spec ? `specs.${field}` : field ? `shape.${field}` : 'specs', code, message };
    }),
  );
}

/** The average of a frame's reports as a setup of its own, in the dress of the one that it was asked from. */
function averageSetup({ setup, reports }: SetupPage): SetupToStore {
  const { sport } = settleFrame(setup.shape);
  const axisCm = setup.specs.axisCm ?? sport.axisCm;
  const told = reports.filter(({ averaged }) => !averaged);
  const specs = averageOf(compareReports(told, setup.dress, axisCm));
  const { id: _, retired: __, standsBack: ___, averaged: ____, ...rest } = setup;
  // An average is as sure as the least sure kind that it was made of.
  const kinds = newSetup.shape.sourceKind.options;
  const sourceKind =
    kinds[Math.max(...told.map((report) => kinds.indexOf(report.sourceKind)))] ?? setup.sourceKind;
  return checked({
    ...rest,
    sourceKind,
    source: `average of ${told.length} reports, weighted by confidence`,
    link: '',
    confidence: 'medium',
    specs: { ...specs, ...(setup.specs.axisCm === undefined ? {} : { axisCm }) },
    asReported: {},
  });
}

export function setupRoutes(router: Router, acts: Acts): void {
  const { db } = acts;
  answer(router, 'setups', ({ query }) => listSetups(db, query));
  answer(router, 'setupTensions', async ({ query }) => (await tensionsOf(db, query.sport)) ?? null);
  answer(router, 'setup', async ({ params }) => orNone(await setupPageOf(db, params.id ?? '')));
  acts.begin(
    router,
    'addSetup',
    async ({ tx, body }) => (await addSetup(tx, checked(body))).id,
    async (q, made) => orNone((await setupsById(q, [made]))[0]),
  );
  acts.on(router, 'editSetup', async ({ tx, id, body }) => orNone(await changeSetup(tx, id, checked(body))));
  acts.on(router, 'retireSetup', async ({ tx, id, body }) => orNone(await retireSetup(tx, id, body.retired)));
  acts.begin(
    router,
    'settleReports',
    async ({ tx, id, body }) => {
      const page = orNone(await setupPageOf(tx, id));
      let standing: string | null = body.use === 'all' ? null : page.setup.id;
      if (body.use === 'average') standing = await averagedReport(tx, page);
      await chooseReport(
        tx,
        [...page.reports.map((report) => report.id), ...(standing ? [standing] : [])],
        standing,
      );
      return standing ?? page.setup.id;
    },
    async (q, made) => orNone(await setupPageOf(q, made)),
  );

  router.get('/setups.csv', async (request, response) => {
    const query = fileQuery(request);
    response.attachment('setups.csv').type('text/csv; charset=utf-8');
    await send(response, csvOf(db, query));
  });
  router.get('/setups.json', async (request, response) => {
    const query = fileQuery(request);
    response.attachment('setups.json').type('application/json');
    await send(response, jsonOf(db, query));
  });
}

/** The average of a frame's reports, made once: made again it takes the place of the earlier one. */
async function averagedReport(tx: Queries, page: SetupPage): Promise<string> {
  const average = averageSetup(page);
  const before = page.reports.find(({ averaged }) => averaged);
  if (before) {
    await changeSetup(tx, before.id, average);
    return before.id;
  }
  const { id } = await addSetup(tx, average);
  await markAveraged(tx, id);
  return id;
}

const fileQuery = (request: Request): SetupFileQuery => readAs(setupFileQuery, request.query);

/** Writes a file part by part, no faster than it is read. */
async function send(response: Response, parts: AsyncIterable<string>): Promise<void> {
  try {
    await pipeline(Readable.from(parts), response);
  } catch (error) {
    // Whoever asked went away.
    if (!response.destroyed) throw error;
  }
}

/** A spreadsheet takes a CSV file for UTF-8 only where it begins with this mark; a cell that begins like a formula is made harmless. */
async function* csvOf(db: Db, query: SetupFileQuery): AsyncGenerator<string> {
  const rows = (cells: (string | number)[][]): string =>
    `${Papa.unparse(cells, { escapeFormulae: true })}\r\n`;
  yield `\ufeff${rows([EXPORTED.map((field) => HEADERS[field])])}`;
  for await (const part of allSetups(db, query)) yield rows(part.map(setupCells));
}
async function* jsonOf(db: Db, query: SetupFileQuery): AsyncGenerator<string> {
  yield '{"kevro":"setups/1","setups":[';
  let comma = '';
  for await (const part of allSetups(db, query)) {
    yield comma + part.map(({ id: _, ...setup }) => JSON.stringify(setup)).join(',\n');
    comma = ',\n';
  }
  yield ']}\n';
}

/** The bytes of a request. @throws ApiProblem where they are too many, packed, or do not all come */
async function bytesOf(request: Request): Promise<Uint8Array> {
  if (Number(request.headers['content-length'] ?? 0) > MOST_BYTES) throw new ApiProblem('too-large');
  if (!['', 'identity'].includes(request.headers['content-encoding'] ?? ''))
    throw new ApiProblem('compressed-file');
  const parts: Buffer[] = [];
  let size = 0;
  for await (const part of request as AsyncIterable<Buffer>) {
    size += part.length;
    if (size > MOST_BYTES) throw new ApiProblem('too-large');
    parts.push(part);
  }
  // Memory of its own, so that it can be handed to a thread.
  return new Uint8Array(Buffer.concat(parts));
}

function mappingSaid(text = '{}') {
  const given = readable(text);
  const found = setupMapping.safeParse(given, { reportInput: true });
  if (!found.success) throw badInput(fieldErrors(found.error.issues, 'mapping'));
  return found.data;
}
function readable(json: string): unknown {
  try {
    return JSON.parse(json);
  } catch {
    throw badInput([wrongAt('mapping', 'not-json')]);
  }
}

/** Reading a file of setups in: its body is not JSON alone, so that it stands before what reads JSON. */
export function importRoutes(router: Router, { db, changes }: Acts, now: Clock, reading: ReadFile): void {
  /** How far imports are, for as long as they go on; one at a time stores. */
  const progress = new Map<string, { done: number; of: number }>();
  let importing = false;
  answer(router, 'importProgress', ({ params }) => orNone(progress.get(params.id ?? '')));
  router.post('/setups/import', async (request, response) => {
    const asked = importQuery.safeParse(request.query, { reportInput: true });
    if (!asked.success) throw badInput(fieldErrors(asked.error.issues));
    const { mode, skipBad, key } = asked.data;
    const mapping = mappingSaid(asked.data.mapping);
    if (mode === 'store' && importing) throw new ApiProblem('import-under-way');
    let gone = false;
    response.on('close', () => {
      gone = !response.writableFinished;
    });
    const format = (request.headers['content-type'] ?? '').includes('json') ? 'json' : 'csv';
    if (mode === 'store') importing = true;
    const read = async (): Promise<SetupImport> => {
      const file = await reading({ bytes: await bytesOf(request), format, mapping });
      const work = () =>
        importSetups(db, file, {
          store: mode === 'store',
          skipBad,
          cancelled: () => gone,
          progress: (rows, of) => {
            if (key) progress.set(key, { done: rows, of });
          },
          line: (tx) =>
            writeLine(tx, { name: 'importSetups', who: callerOf(response).name, id: null, at: now() }),
        });
      try {
        const done = await (mode === 'store' ? whileNobodyImports(db, work) : work());
        if (!done) throw new ApiProblem('import-under-way');
        return done;
      } finally {
        await file.close();
      }
    };
    const done = await read().finally(() => {
      if (mode === 'store') importing = false;
      if (key) progress.delete(key);
    });
    if (mode === 'store') changes.tell({ kind: 'setup', id: null, page: request.get('kevro-page') ?? '' });
    // Whoever is answered may send the next list at once.
    response.json(done);
  });
}
