import { expect } from 'vitest';
import type { ActName, Call } from '@kevro/contract';
import type { Db, Queries } from './db/db';
import { emptyShop, onServer, startTestServer } from './test-server';

export const NOW = '2026-11-23T09:00:00.000Z';
export const turn = (): Promise<void> => new Promise((done) => setImmediate(done));
/** A database that lets everybody else on before and after each query: what two calls could do to each other, they do. */
export function yielding(db: Db): Db {
  const slowly = (queries: Queries): Queries => ({
    query: async (sql, values) => {
      await turn();
      const rows = await queries.query<never>(sql, values);
      await turn();
      return rows;
    },
    run: async (script) => {
      await turn();
      await queries.run(script);
    },
  });
  return {
    ...db,
    ...slowly(db),
    transaction: (work) => db.transaction((tx) => work(slowly(tx))),
    close: db.close,
  };
}

let server: ReturnType<typeof onServer>;
/** Starts the server of a file of tests, and ends it with them. */
export function withServer(): void {
  server = onServer(async () =>
    startTestServer(() => NOW, yielding(await emptyShop()), { addresses: () => ['http://192.0.2.7:4700'] }),
  );
}
/** The server of the file that runs now. */
export const serverNow = (): typeof server => server;

let count = 0;
export const next = (what: string): string => `${what} ${++count}`;
export const made = async (path: string, body: object, method = 'POST') => {
  const { status, body: found } = await server.call(method, path, body);
  expect(status, `${path} ${JSON.stringify(found)}`).toBe(200);
  return found;
};

export const SHAPE = { sport: 'tennis', lengthCm: 68.58, headAreaCm2: 645 };
export const SPECS = { massG: 318, balanceCm: 32.2, swingWeight: 302, twistWeight: 13.4 };
export const TAPE = {
  kind: 'tape',
  material: 'tungsten',
  widthMm: 6,
  gPerCm: 0.265,
  stepCm: 0.5,
};
export const SETUP = {
  frameName: 'Quarr 97',
  sourceKind: 'measured',
  source: 'the shop',
  shape: SHAPE,
  dress: {},
  specs: { massG: 320, balanceCm: 32, swingWeight: 310 },
};

/** A shop with a fitting that has gone as far as an act needs it. */
export async function world(far: 'measured' | 'aimed' | 'planned' | 'checked' = 'measured') {
  const { id: playerId } = await made('/players', { name: next('Player'), sports: ['tennis'] });
  const { id: frameId } = await made('/frames', {
    tag: next('T'),
    maker: 'Velmond',
    model: 'Quarr 97',
    shape: SHAPE,
  });
  const part = await made('/parts', { ...TAPE, name: next('tape') });
  const fitting = await made('/fittings', { playerId, frameIds: [frameId] });
  const id = fitting.id as string;
  const at = `/fittings/${id}`;
  const roundId = fitting.frames[0].rounds[0].id as string;
  const measurement = await made(`/frames/${frameId}/measurements`, {
    key: next('measurement key'),
    dress: { strings: true },
    specs: SPECS,
    purpose: 'found',
    roundId,
  });
  const w = {
    playerId,
    frameId,
    part,
    id,
    at,
    roundId,
    measurement,
    aimId: '',
    planId: '',
    checkId: '',
    programmeId: '',
  };
  if (far === 'measured') return w;
  const target = { massG: { value: 321, tolerance: 1 } };
  w.aimId = (await made(`${at}/aims`, { roundId, way: 'by-hand', target })).id;
  if (far === 'aimed') return w;
  w.planId = (await made(`${at}/plans`, plan(w))).id;
  if (far === 'planned') return w;
  const { frames } = (await server.call('GET', at)).body;
  for (const { key: step } of frames[0].rounds[0].plans[0].steps)
    await made(`${at}/marks`, { planId: w.planId, step, mark: 'done' });
  w.checkId = (
    await made(`/frames/${frameId}/measurements`, {
      key: next('check key'),
      dress: { strings: true },
      specs: { ...SPECS, massG: 321 },
      purpose: 'check',
      roundId,
    })
  ).id;
  return w;
}
export type World = Awaited<ReturnType<typeof world>>;
export const plan = ({ roundId, measurement, aimId, part }: World) => ({
  roundId,
  startId: measurement.id,
  aimId,
  school: 'free',
  placements: [
    { id: 'p1', partId: part.id, path: 'rim', startCm: -2, endCm: 2, sides: 1, layers: 1, massG: 1.06 },
  ],
});

/** Every act that makes something: how far the fitting has to be, where it is sent, and what. */
export type Case = [
  far: Parameters<typeof world>[0],
  /** May do first what the act needs. */
  path: (w: World) => string | Promise<string>,
  body: (w: World) => object,
];
export const felt = { playedOn: '2026-11-22', energyLeft: 'plenty', arm: 'fine' };
export const BEGINS: Partial<Record<ActName, Case>> = {
  addPlayer: ['measured', () => '/players', () => ({ name: next('New'), sports: ['tennis'] })],
  addFrame: [
    'measured',
    () => '/frames',
    () => ({ tag: next('N'), maker: 'Velmond', model: 'Quarr 97', shape: SHAPE }),
  ],
  duplicateFrame: ['measured', (w) => `/frames/${w.frameId}/duplicate`, () => ({ tag: next('D') })],
  addStringing: [
    'measured',
    (w) => `/frames/${w.frameId}/stringings`,
    () => ({ strungOn: '2026-11-20', mains: 'gut', mainsKg: 24, crossesKg: 24, unit: 'kg' }),
  ],
  addMeasurement: [
    'measured',
    (w) => `/frames/${w.frameId}/measurements`,
    (w) => ({ dress: {}, specs: SPECS, purpose: 'later', roundId: w.roundId }),
  ],
  correctMeasurement: [
    'measured',
    (w) => `/measurements/${w.measurement.id}/correct`,
    () => ({ dress: {}, specs: SPECS, reason: 'read from another frame' }),
  ],
  addInstrument: [
    'measured',
    () => '/instruments',
    () => ({
      name: next('scale'),
      kind: 'scale',
      sheet: {
        repeatability: 0.1,
        accuracy: 0.1,
        resolution: 0.1,
        driftPerHour: 0,
        warmUpMinutes: 0,
        axisCm: null,
      },
    }),
  ],
  addStarters: ['measured', () => '/parts/starters', () => ({ starters: [{ starter: 'lead-6' }] })],
  addPart: ['measured', () => '/parts', () => ({ ...TAPE, name: next('more tape') })],
  addSetup: [
    'measured',
    () => '/setups',
    () => ({ ...SETUP, name: next('Setup'), shape: { ...SHAPE, headAreaCm2: 600 + ++count / 100 } }),
  ],
  openFitting: [
    'measured',
    () => '/fittings',
    (w) => ({ playerId: w.playerId, frameIds: [w.frameId], evenIfOpen: true }),
  ],
  closeFitting: ['measured', (w) => `${w.at}/close`, () => ({ how: 'given-up', note: 'moved away' })],
  beginRound: ['measured', (w) => `${w.at}/rounds`, (w) => ({ frameId: w.frameId, why: 'complaint' })],
  setAim: [
    'measured',
    (w) => `${w.at}/aims`,
    (w) => ({ roundId: w.roundId, way: 'by-hand', target: { massG: { value: 321, tolerance: 1 } } }),
  ],
  choosePlan: ['aimed', (w) => `${w.at}/plans`, plan],
  markStep: [
    'planned',
    (w) => `${w.at}/marks`,
    (w) => ({ planId: w.planId, step: 'weigh-before', mark: 'skipped', reason: 'no time' }),
  ],
  signOff: [
    'checked',
    (w) => `${w.at}/sign-offs`,
    (w) => ({ planId: w.planId, measurementId: w.checkId, note: 'as it is' }),
  ],
  addSession: ['measured', (w) => `${w.at}/sessions`, (w) => ({ roundId: w.roundId, ...felt })],
  beginProgramme: ['measured', (w) => `${w.at}/programmes`, (w) => ({ frameId: w.frameId, name: 'climb' })],
  makeLink: ['measured', (w) => `${w.at}/links`, (w) => ({ roundId: w.roundId })],
  addLookAgain: [
    'measured',
    () => '/look-again',
    (w) => ({ playerId: w.playerId, fittingId: w.id, dueOn: '2027-05-01', why: 'growing' }),
  ],
  addSeasonDate: [
    'measured',
    (w) => `/players/${w.playerId}/season`,
    () => ({ kind: 'match', fromDay: '2027-05-01', toDay: '2027-05-02' }),
  ],
  readSeason: [
    'measured',
    (w) => `/players/${w.playerId}/season/file`,
    () => ({
      text: 'BEGIN:VCALENDAR\nBEGIN:VEVENT\nUID:one\nDTSTART;VALUE=DATE:20270101\nEND:VEVENT\nEND:VCALENDAR',
    }),
  ],
  reopenFitting: [
    'measured',
    async (w) => {
      await made(`${w.at}/close`, { how: 'given-up', note: '' });
      return `${w.at}/reopen`;
    },
    () => ({}),
  ],
  noteByLink: [
    'measured',
    async (w) => `/played/${(await made(`${w.at}/links`, { roundId: w.roundId })).code as string}`,
    () => felt,
  ],
  actOnProgramme: [
    'measured',
    async (w) => {
      const programme = { key: next('programme key'), frameId: w.frameId, name: 'climb' };
      w.programmeId = (await made(`${w.at}/programmes`, programme)).frames[0].programmes[0].id;
      return `${w.at}/programmes/act`;
    },
    (w) => ({ programmeId: w.programmeId, act: 'pause' }),
  ],
  goBack: [
    'checked',
    async (w) => {
      await made(`${w.at}/sign-offs`, {
        key: next('sign-off key'),
        planId: w.planId,
        measurementId: w.checkId,
        note: 'as it is',
      });
      return `${w.at}/back`;
    },
    (w) => ({ frameId: w.frameId, toRoundId: w.roundId, which: 'found', note: 'it was better' }),
  ],
  calibrate: [
    'measured',
    async () => {
      const sheet = { repeatability: 0.5, accuracy: 1, resolution: 0.1, driftPerHour: 0, warmUpMinutes: 0 };
      const machine = { name: next('machine'), kind: 'machine', sheet: { ...sheet, axisCm: null } };
      return `/instruments/${(await made('/instruments', machine)).id as string}/calibrations`;
    },
    () => ({
      rods: [
        { trueValue: 280, reads: [281] },
        { trueValue: 340, reads: [341] },
      ],
    }),
  ],
  actOnRoll: ['measured', (w) => `/learning/rolls/${w.part.id as string}`, () => ({ act: 'new-roll' })],
  settleReports: [
    'measured',
    async () => {
      const name = next('Reported');
      const { id } = await made('/setups', { ...SETUP, name });
      await made('/setups', { ...SETUP, name, specs: { ...SETUP.specs, massG: 322 } });
      return `/setups/${id as string}/reports`;
    },
    () => ({ use: 'average' }),
  ],
};

/** How many rows each table has. */
export async function counts(): Promise<Record<string, number>> {
  const tables = await server.db.query<{ name: string }>(
    "select table_name as name from information_schema.tables where table_schema = 'public'",
  );
  const found: Record<string, number> = {};
  for (const { name } of tables) {
    const [row] = await server.db.query<{ n: number }>(`select count(*) as n from "${name}"`);
    found[name] = row?.n ?? 0;
  }
  return found;
}
/** What was added to each table while something was done. */
export async function added(work: () => Promise<unknown>): Promise<Record<string, number>> {
  const before = await counts();
  await work();
  const after = await counts();
  return Object.fromEntries(
    Object.entries(after)
      .map(([table, n]): [string, number] => [table, n - (before[table] ?? 0)])
      .filter(([, n]) => n !== 0),
  );
}
export const begins = Object.entries(BEGINS) as [ActName, Case][];
export const isAct = ([, call]: [string, Call]): boolean => call.changes !== undefined;
