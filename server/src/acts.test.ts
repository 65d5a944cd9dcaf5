import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { calls, type ActName, type Call } from '@kevro/contract';
import type { Db, Queries } from './db/db';
import { emptyShop, startTestServer, type Answer, type TestServer } from './test-server';

const NOW = '2026-11-23T09:00:00.000Z';
const turn = (): Promise<void> => new Promise((done) => setImmediate(done));
/** A database that lets everybody else on before and after each query: what two calls could do to each other, they do. */
function yielding(db: Db): Db {
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
  return { ...slowly(db), transaction: (work) => db.transaction((tx) => work(slowly(tx))), close: db.close };
}

let server: TestServer;
beforeAll(async () => {
  server = await startTestServer(() => NOW, yielding(await emptyShop()), {
    addresses: () => ['http://192.0.2.7:4700'],
  });
});
afterAll(() => server.close());

let count = 0;
const next = (what: string): string => `${what} ${++count}`;
const made = async (path: string, body: object, method = 'POST') => {
  const { status, body: found } = await server.call(method, path, body);
  expect(status, `${path} ${JSON.stringify(found)}`).toBe(200);
  return found;
};

const SHAPE = { sport: 'tennis', lengthCm: 68.58, headAreaCm2: 645 };
const SPECS = { massG: 318, balanceCm: 32.2, swingWeight: 302, twistWeight: 13.4 };
const TAPE = {
  kind: 'tape',
  material: 'tungsten',
  widthMm: 6,
  gPerCm: 0.265,
  stepCm: 0.5,
};
const SETUP = {
  frameName: 'Quarr 97',
  sourceKind: 'measured',
  source: 'the shop',
  shape: SHAPE,
  dress: {},
  specs: { massG: 320, balanceCm: 32, swingWeight: 310 },
};

/** A shop with a fitting that has gone as far as an act needs it. */
async function world(far: 'measured' | 'aimed' | 'planned' | 'checked' = 'measured') {
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
type World = Awaited<ReturnType<typeof world>>;
const plan = ({ roundId, measurement, aimId, part }: World) => ({
  roundId,
  startId: measurement.id,
  aimId,
  school: 'free',
  placements: [
    { id: 'p1', partId: part.id, path: 'rim', startCm: -2, endCm: 2, sides: 1, layers: 1, massG: 1.06 },
  ],
});

/** Every act that makes something: how far the fitting has to be, where it is sent, and what. */
type Case = [
  far: Parameters<typeof world>[0],
  /** May do first what the act needs. */
  path: (w: World) => string | Promise<string>,
  body: (w: World) => object,
];
const felt = { playedOn: '2026-11-22', energyLeft: 'plenty', arm: 'fine' };
const BEGINS: Partial<Record<ActName, Case>> = {
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
async function counts(): Promise<Record<string, number>> {
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
async function added(work: () => Promise<unknown>): Promise<Record<string, number>> {
  const before = await counts();
  await work();
  const after = await counts();
  return Object.fromEntries(
    Object.entries(after)
      .map(([table, n]): [string, number] => [table, n - (before[table] ?? 0)])
      .filter(([, n]) => n !== 0),
  );
}
const begins = Object.entries(BEGINS) as [ActName, Case][];
const isAct = ([, call]: [string, Call]): boolean => call.changes !== undefined;

it('every call says whether it changes something: what is sent and changes nothing is named here', () => {
  const silent = Object.entries<Call>(calls)
    .filter(([, { method }]) => method !== 'get')
    .filter((entry) => !isAct(entry))
    .map(([name]) => name)
    .filter((name) => !calls[name as keyof typeof calls].path.startsWith('/compute/'));
  expect(silent.toSorted()).toEqual(['cancelReading', 'pair', 'standIn', 'takeReading']);
  const reading = Object.entries<Call>(calls).filter(isAct);
  expect(reading.every(([, { method }]) => method !== 'get')).toBe(true);
});

it('every act is sent twenty times below, but for those that say how something is to be: sent again they change nothing more', () => {
  const others = Object.entries<Call>(calls)
    .filter(isAct)
    .map(([name]) => name)
    .filter((name) => !(name in BEGINS) && !/^(edit|archive|retire|count|restore)/.test(name));
  expect(others.toSorted()).toEqual([
    // A reading has its own key; the others are idempotent by what they name.
    'addReading',
    'doneLookAgain',
    'dropCapture',
    'erasePlayer',
    'importSetups',
    'removeFitting',
    'setAside',
    'setBeside',
    'setDress',
    'setPassphrase',
    'setReferences',
    'signIn',
    'signOut',
    'startRound',
    'storeCapture',
    // Tried by itself: it needs a programme that has come to a step.
    'takeStep',
  ]);
});

describe('twenty equal calls at once, each as if the answer to the one before was lost', () => {
  it.each(begins)('%s: one is made, and all are answered with it', async (name, [far, path, body]) => {
    const { method } = calls[name];
    const once = await world(far);
    const there = await path(once);
    const expected = await added(() =>
      made(there, { ...body(once), key: next('key of once') }, method.toUpperCase()),
    );
    const w = await world(far);
    const here = await path(w);
    const key = next('key of twenty');
    const same = { ...body(w), key };
    const answers: Answer[] = [];
    const all = await added(async () => {
      answers.push(
        ...(await Promise.all(
          Array.from({ length: 20 }, () => server.call(method.toUpperCase(), here, same)),
        )),
      );
    });
    expect(answers.map(({ status, body: found }) => [status, found])).toEqual(
      answers.map(() => [200, answers[0]?.body]),
    );
    expect(all).toEqual(expected);
    expect(expected.change_log).toBe(1);
  });

  it('take one step of a programme, and go back once', async () => {
    const w = await world();
    await made('/parts', { ...TAPE, name: next('tape for steps') });
    await made(`${w.at}/programmes`, {
      key: next('programme key'),
      frameId: w.frameId,
      name: 'find-ceiling',
    });
    await made(`${w.at}/sessions`, { key: next('session key'), roundId: w.roundId, ...felt });
    const [entry] = (await server.call('GET', w.at)).body.frames;
    const { id: programmeId, sessions } = entry.programmes[0];
    const step = { key: next('step key'), programmeId, sessions };
    const all = await added(() =>
      Promise.all(
        Array.from({ length: 20 }, async () => {
          const answer = await server.call('POST', `${w.at}/programmes/step`, step);
          expect(answer.status, JSON.stringify(answer.body)).toBe(200);
        }),
      ),
    );
    expect(all).toEqual({ round: 1, aim: 1, plan: 1, programme_event: 1, change_log: 1 });
  });

  it('without a key, close a fitting once and open it again once', async () => {
    const { at } = await world();
    const statuses = async (path: string, body: object) =>
      (await Promise.all(Array.from({ length: 20 }, () => server.call('POST', at + path, body)))).map(
        ({ status }) => status,
      );
    const closed = await statuses('/close', { how: 'given-up', note: '' });
    expect(closed.filter((status) => status === 200)).toHaveLength(1);
    expect(closed.filter((status) => status === 409)).toHaveLength(19);
    const opened = await statuses('/reopen', {});
    expect(opened.filter((status) => status === 200)).toHaveLength(1);
    expect((await server.call('GET', at)).body.frames[0].rounds).toHaveLength(2);
  });
});

describe('the key of a form', () => {
  it('with other content is refused, and says what was stored', async () => {
    const key = next('key of a form');
    const first = await made('/players', { name: next('First'), sports: ['tennis'], key });
    const { status, body } = await server.call('POST', '/players', {
      name: next('Second'),
      sports: ['tennis'],
      key,
    });
    expect([status, body.code, body.existing]).toEqual([409, 'stored-already', first.id]);
  });

  it('of another act is refused', async () => {
    const key = next('key of two acts');
    await made('/players', { name: next('First'), sports: ['tennis'], key });
    const { status, body } = await server.call('POST', '/parts', { ...TAPE, name: next('tape'), key });
    expect([status, body.code]).toEqual([409, 'key-used']);
  });

  it('that was refused is free: the form is put right and sent again', async () => {
    const key = next('key of a mistake');
    const taken = await made('/frames', { tag: next('X'), maker: 'V', model: 'Q', shape: SHAPE });
    const frame = { maker: 'V', model: 'Q', shape: SHAPE, key };
    expect((await server.call('POST', '/frames', { ...frame, tag: taken.tag })).status).toBe(409);
    await made('/frames', { ...frame, tag: next('X') });
  });

  it('is kept as a hash, so that nobody who reads the database makes a player’s link of it', async () => {
    const w = await world();
    const key = next('key of a link');
    const { code } = await made(`${w.at}/links`, { roundId: w.roundId, key });
    const stored = JSON.stringify([
      await server.db.query('select * from change_log'),
      await server.db.query('select * from session_link'),
    ]);
    expect(stored).not.toContain(key);
    expect(stored).not.toContain(code);
  });
});

describe('two acts at once end in one of the two orders', () => {
  const both = async (a: Promise<Answer>, b: Promise<Answer>) => {
    const [first, second] = await Promise.all([a, b]);
    expect(first.status, JSON.stringify(first.body)).toBeLessThan(500);
    expect(second.status, JSON.stringify(second.body)).toBeLessThan(500);
    return [first.status, second.status];
  };

  it('closing beside a session', async () => {
    for (let i = 0; i < 5; i++) {
      const w = await world();
      const session = { key: next('session key'), roundId: w.roundId, ...felt };
      const statuses = await both(
        server.call('POST', `${w.at}/close`, { how: 'given-up', note: '' }),
        server.call('POST', `${w.at}/sessions`, session),
      );
      const { closed, frames } = (await server.call('GET', w.at)).body;
      expect(closed).not.toBeNull();
      expect(frames[0].rounds[0].sessions).toHaveLength(statuses[1] === 200 ? 1 : 0);
      expect([200, 409]).toContain(statuses[1]);
    }
  });

  it('removing beside measuring', async () => {
    for (let i = 0; i < 5; i++) {
      const { playerId, frameId } = await world();
      const fitting = await made('/fittings', { playerId, frameIds: [frameId], evenIfOpen: true });
      const roundId = fitting.frames[0].rounds[0].id;
      const measurement = { key: next('measurement key'), dress: {}, specs: SPECS, roundId };
      const [removed] = await both(
        server.call('POST', `/fittings/${fitting.id}/remove`, {}),
        server.call('POST', `/frames/${frameId}/measurements`, measurement),
      );
      const left = await server.call('GET', `/fittings/${fitting.id}`);
      expect(left.status).toBe(removed === 200 ? 404 : 200);
    }
  });

  it('changing the frames beside planning', async () => {
    for (let i = 0; i < 5; i++) {
      const w = await world('aimed');
      const other = await world();
      const [edited, planned] = await both(
        server.call('PUT', w.at, { playerId: w.playerId, frameIds: [other.frameId] }),
        server.call('POST', `${w.at}/plans`, plan(w)),
      );
      // There is an aim already, so that the frame stays in either order.
      expect([edited, planned]).toEqual([409, 200]);
    }
  });

  it('correcting a check beside signing it off', async () => {
    const w = await world('checked');
    const correction = { key: next('correction key'), dress: {}, specs: SPECS, reason: 'another frame' };
    const statuses = await both(
      server.call('POST', `/measurements/${w.checkId}/correct`, correction),
      server.call('POST', `${w.at}/sign-offs`, {
        key: next('sign-off key'),
        planId: w.planId,
        measurementId: w.checkId,
        note: 'as it is',
      }),
    );
    expect(statuses[0]).toBe(200);
    const [round] = (await server.call('GET', w.at)).body.frames[0].rounds;
    // Signed off before or not, what counts now is the corrected check, which nobody has signed.
    expect(round.state.next).toEqual({ station: 'check', because: 'built' });
  });
});

describe('the change log', () => {
  it('that cannot be written leaves nothing changed: no act without its line', async () => {
    const worlds = new Map<string, { w: World; at: string }>();
    for (const [name, [far, path]] of begins) {
      const w = await world(far);
      worlds.set(name, { w, at: await path(w) });
    }
    const [player] = (await server.call('GET', '/players')).body.rows;
    await server.db.run(`
      create function no_line() returns trigger language plpgsql as $$ begin raise exception 'no line'; end $$;
      create trigger no_line before insert on change_log for each row execute function no_line();`);
    try {
      const all = await added(async () => {
        for (const [name, [, , body]] of begins) {
          const { w, at } = worlds.get(name) as { w: World; at: string };
          const { status } = await server.call(calls[name].method.toUpperCase(), at, {
            ...body(w),
            key: next('lost key'),
          });
          expect([name, status]).toEqual([name, 500]);
        }
        for (const [method, path, body] of [
          ['PUT', `/players/${player.id}`, { name: 'Renamed', sports: ['tennis'] }],
          ['PUT', `/players/${player.id}/archived`, { archived: true }],
          ['POST', `/players/${player.id}/erase`, { name: player.name }],
          ['PUT', '/shop', { name: 'Renamed', town: '', calibrationHours: 72 }],
        ] as const)
          expect([path, (await server.call(method, path, body)).status]).toEqual([path, 500]);
      });
      expect(all).toEqual({});
      expect((await server.call('GET', `/players/${player.id}`)).body).toEqual(player);
      expect((await server.call('GET', '/shop')).body.name).not.toBe('Renamed');
    } finally {
      await server.db.run('drop trigger no_line on change_log; drop function no_line');
    }
  });

  it('names device, act and record', async () => {
    const w = await world();
    await made(`${w.at}/close`, { how: 'given-up', note: '' });
    const [line] = (await server.call('GET', '/changes?limit=1')).body.rows;
    expect(line).toMatchObject({
      who: 'bench',
      call: 'closeFitting',
      record: 'fitting',
      recordId: w.id,
      at: NOW,
    });
  });
});

describe('a fitting that something hangs on', () => {
  const ways: [
    string,
    (w: { at: string; id: string; frameId: string; playerId: string; roundId: string }) => Promise<unknown>,
  ][] = [
    [
      'a programme',
      (w) => made(`${w.at}/programmes`, { key: next('programme key'), frameId: w.frameId, name: 'climb' }),
    ],
    ['a link for the player', (w) => made(`${w.at}/links`, { roundId: w.roundId })],
    [
      'a follow-up',
      (w) =>
        made('/look-again', { playerId: w.playerId, fittingId: w.id, dueOn: '2027-01-01', why: 'asked' }),
    ],
  ];
  it.each(ways)('is not removed with %s', async (name, hang) => {
    const { playerId, frameId } = await world();
    const fitting = await made('/fittings', { playerId, frameIds: [frameId], evenIfOpen: true });
    const roundId = fitting.frames[0].rounds[0].id;
    const at = `/fittings/${fitting.id}`;
    await hang({ at, id: fitting.id, frameId, playerId, roundId });
    const removed = await server.call('POST', `${at}/remove`, {});
    expect([removed.status, removed.body.code]).toEqual([409, 'fitting-not-empty']);
    const other = await world();
    const edited = await server.call('PUT', at, { playerId, frameIds: [other.frameId] });
    // A follow-up is the player's and the fitting's, whichever frames it has.
    const stays = name === 'a follow-up' ? [200, undefined] : [409, 'frame-has-work'];
    expect([edited.status, edited.body.code]).toEqual(stays);
  });
});
