import { describe, expect, it } from 'vitest';
import type { Asked, DataSheet, Instrument } from '@kevro/contract';
import { onBench } from './test-capture';
import { paths } from './test-server';

let time = Date.parse('2026-11-23T09:00:00.000Z');
const { server, another, key, addFrame, typed, capture, store, typeAll } = onBench(() => time);
const { get, post, put } = server;

describe('a capture', () => {
  it('becomes one measurement, however often it is stored', async () => {
    const id = await addFrame();
    await put(`/frames/${id}/capture`, { dress: { strings: true } });
    await typeAll(id);
    await post(`/frames/${id}/readings`, { means: 'estimate', key: key(), quantity: 'twistWeight' });
    const open = await capture(id);
    const stored = await Promise.all([store(id, open.id), store(id, open.id), store(id, open.id)]);
    expect(new Set(stored.map((s) => s.body.id)).size).toBe(1);
    const page = (await get(`/frames/${id}`)).body;
    expect(page.measurements).toHaveLength(1);
    expect(page.measurements[0]).toMatchObject({
      dress: { strings: true },
      specs: { massG: 327, balanceCm: 32.2, swingWeight: 320 },
      estimated: ['twistWeight'],
      how: { massG: { means: ['typed'], count: 1 }, twistWeight: { means: ['estimate'] } },
    });
    expect(page.frame.onIt).toEqual({ strings: true });
    expect((await get(`/frames?search=${page.frame.tag}`)).body.rows[0].newest.estimated).toEqual([
      'twistWeight',
    ]);
    // What comes next begins anew.
    expect((await capture(id)).readings).toEqual([]);
  });

  it('keeps two readings that arrive at once, and the same one twice only once', async () => {
    const id = await addFrame();
    const same = key();
    await Promise.all([
      typed(id, 'massG', 327),
      typed(id, 'massG', 327.4),
      typed(id, 'balanceCm', 32.2, 'typed', same),
      typed(id, 'balanceCm', 32.2, 'typed', same),
      get(`/frames/${id}/capture`),
    ]);
    const { readings } = await capture(id);
    expect(readings.map((r) => r.quantity).toSorted()).toEqual(['balanceCm', 'massG', 'massG']);
    const captures = await server.db.query('select id from capture where frame_id = $1', [id]);
    expect(captures).toHaveLength(1);
  });

  it('counts what is set aside no more, and can be begun anew', async () => {
    const id = await addFrame();
    await typeAll(id);
    await typed(id, 'massG', 350);
    const open = await capture(id);
    await put(`/frames/${id}/set-aside`, { readingId: open.readings.at(-1)?.id, setAside: true });
    const gone = await put(`/frames/${id}/set-aside`, { readingId: 'no-such', setAside: true });
    expect(gone.body.code).toBe('capture-gone');
    const measured = (await store(id, open.id)).body;
    expect(measured.specs.massG).toBe(327);
    expect(measured.how.massG.count).toBe(1);
    await typed(id, 'massG', 330);
    const next = await capture(id);
    expect((await post(`/frames/${id}/capture/drop`, { captureId: next.id })).body.readings).toEqual([]);
    expect((await store(id, next.id)).body.code).toBe('capture-gone');
  });

  it('is refused while something is missing or cannot be, and nothing is stored', async () => {
    const id = await addFrame();
    await typed(id, 'massG', 327);
    const early = await post(`/frames/${id}/readings`, {
      means: 'estimate',
      key: key(),
      quantity: 'swingWeight',
    });
    expect([early.status, early.body.code]).toEqual([422, 'needs-weight-and-balance']);
    const { id: captureId } = await capture(id);
    expect((await store(id, captureId)).body.code).toBe('capture-incomplete');
    await typed(id, 'balanceCm', 32.2);
    await typed(id, 'swingWeight', 120);
    expect((await store(id, captureId)).status).toBe(409);
    expect((await get(`/frames/${id}/measurements`)).body).toEqual([]);
    expect(paths(await typed(id, 'massG', 9e9))).toEqual(['value']);
  });

  it('takes no stiffness of a frame whose sport rates none', async () => {
    const paddle = await addFrame({ shape: { sport: 'padel', lengthCm: 45.5 } });
    const refused = await typed(paddle, 'stiffness', 60);
    expect([refused.status, refused.body.code]).toEqual([422, 'not-of-this-sport']);
    expect((await capture(paddle)).readings).toEqual([]);
  });
});

const SHEET: DataSheet = {
  repeatability: 0.4,
  accuracy: 2,
  resolution: 0.1,
  driftPerHour: 0.02,
  warmUpMinutes: 0,
  axisCm: null,
};

describe('instruments', () => {
  const add = async (kind: string, sheet: Partial<DataSheet> = {}): Promise<string> =>
    (await post('/instruments', { name: `${kind} ${another()}`, kind, sheet: { ...SHEET, ...sheet } })).body
      .id;
  const take = (id: string, asked: unknown, k = key()) => post(`/instruments/${id}/read`, { key: k, asked });
  const view = async (id: string): Promise<Instrument> =>
    (await get('/instruments')).body.find((i: Instrument) => i.id === id);
  const until = async (what: () => Promise<boolean>): Promise<void> => {
    for (let i = 0; i < 400 && !(await what()); i++) await new Promise((r) => setTimeout(r, 5));
    expect(await what()).toBe(true);
  };
  const idle = (id: string) => until(async () => (await view(id)).reading === null);
  const rods = (slope: number, bump = 0) =>
    [100, 200, 300].map((trueValue, i) => ({ trueValue, reads: [slope * trueValue + (i === 1 ? bump : 0)] }));

  it('measure a whole frame: what was put on them is what is found', async () => {
    const id = await addFrame();
    await typeAll(id);
    await typed(id, 'twistWeight', 13.5);
    await store(id, (await capture(id)).id);
    const [scale, board, machine] = [
      await add('scale', { repeatability: 0.1, accuracy: 0.1 }),
      await add('board', { repeatability: 0.02, accuracy: 0.03, resolution: 0.05 }),
      await add('machine'),
    ];
    const reads: [string, string][] = [
      [scale, 'massG'],
      [board, 'balanceCm'],
      [machine, 'swingWeight'],
      [machine, 'twistWeight'],
      [machine, 'leftRightG'],
    ];
    for (const [instrument, quantity] of reads) {
      await put(`/instruments/${instrument}/stand-in`, { on: { frameId: id } });
      await take(instrument, { frameId: id, quantity });
      await idle(instrument);
    }
    const { id: captureId, readings } = await capture(id);
    expect(readings.map((r) => r.quantity)).toEqual(reads.map(([, quantity]) => quantity));
    const { specs, uncertainty, leftRight, how } = (await store(id, captureId)).body;
    const truth = { massG: 327, balanceCm: 32.2, swingWeight: 320, twistWeight: 13.5 } as const;
    for (const [spec, value] of Object.entries(truth)) {
      expect(Math.abs(specs[spec] - value), spec).toBeLessThan(3.5 * uncertainty[spec]);
    }
    expect(leftRight.uncertainty).toBeGreaterThan(0);
    expect(how.swingWeight).toMatchObject({
      means: ['instrument'],
      instruments: [machine],
      calibrations: [],
    });
    expect(how.twistWeight.means).toEqual(['edge-on']);
  });

  it('go on after they were lost in the middle of a reading, with the swings they had', async () => {
    const id = await addFrame();
    const machine = await add('machine');
    await put(`/instruments/${machine}/stand-in`, { on: { frameId: id } });
    // The cable is pulled at the first swing.
    const end = await server.hub.subscribe(({ message }) => {
      if (message.kind !== 'sample' || message.instrumentId !== machine) return;
      end();
      void server.hub.setStandIn(machine, { plugged: false });
    });
    await take(machine, { frameId: id, quantity: 'swingWeight' });
    await until(async () => (await view(machine)).state === 'lost');
    const lost = await view(machine);
    expect(lost.state).toBe('lost');
    const had = lost.reading?.swings ?? [];
    expect(had).toHaveLength(1);
    expect((await capture(id)).readings).toEqual([]);
    await put(`/instruments/${machine}/stand-in`, { plugged: true });
    await idle(machine);
    const [reading, ...more] = (await capture(id)).readings;
    expect(more).toEqual([]);
    expect(Math.abs((reading?.raw ?? 0) - (had[0] ?? 0))).toBeLessThan(5 * SHEET.repeatability);
  });

  it('are read on while somebody gives them another name; another data sheet ends the reading', async () => {
    const id = await addFrame();
    const machine = await add('machine');
    await put(`/instruments/${machine}/stand-in`, { on: { frameId: id }, plugged: false });
    await take(machine, { frameId: id, quantity: 'swingWeight' });
    const { kind, driver, sheet, note, link } = await view(machine);
    const told = { name: `By the window ${another()}`, kind, driver, sheet, note, link };
    const renamed = await put(`/instruments/${machine}`, told);
    expect([renamed.status, renamed.body.name]).toEqual([200, told.name]);
    expect((await view(machine)).reading).not.toBeNull();
    await put(`/instruments/${machine}/stand-in`, { plugged: true });
    await idle(machine);
    expect((await capture(id)).readings).toMatchObject([{ instrumentId: machine }]);
    await put(`/instruments/${machine}/stand-in`, { plugged: false });
    await take(machine, { frameId: id, quantity: 'swingWeight' });
    await put(`/instruments/${machine}`, {
      ...told,
      sheet: { ...sheet, repeatability: 2 * sheet.repeatability },
    });
    await until(async () => (await view(machine)).reading === null);
    expect((await capture(id)).readings).toHaveLength(1);
  });

  it('take one reading for a double click, one at a time, and can be stopped', async () => {
    const id = await addFrame();
    const scale = await add('scale');
    await put(`/instruments/${scale}/stand-in`, { on: { frameId: id } });
    const asked: Asked = { frameId: id, quantity: 'massG' };
    const same = key();
    await Promise.all([take(scale, asked, same), take(scale, asked, same)]);
    await idle(scale);
    await take(scale, asked, same);
    expect((await capture(id)).readings).toHaveLength(1);
    await put(`/instruments/${scale}/stand-in`, { plugged: false });
    await take(scale, asked);
    expect((await take(scale, asked)).body.code).toBe('instrument-busy');
    await post(`/instruments/${scale}/cancel`, {});
    await put(`/instruments/${scale}/stand-in`, { plugged: true });
    expect((await view(scale)).reading).toBeNull();
    expect((await capture(id)).readings).toHaveLength(1);
  });

  it('say so when nothing lies on them, or they do not read what is asked', async () => {
    const id = await addFrame();
    const [scale, machine] = [await add('scale'), await add('machine')];
    expect((await take(scale, { frameId: id, quantity: 'massG' })).body.code).toBe('nothing-on-it');
    await put(`/instruments/${machine}/stand-in`, { on: { rod: 200 } });
    expect((await take(machine, { frameId: id, quantity: 'swingWeight' })).body.code).toBe('nothing-on-it');
    expect((await take(scale, { frameId: id, quantity: 'swingWeight' })).body.code).toBe('not-what-it-reads');
    expect((await take(scale, { rod: 100 })).body.code).toBe('not-what-it-reads');
    expect((await put('/instruments/none/stand-in', { on: null })).status).toBe(404);
    expect((await put(`/instruments/${scale}/stand-in`, { on: { frameId: 'none' } })).status).toBe(404);
  });

  it('are corrected by their newest calibration, which each reading remembers', async () => {
    const id = await addFrame();
    const machine = await add('machine');
    const k = key();
    const first = await post(`/instruments/${machine}/calibrations`, { key: k, rods: rods(1.02) });
    const again = await post(`/instruments/${machine}/calibrations`, { key: k, rods: rods(1.02) });
    expect(again.body.id).toBe(first.body.id);
    expect(first.body.slope).toBeCloseTo(1.02, 9);
    await put(`/instruments/${machine}/stand-in`, { on: { frameId: id } });
    await take(machine, { frameId: id, quantity: 'swingWeight' });
    await idle(machine);
    const [reading] = (await capture(id)).readings;
    expect(reading?.calibrationId).toBe(first.body.id);
    expect(reading?.value).toBeCloseTo((reading?.raw ?? 0) / 1.02, 6);
    expect((await view(machine)).calibrationState).toBe('fresh');
    await put('/shop', { name: 'Plumb & Loop', town: 'Brackenmouth', calibrationHours: 24 });
    time += 25 * 3_600_000;
    expect((await view(machine)).calibrationState).toBe('stale');
  });

  it('measure nothing once a calibration refused them; their history stays', async () => {
    const id = await addFrame();
    const machine = await add('machine');
    expect((await view(machine)).calibrationState).toBe('never');
    const off = await post(`/instruments/${machine}/calibrations`, { key: key(), rods: rods(1, 6) });
    expect(off.body.refused).toBe('rod-off');
    const slope = await post(`/instruments/${machine}/calibrations`, { key: key(), rods: rods(1.05) });
    expect(slope.body.refused).toBe('slope-off');
    await put(`/instruments/${machine}/stand-in`, { on: { frameId: id } });
    const refused = await take(machine, { frameId: id, quantity: 'swingWeight' });
    expect([refused.status, refused.body.code]).toEqual([409, 'calibration-refused']);
    await put(`/instruments/${machine}/stand-in`, { on: { rod: 100 } });
    expect((await take(machine, { rod: 100 })).status).toBe(200);
    await idle(machine);
    expect((await get(`/instruments/${machine}/calibrations`)).body).toHaveLength(2);
    const scale = await add('scale');
    const wrong = await post(`/instruments/${scale}/calibrations`, { key: key(), rods: rods(1) });
    expect(wrong.body.code).toBe('not-a-machine');
  });

  it('obey the calibration that arrived last, also where the clock was set back between two', async () => {
    const id = await addFrame();
    const machine = await add('machine');
    await post(`/instruments/${machine}/calibrations`, { key: key(), rods: rods(1) });
    time -= 3 * 3_600_000;
    const later = await post(`/instruments/${machine}/calibrations`, { key: key(), rods: rods(1.05) });
    expect(later.body.refused).toBe('slope-off');
    await put(`/instruments/${machine}/stand-in`, { on: { frameId: id } });
    expect((await take(machine, { frameId: id, quantity: 'swingWeight' })).body.code).toBe(
      'calibration-refused',
    );
    time += 3 * 3_600_000;
    const { body } = await get(`/instruments/${machine}/calibrations`);
    expect(body.map((c: { id: string }) => c.id)[0]).toBe(later.body.id);
  });

  it('tell a page whose stream broke what it missed, by the number it heard last, and a new page nothing old', async () => {
    const id = await addFrame();
    const scale = await add('scale');
    await put(`/instruments/${scale}/stand-in`, { on: { frameId: id } });
    const k = key();
    await take(scale, { frameId: id, quantity: 'massG' }, k);
    await idle(scale);
    const heard = async (
      headers: Record<string, string>,
      enough: (text: string) => boolean,
    ): Promise<string> => {
      const stop = new AbortController();
      const response = await fetch(`${server.base}/instruments/stream`, { signal: stop.signal, headers });
      expect(response.headers.get('content-type')).toContain('text/event-stream');
      const reader = response.body?.getReader();
      let text = '';
      while (!enough(text)) text += new TextDecoder().decode((await reader?.read())?.value);
      stop.abort();
      return text;
    };
    const late = await heard({ 'Last-Event-ID': '0' }, (text) => text.includes(k));
    const [first] = late.split('\n\n');
    expect(JSON.parse(first?.replace('data: ', '') ?? '').kind).toBe('instruments');
    const number = /id: (\S+)\n/.exec(late.slice(late.lastIndexOf('id: ')))?.[1] ?? '';
    expect(number).toMatch(/\.\d+$/);
    // Heard up to there, nothing is said again; and what happened before a page opened is not its own.
    const shown = (text: string): boolean => text.includes('"sample"');
    expect(await heard({ 'Last-Event-ID': number }, shown)).not.toContain('"taken"');
    expect(await heard({}, shown)).not.toContain('"taken"');
  });
});

it('a typed swing weight is moved from the axis that it was read about to the sport’s own', async () => {
  const frame = await addFrame({ shape: { sport: 'badminton', lengthCm: 67.5 } });
  await typed(frame, 'massG', 88);
  await typed(frame, 'balanceCm', 29.5);
  const said = { means: 'typed', key: key(), quantity: 'swingWeight', value: 125, axisCm: 0 };
  expect((await post(`/frames/${frame}/readings`, said)).status).toBe(200);
  const { id } = await capture(frame);
  const { body } = await store(frame, id);
  // Parallel axes (handbook): S(a) = S(0) + M ((B − a)² − B²).
  const byHand = 125 + (88 * ((29.5 - 10.16) ** 2 - 29.5 ** 2)) / 1000;
  expect(body.specs.swingWeight).toBeCloseTo(byHand, 9);
});

describe('a list of frames', () => {
  it('is of exactly one tag, however it is written, or of some frames', async () => {
    const [one, other] = [await addFrame({ tag: 'Tag-1' }), await addFrame({ tag: 'Tag-10' })];
    const ids = async (query: string) =>
      (await get(`/frames?${query}`)).body.rows.map(({ id }: { id: string }) => id);
    expect(await ids('search=tag-1')).toEqual(expect.arrayContaining([one, other]));
    expect(await ids('tag=tag-1')).toEqual([one]);
    expect(await ids('tag=tag')).toEqual([]);
    expect((await ids(`ids=${one},${other}`)).toSorted()).toEqual([one, other].toSorted());
  });
});
