import { afterEach, describe, expect, it } from 'vitest';
import { SerialPort, SerialPortMock } from 'serialport';
import { proposePattern, readLine, type LinePattern } from '@kevro/core';
import {
  newInstrument,
  sentence,
  serialPort,
  type ErrorCode,
  type Instrument,
  type SerialLink,
} from '@kevro/contract';
import { onBench } from '../test-capture';
import { paths } from '../test-server';
import { Lost } from './driver';
import { sentAs, type Ports } from './ports';
import { SerialDevice } from './serial';
import { Terminal } from './test-terminal';

const SHEET = {
  repeatability: 0.1,
  accuracy: 0.15,
  resolution: 0.1,
  driftPerHour: 0.01,
  warmUpMinutes: 0,
  axisCm: null,
};
const patternOf = (...lines: string[]): LinePattern => {
  const found = proposePattern(lines, 'mass', 200);
  if (!('pattern' in found)) throw new Error(found.why);
  return found.pattern;
};
const PRINTS = patternOf('ST,GS,+  200.0 g');
const line = (grams: number, status = 'ST', net = 'GS'): string =>
  `${status},${net},+${grams.toFixed(1).padStart(7)} g\r\n`;

const { server, another, key, addFrame, capture } = onBench(() => Date.parse('2026-11-23T09:00:00.000Z'));
const { get, post, put } = server;
const open: Terminal[] = [];
const terminal = async (): Promise<Terminal> => {
  const one = await new Terminal().plug();
  open.push(one);
  return one;
};
const until = async (what: () => Promise<unknown>): Promise<void> => {
  for (let i = 0; i < 500 && !(await what()); i++) await new Promise((again) => setTimeout(again, 20));
  expect(await what()).toBeTruthy();
};
const view = async (id: string): Promise<Instrument> =>
  (await get('/instruments')).body.find((one: Instrument) => one.id === id);
const said = (id: string, code: ErrorCode) => until(async () => (await view(id)).trouble === sentence(code));
const ready = (id: string) => until(async () => (await view(id)).state === 'ready');
const link = (path: string, more: Partial<SerialLink> = {}) => ({ path, pattern: PRINTS, ...more });
const scale = async (of: Partial<SerialLink> & { path: string }): Promise<string> => {
  const name = `scale ${another()}`;
  const made = await post('/instruments', {
    name,
    kind: 'scale',
    driver: 'serial',
    sheet: SHEET,
    link: link(of.path, of),
  });
  expect(made.body.errors).toBeUndefined();
  return made.body.id;
};
const take = async (id: string, frameId: string): Promise<void> => {
  const taken = await post(`/instruments/${id}/read`, { key: key(), asked: { frameId, quantity: 'massG' } });
  expect(taken.status).toBe(200);
};
const readings = async (frameId: string): Promise<(number | undefined)[]> =>
  (await capture(frameId)).readings.map(({ value }) => value);
afterEach(async () => {
  for (const { id } of (await get('/instruments')).body as Instrument[])
    await put(`/instruments/${id}/retired`, { retired: true });
  for (const one of open.splice(0)) await one.close();
});

describe('a scale at a pseudo terminal', () => {
  it('that sends all the time is read where it rests, and its display is seen', async () => {
    const at = await terminal();
    const id = await scale({ path: at.path });
    await ready(id);
    const frameId = await addFrame();
    let grams = 0;
    at.keepSaying(() => line(grams, 'ST', 'NT'));
    const seen: unknown[] = [];
    const stop = await server.hub.subscribe(({ message }) => {
      if (message.kind === 'sample') seen.push([message.value, message.steady, message.tared]);
    });
    await take(id, frameId);
    // Nothing lies on it yet: it rests at nothing, which is no frame.
    await until(() => Promise.resolve(seen.some((one) => String(one) === '0,true,true')));
    expect(await readings(frameId)).toEqual([]);
    at.stopSaying();
    at.say(line(143.2, 'US'));
    at.say(line(301.9, 'US'));
    grams = 312.4;
    at.keepSaying(() => line(grams));
    await until(async () => (await readings(frameId)).length === 1);
    expect(await readings(frameId)).toEqual([312.4]);
    expect((await capture(frameId)).readings[0]).toMatchObject({ means: 'instrument', instrumentId: id });
    stop();
  });

  it('that answers is asked, and said not to answer where it does not', async () => {
    const at = await terminal();
    const id = await scale({ path: at.path, output: 'request', ask: 'W\\r' });
    await ready(id);
    await said(id, 'no-answer');
    at.onAsked((asked) => (asked === 'W\r' ? line(327.4) : 'ES\r\n'));
    const frameId = await addFrame();
    await take(id, frameId);
    await until(async () => (await readings(frameId)).length === 1);
    expect(await readings(frameId)).toEqual([327.4]);
    expect((await view(id)).trouble).toBe('');
  });

  it('that prints when its key is pressed is read by one line', async () => {
    const at = await terminal();
    const id = await scale({ path: at.path, output: 'key' });
    await ready(id);
    const frameId = await addFrame();
    // What was printed before anybody asked is no answer.
    at.say(line(99.9));
    await new Promise((later) => setTimeout(later, 100));
    await take(id, frameId);
    at.say(line(310.1));
    await until(async () => (await readings(frameId)).length === 1);
    expect(await readings(frameId)).toEqual([310.1]);
  });

  it('keeps what was read when it is unplugged, and goes on when it is back', async () => {
    const at = await terminal();
    const id = await scale({ path: at.path });
    await ready(id);
    const frameId = await addFrame();
    at.keepSaying(() => line(312.4));
    await take(id, frameId);
    await until(async () => (await readings(frameId)).length === 1);
    at.stopSaying();
    at.keepSaying(() => line(100, 'US'));
    await take(id, frameId);
    await at.unplug();
    await said(id, 'port-missing');
    expect(await view(id)).toMatchObject({ state: 'lost', reading: { asked: { frameId } } });
    expect(await readings(frameId)).toEqual([312.4]);
    await at.plug();
    at.keepSaying(() => line(312.6));
    await until(async () => (await readings(frameId)).length === 2);
    expect(await readings(frameId)).toEqual([312.4, 312.6]);
    expect((await view(id)).trouble).toBe('');
  });

  it('says what is wrong with what it sends, and takes no number of it', async () => {
    const at = await terminal();
    const id = await scale({ path: at.path });
    await ready(id);
    const frameId = await addFrame();
    await new Promise((later) => setTimeout(later, 500));
    await take(id, frameId);
    at.keepSaying(() => 'OL\r\n');
    await said(id, 'over-load');
    at.stopSaying();
    at.keepSaying(() => 'UL\r\n');
    await said(id, 'under-load');
    at.stopSaying();
    at.keepSaying(() => 'PCS 12 312.4 g\r\n');
    await said(id, 'line-unread');
    at.stopSaying();
    await new Promise((later) => setTimeout(later, 1200));
    at.say('ST,GS,+  31');
    await new Promise((later) => setTimeout(later, 1200));
    at.say('2.4 g\r\nST,GS');
    await said(id, 'half-lines');
    at.say('x'.repeat(2000));
    await said(id, 'port-floods');
    expect(await readings(frameId)).toEqual([]);
    await post(`/instruments/${id}/cancel`, {});
  });

  it('says that another program holds the port, and comes by itself when that lets it go', async () => {
    const at = await terminal();
    const other = new SerialPort({ path: at.path, baudRate: 9600, autoOpen: false });
    await new Promise<void>((done, fail) => other.open((error) => (error ? fail(error) : done())));
    const id = await scale({ path: at.path });
    await said(id, 'port-held');
    await new Promise<void>((done) => other.close(() => done()));
    await ready(id);
  });

  it('is set up by showing what it sends', async () => {
    const at = await terminal();
    const port = { path: at.path };
    const hear = async () => (await post('/instruments/ports/heard', port)).body;
    await hear();
    at.keepSaying(() => line(200.1));
    await until(async () => (await hear()).lines.length >= 5);
    const { lines, ends } = await hear();
    const found = proposePattern(lines, 'mass', 200);
    if (!('pattern' in found)) throw new Error(found.why);
    expect(readLine(found.pattern, 'mass', lines.at(-1))).toMatchObject({ value: 200.1, steady: true });
    const id = await scale({ ...serialPort.parse(port), ends, pattern: found.pattern });
    await ready(id);
    // It is looked at once more: it rests meanwhile, whoever asks for a reading waits, and it comes back by itself.
    const frameId = await addFrame();
    await hear();
    expect((await view(id)).state).toBe('lost');
    await take(id, frameId);
    expect((await view(id)).reading).toMatchObject({ asked: { frameId } });
    await until(async () => (await hear()).lines.length >= 2);
    expect((await put(`/instruments/${id}`, { ...(await stored(id)), link: link(at.path) })).status).toBe(
      200,
    );
    await ready(id);
  });

  it('with marks in the place of line ends is heard too', async () => {
    const at = await terminal();
    const hear = async () => (await post('/instruments/ports/heard', { path: at.path })).body;
    await hear();
    at.keepSaying(() => '=200.1', 80);
    await until(async () => (await hear()).ends === '=' && (await hear()).lines.length >= 3);
    expect(new Set((await hear()).lines)).toEqual(new Set(['200.1']));
  });
});
const stored = async (id: string) => {
  const { name, kind, driver, sheet, note } = await view(id);
  return { name, kind, driver, sheet, note };
};

describe('what may be a port', () => {
  it('is a device of the machine and nothing else', async () => {
    const refused = await post('/instruments/ports/heard', { path: '/etc/hostname' });
    expect([refused.status, refused.body.code, paths(refused)]).toEqual([422, 'not-a-port', ['path']]);
    const id = await scale({ path: '/etc/hostname' });
    await said(id, 'not-a-port');
    const missing = await scale({ path: '/dev/ttyNone' });
    await said(missing, 'port-missing');
  });
  it('belongs to a device at a port, and to no stand-in', async () => {
    const body = { name: 'none', kind: 'scale', sheet: SHEET };
    const none = await post('/instruments', { ...body, driver: 'serial' });
    expect([none.status, paths(none)]).toEqual([422, ['link']]);
    expect(paths(await post('/instruments', { ...body, link: link('/dev/ttyS9') }))).toEqual(['link']);
    const wrong = link('/dev/ttyS9', { speed: 9601 as 9600 });
    expect(paths(await post('/instruments', { ...body, driver: 'serial', link: wrong }))).toEqual([
      'link.speed',
    ]);
    expect(newInstrument.safeParse({ ...body, driver: 'serial', link: link('/dev/ttyS9') }).success).toBe(
      true,
    );
  });
  it('is listed with whose it is', async () => {
    expect((await get('/instruments/ports')).status).toBe(200);
  });
});

it('sends what is asked as it is written in a form', () => {
  expect(sentAs('W\\r\\n')).toBe('W\r\n');
  expect(sentAs('\\x05')).toBe('\x05');
  expect(sentAs('a\\\\r')).toBe('a\\r');
});

describe('a device at the package’s own mock', () => {
  const { binding } = SerialPortMock;
  const mock: Ports = {
    list: () => binding.list(),
    make: (settings) => new SerialPortMock(settings as ConstructorParameters<typeof SerialPortMock>[0]),
    isPort: () => Promise.resolve(true),
    mark: () => Promise.resolve('mock'),
  };
  afterEach(() => binding.reset());

  it('is found again under another name by what it says of itself', async () => {
    const self = { vendorId: '1a2b', productId: '3c4d' };
    binding.createPort('/dev/mock-b', { ...self, readyData: Buffer.from('') });
    const [{ serialNumber = '' } = {}] = await binding.list();
    const usb = { vendor: '1a2b', product: '3c4d', serial: serialNumber };
    const told: string[] = [];
    const device = new SerialDevice(
      'scale',
      SHEET,
      { ...serialPort.parse({ path: '/dev/mock-a', usb }), ends: '', pattern: PRINTS },
      mock,
    );
    device.open({ state: (state) => told.push(state), sample: () => undefined, trouble: () => undefined });
    await until(() => Promise.resolve(told.includes('ready')));
    expect(device.path).toBe('/dev/mock-b');
    await device.close();
  });

  it('gives a reading up where it is told to, and where the device goes', async () => {
    binding.createPort('/dev/mock-a');
    const device = new SerialDevice(
      'scale',
      SHEET,
      { ...serialPort.parse({ path: '/dev/mock-a' }), ends: '', pattern: PRINTS },
      mock,
    );
    await expect(device.read({ quantity: 'massG' }, new AbortController().signal)).rejects.toThrow(Lost);
    const told: string[] = [];
    device.open({ state: (state) => told.push(state), sample: () => undefined, trouble: () => undefined });
    await until(() => Promise.resolve(told.includes('ready')));
    const stop = new AbortController();
    const stopped = device.read({ quantity: 'massG' }, stop.signal);
    stop.abort(new Error('stopped'));
    await expect(stopped).rejects.toThrow('stopped');
    const lost = device.read({ quantity: 'massG' }, new AbortController().signal);
    const closing = device.close();
    await expect(lost).rejects.toThrow(Lost);
    await closing;
  });
});
