import { gzipSync } from 'node:zlib';
import fc from 'fast-check';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { ALL_SPORTS, bringTo, nearest, sportData, type Dress, type Sport } from '@kevro/core';
import {
  EXPORTED,
  HEADERS,
  columnsOf,
  mappingOf,
  readSetupCells,
  setupFile,
  setupMapping,
  type Setup,
  type SetupImport,
} from '@kevro/contract';
import { startTestServer, type TestServer } from './test-server';

let server: TestServer;
beforeAll(async () => {
  server = await startTestServer();
});
afterAll(() => server.close());

const call: TestServer['call'] = (...all) => server.call(...all);
async function send(
  text: string | Uint8Array,
  query: Record<string, string> = {},
  headers: Record<string, string> = { 'content-type': 'text/csv' },
) {
  const response = await fetch(`${server.base}/setups/import?${new URLSearchParams(query).toString()}`, {
    method: 'POST',
    headers,
    body: text as BodyInit,
  });
  return {
    status: response.status,
    body: (await response.json()) as SetupImport & { code?: string; detail?: string },
  };
}
const count = async (query = ''): Promise<number> => (await call('GET', `/setups?${query}`)).body.total;
const store = (text: string | Uint8Array, more: Record<string, string> = {}) =>
  send(text, { mode: 'store', ...more });

async function measuredFrame(
  sport: Sport,
  dress: Dress,
  axisCm?: number,
): Promise<{ id: string; specs: Setup['specs'] }> {
  const { usual, lengthCm, axisCm: usualAxis } = sportData(sport);
  const frame = (
    await call('POST', '/frames', {
      tag: `T ${Math.random()}`,
      maker: 'Oskerra',
      model: 'Tide',
      shape: { sport, lengthCm },
    })
  ).body;
  const specs = { ...usual, axisCm: axisCm ?? usualAxis };
  const taken = await call('POST', `/frames/${frame.id}/measurements`, {
    key: `k ${Math.random()}`,
    dress,
    specs,
  });
  expect(taken.status).toBe(200);
  return { id: taken.body.id, specs };
}

describe('the nearest setups by one query', () => {
  const dresses: Dress[] = [
    {},
    { strings: true },
    { strings: { massG: 15.2 }, baseGrip: 'leather', overgrips: 2 },
  ];
  /** Setups of every kind: other shapes, dresses and axes, and values missing. */
  const setups = fc.sample(
    fc.record({
      sport: fc.constantFrom(...ALL_SPORTS),
      length: fc.constantFrom(0, -1.3, 1.27),
      dress: fc.constantFrom(...dresses),
      axis: fc.constantFrom(undefined, 9, 10.16),
      mass: fc.option(fc.double({ min: 0.85, max: 1.15, noNaN: true })),
      balance: fc.option(fc.double({ min: 0.92, max: 1.06, noNaN: true })),
      swing: fc.double({ min: 0.9, max: 1.2, noNaN: true }),
      twist: fc.option(fc.double({ min: 0.8, max: 1.2, noNaN: true })),
    }),
    { numRuns: 120, seed: 7 },
  );

  it('come in the order, and at the distance, that the core works out, whatever their dress, shape and axis', async () => {
    for (const [i, s] of setups.entries()) {
      const { usual, lengthCm } = sportData(s.sport);
      const part = (share: number | null, of: number): number | undefined =>
        share === null ? undefined : share * of;
      const specs = {
        massG: part(s.mass, usual.massG),
        balanceCm: part(s.balance, usual.balanceCm),
        swingWeight: s.swing * usual.swingWeight,
        twistWeight: part(s.twist, usual.twistWeight),
        axisCm: s.axis,
      };
      const added = await call('POST', '/setups', {
        name: `S ${i}`,
        sourceKind: 'published',
        shape: { sport: s.sport, lengthCm: lengthCm + s.length },
        dress: s.dress,
        specs: JSON.parse(JSON.stringify(specs)),
      });
      // A swing weight that cannot go with the rest is refused as in every form.
      expect([200, 422]).toContain(added.status);
    }
    for (const sport of ALL_SPORTS) {
      const all = (await call('GET', `/setups?sport=${sport}&limit=500`)).body.rows as Setup[];
      expect(all.length).toBeGreaterThan(10);
      for (const [dress, axis] of [
        [{}, undefined],
        [{ strings: true, overgrips: 1 }, 9.4],
      ] as const) {
        const own = await measuredFrame(sport, dress, axis);
        const byCore = nearest(
          own.specs,
          all.map((setup) => ({ id: setup.id, specs: bringTo(setup, dress, own.specs.axisCm ?? 0).specs })),
          sportData(sport),
        );
        const near = (await call('GET', `/measurements/${own.id}/setups?limit=500`)).body;
        expect(near.total).toBe(all.length);
        const distances = near.rows.map((r: { distanceSteps: number }) => r.distanceSteps);
        byCore.forEach(({ distanceSteps }, i) => expect(distances[i]).toBeCloseTo(distanceSteps, 9));
        const { ids } = (await call('GET', `/measurements/${own.id}/setup-ids`)).body;
        expect(ids.toSorted()).toEqual(
          near.rows.map((r: { setup: { id: string } }) => r.setup.id).toSorted(),
        );
        const columns = (await call('GET', `/measurements/${own.id}/brought-setups`)).body;
        byCore.forEach(({ id, specs }) => {
          const at = columns.ids.indexOf(id);
          for (const key of ['massG', 'balanceCm', 'swingWeight', 'twistWeight'] as const) {
            if (specs[key] === undefined) expect(columns[key][at]).toBeNull();
            else expect(columns[key][at]).toBeCloseTo(specs[key], 8);
          }
        });
      }
    }
  });

  it('come part by part, each once', async () => {
    const own = await measuredFrame('tennis', {});
    const page = (offset: number) => call('GET', `/measurements/${own.id}/setups?limit=7&offset=${offset}`);
    const whole = (await call('GET', `/measurements/${own.id}/setups?limit=500`)).body.rows;
    const parts = [...(await page(0)).body.rows, ...(await page(7)).body.rows];
    expect(parts.map((r: { setup: Setup }) => r.setup.id)).toEqual(
      whole.slice(0, parts.length).map((r: { setup: Setup }) => r.setup.id),
    );
    const first = (await call('GET', `/measurements/${own.id}/brought-setups?limit=10`)).body;
    const second = (await call('GET', `/measurements/${own.id}/brought-setups?limit=10&after=${first.next}`))
      .body;
    expect(first.ids.length).toBe(10);
    expect(first.ids).not.toEqual(expect.arrayContaining([second.ids[0]]));
  });
});

describe('the library is asked', () => {
  it('by ranges, kind and style, in either order, with how many there are', async () => {
    await store(
      [
        'name;sport;weight (g);swing weight;kind;style',
        'Ranged A;padel;361,5;157;measured;net',
        'Ranged B;padel;372;163;hearsay;net and back',
        'Ranged C;padel;;166;published;back',
      ].join('\n'),
    );
    const names = async (query: string): Promise<string[]> =>
      (await call('GET', `/setups?search=ranged&${query}`)).body.rows.map((r: Setup) => r.name);
    expect(await names('sort=weight')).toEqual(['Ranged A', 'Ranged B', 'Ranged C']);
    expect(await names('sort=weight&down=yes')).toEqual(['Ranged B', 'Ranged A', 'Ranged C']);
    expect(await names('minWeight=370')).toEqual(['Ranged B']);
    expect(await names('maxSwing=163&style=NET')).toEqual(['Ranged A', 'Ranged B']);
    expect(await names('kind=hearsay')).toEqual(['Ranged B']);
    const bad = await call('GET', '/setups?minWeight=heavy');
    expect(bad.status).toBe(422);
  });

  it('by words, in the order of the list and counted in full, whether few are found or very many', async () => {
    const numbers = Array.from({ length: 1200 }, (_, i) => i);
    const scattered = numbers.toSorted((a, b) => ((a * 7919) % 1200) - ((b * 7919) % 1200));
    const named = (i: number): string => `Crowd ${String(i).padStart(4, '0')}`;
    await store(
      ['name;sport;weight (g)', ...scattered.map((i) => `${named(i)};badminton;${80 + (i % 15)}`)].join('\n'),
    );
    const asked = async (query: string) => {
      const { body } = await call('GET', `/setups?limit=100&${query}`);
      return { names: body.rows.map((r: Setup) => r.name), total: body.total };
    };
    const many = numbers.map(named);
    expect(await asked('search=crowd')).toEqual({ names: many.slice(0, 100), total: 1200 });
    expect(await asked('search=crowd&offset=1150')).toEqual({ names: many.slice(1150), total: 1200 });
    // Of three words each has to be there, in whatever order.
    const few = many.filter((name) => name.includes('11') && name.includes('7'));
    expect(await asked('search=11 CROWD 7&offset=5')).toEqual({ names: few.slice(5), total: few.length });
    expect(await asked('search=crowd nobody')).toEqual({ names: [], total: 0 });
  });

  it('by the longest texts that may be told', async () => {
    const long = '\u6c34'.repeat(80);
    const { status } = await call('POST', '/setups', {
      name: long,
      frameName: long,
      paint: long,
      source: '\u6c34'.repeat(200),
      style: long,
      sourceKind: 'measured',
      shape: { sport: 'padel', lengthCm: 45.5 },
      dress: {},
      specs: { massG: 365 },
    });
    expect(status).toBe(200);
    expect((await call('GET', `/setups?search=${encodeURIComponent(long)}`)).body.total).toBe(1);
  });
});

const LIST = `name;sport;weight (oz);balance (points head-light);swing weight;strings on;source
Bram Lote;tennis;11,9;6;331;yes;club paper
Ilva Senn;tennis;11,5;4,5;320;no;told
`;

describe('a list of setups is read in', () => {
  it('whatever its separator, decimal mark, encoding and order of columns', async () => {
    const rows = (separator: string, comma: string, swap: boolean): string =>
      LIST.split('\n')
        .map((line) => {
          const cells = line.split(';');
          const ordered = swap ? cells.toReversed() : cells;
          return ordered.map((cell) => cell.replace(/(\d),(\d)/, `$1${comma}$2`)).join(separator);
        })
        .join('\n');
    const inUtf16 = (text: string): Uint8Array => Buffer.from(`\ufeff${text}`, 'utf16le');
    const inLatin = (text: string): Uint8Array => Buffer.from(text.replace('Ilva', 'Ílva'), 'latin1');
    const files = [
      rows(';', ',', false),
      rows(',', '.', true),
      rows('\t', ',', false),
      inUtf16(rows(';', ',', true)),
      inLatin(rows(';', ',', false)),
    ];
    for (const file of files) {
      const { body } = await send(file);
      expect(body).toMatchObject({ rows: 2, stored: 0, skipped: 0, problems: [] });
      expect(body.mapping?.columns).toMatchObject({
        'weight (oz)': { field: 'massG', unit: 'oz' },
        'balance (points head-light)': { field: 'balanceCm', unit: 'points head-light' },
      });
    }
    await store(inLatin(rows(';', ',', false)));
    const [found] = (await call('GET', `/setups?search=${encodeURIComponent('ílva')}`)).body.rows as Setup[];
    // 1 oz is 28.349523125 g; a point is an eighth of an inch from the middle (NIST SP 811; common practice).
    expect(found?.specs.massG).toBeCloseTo(11.5 * 28.349523125, 9);
    expect(found?.specs.balanceCm).toBeCloseTo(34.29 - 4.5 * 0.3175, 9);
    expect(found?.asReported).toEqual({ massG: '11,5 oz', balanceCm: '4,5 points head-light' });
    expect(found?.dress).toEqual({});
  });

  it('the same file twice adds nothing, nor does a row that stands in it twice', async () => {
    const text = 'name,weight (g),swing weight\nTwo Times,321,311\nTwo Times,321,311\nOnce Only,322,311\n';
    expect((await store(text)).body).toMatchObject({ rows: 3, stored: 2, already: 1 });
    expect((await store(text)).body).toMatchObject({ rows: 3, stored: 0, already: 3 });
    expect(await count('search=two+times')).toBe(1);
  });

  it('all or nothing where a row is wrong: each is named with its line, column and reason; skipped, the rest is stored', async () => {
    const text = [
      'name,weight (g),balance (cm),swing weight,year,date',
      'Row One,321,32.1,311,2024,2024-05-01',
      'Row Two,2024-05-01,32.1,311,2024,',
      '"Row',
      'Three",321,93,311,,',
      'Row Four,NaN,32,311,,',
      'Row Five,321,32,311,soon,',
      ',321,32,311,,',
      'Row Seven,3,2,1,32,311,1',
      '',
      'Row Eight,321,32,40,,',
    ].join('\n');
    const before = await count();
    const refused = await store(text);
    expect(refused.body).toMatchObject({ rows: 8, stored: 0, skipped: 7, already: 0 });
    expect(refused.body.problems.map(({ line, column, code }) => [line, column, code])).toEqual([
      [3, 'weight (g)', 'not-a-number'],
      [4, 'balance (cm)', 'balance-off-frame'],
      [6, 'weight (g)', 'not-a-number'],
      [7, 'year', 'not-a-number'],
      [8, 'name', 'missing'],
      [9, undefined, 'too-many-cells'],
      [11, 'swing weight', 'swing-weight-impossible'],
    ]);
    for (const { message } of refused.body.problems) expect(message).toMatch(/^[A-Z].*\.$/);
    expect(await count()).toBe(before);
    expect((await store(text, { skipBad: 'true' })).body).toMatchObject({ stored: 1, skipped: 7 });
    expect(await count()).toBe(before + 1);
  });

  it('by what is said of its columns; a unit that is not clear is asked for', async () => {
    const text = 'wer,gewicht,bal\nLines Own,11.5,10\n';
    const unclear = await send(text, {
      mapping: JSON.stringify({
        columns: { wer: { field: 'name' }, gewicht: { field: 'massG' }, bal: { field: 'balanceCm' } },
      }),
    });
    expect(unclear.status).toBe(422);
    expect(unclear.body.code).toBe('no-unit');
    const said = {
      columns: {
        wer: { field: 'name' },
        gewicht: { field: 'massG', unit: 'oz' },
        bal: { field: 'balanceCm', unit: 'points head-light' },
      },
      assume: { sport: 'tennis', dress: { strings: true } },
    };
    expect((await store(text, { mapping: JSON.stringify(said) })).body).toMatchObject({ stored: 1 });
    const [found] = (await call('GET', '/setups?search=lines+own')).body.rows as Setup[];
    expect(found?.dress).toEqual({ strings: true });
    expect(found?.specs.balanceCm).toBeCloseTo(34.29 - 10 * 0.3175, 9);
  });

  it('as typed lines, each with its name', async () => {
    const text =
      'line\n"Sela Orm 2025: 327 g 31.3 cm sw 299 unstrung"\n"Kito Bast 11.5oz 6HL 325 strung 1 overgrip"\nno numbers here\n';
    const { body } = await store(text, { skipBad: 'true' });
    expect(body).toMatchObject({ rows: 3, stored: 2, skipped: 1 });
    expect(body.problems[0]).toMatchObject({ line: 4, code: 'nothing-stated' });
    const [sela] = (await call('GET', '/setups?search=sela')).body.rows as Setup[];
    expect(sela).toMatchObject({
      name: 'Sela Orm',
      year: 2025,
      specs: { massG: 327, balanceCm: 31.3, swingWeight: 299 },
    });
    const [kito] = (await call('GET', '/setups?search=kito')).body.rows as Setup[];
    expect(kito).toMatchObject({ name: 'Kito Bast', dress: { strings: true, overgrips: 1 } });
  });

  it('stops where whoever asked goes away, and nothing is stored', async () => {
    const before = await count();
    const rows = Array.from({ length: 6000 }, (_, i) => `Gone ${i},3${i % 90 < 10 ? '0' : ''}${i % 90},311`);
    const stop = new AbortController();
    const sent = fetch(`${server.base}/setups/import?mode=store&key=gone`, {
      method: 'POST',
      headers: { 'content-type': 'text/csv' },
      body: `name,weight (g),swing weight\n${rows.join('\n')}`,
      signal: stop.signal,
    });
    await expect
      .poll(async () => (await call('GET', '/setups/import/gone')).body.done ?? 0, {
        timeout: 20_000,
        interval: 5,
      })
      .toBeGreaterThan(0);
    // Meanwhile others are answered, and see nothing of what is not whole.
    expect(await count('search=gone')).toBe(0);
    stop.abort();
    await expect(sent).rejects.toThrow();
    await expect
      .poll(async () => (await server.db.query('select 1 from setup_batch where not live')).length, {
        timeout: 20_000,
      })
      .toBe(0);
    expect(await count()).toBe(before);
    expect((await store('name,weight (g)\nAfter It,320\n')).body.stored).toBe(1);
  });
});

describe('hostile files', () => {
  const refused = async (
    text: string | Uint8Array,
    code: string,
    headers?: Record<string, string>,
  ): Promise<void> => {
    const before = await count();
    const { status, body } = await send(text, { mode: 'store' }, { 'content-type': 'text/csv', ...headers });
    expect(status).toBeGreaterThanOrEqual(400);
    expect(body.code).toBe(code);
    expect(body.detail).toMatch(/\.$/);
    expect(await count()).toBe(before);
  };

  it('are refused with a clear sentence, and nothing is stored', async () => {
    await refused(Array.from({ length: 1_000_000 }, (_, i) => `c${i}`).join(','), 'too-many-columns');
    await refused(gzipSync(Buffer.alloc(50_000_000)), 'compressed-file');
    await refused(gzipSync(Buffer.alloc(50_000_000)), 'compressed-file', { 'content-encoding': 'gzip' });
    await refused(Buffer.concat([Buffer.from('PK\u0003\u0004'), Buffer.alloc(3000, 7)]), 'compressed-file');
    await refused(Buffer.from([0x4d, 0, 0, 0, 0x4d, 0x4d, 0, 0x4d, 0]), 'not-a-table');
    await refused('', 'not-a-table');
    await refused('hello there\nhow are you\n', 'no-columns-known');
    await refused('{"setups": 4}', 'not-setups-file', { 'content-type': 'application/json' });
    await refused('{"setups": [', 'not-json', { 'content-type': 'application/json' });
  });

  it('a claimed 2 GB is refused before a byte of it is read', async () => {
    const { request } = await import('node:http');
    const status = await new Promise<number | undefined>((done, fail) => {
      const asked = request(`${server.base}/setups/import`, {
        method: 'POST',
        headers: { 'content-type': 'text/csv', 'content-length': String(2 * 1024 ** 3) },
      });
      asked.on('response', (response) => {
        done(response.statusCode);
        asked.destroy();
      });
      asked.on('error', fail);
      asked.write('name\n');
    });
    expect(status).toBe(413);
  });

  it('formula cells and HTML are kept as text, and defused where they go out', async () => {
    const text = `name,weight (g),source\n"=HYPERLINK(""http://x"")",321,<img src=x onerror=alert(1)>\n+cmd,322,@here\n-2+3,323,"\t=1"\n`;
    expect((await store(text)).body).toMatchObject({ stored: 3 });
    const [found] = (await call('GET', '/setups?search=hyperlink')).body.rows as Setup[];
    expect(found).toMatchObject({ name: '=HYPERLINK("http://x")', source: '<img src=x onerror=alert(1)>' });
    const csv = await (await fetch(`${server.base}/setups.csv`)).text();
    for (const [cell] of csv.matchAll(/(?<=^|,|")[=+@]/gm)) throw new Error(`a cell begins with ${cell}`);
    expect(csv).toContain(`'=HYPERLINK`);
  });

  it('any bytes at all are answered with a sentence, never with a failure of the server', async () => {
    await fc.assert(
      fc.asyncProperty(
        fc.oneof(fc.uint8Array({ maxLength: 400 }), fc.string({ maxLength: 400 })),
        async (file) => {
          const { status, body } = await send(file);
          expect([200, 422]).toContain(status);
          if (status !== 200) expect(body.detail).toMatch(/\.$/);
        },
      ),
      { numRuns: 60 },
    );
  });
});

describe('what goes out comes in again', () => {
  it('as CSV and as JSON without loss: read anew it changes nothing, and into an empty library it gives the same', async () => {
    await call('POST', '/setups', {
      name: 'Óla "Quote"; Semi',
      frameName: 'Velmond Arc\n100',
      paint: 'as sold',
      sourceKind: 'hearsay',
      source: 'a, b',
      link: 'example.invalid/page',
      year: 2023,
      reportedOn: '2023-04-05',
      confidence: 'low',
      style: 'all court',
      shape: { sport: 'pickleball', lengthCm: 41.91, shape: 'elongated', handleLengthCm: 13.97 },
      dress: { baseGrip: 'leather', overgrips: 2 },
      specs: { massG: 228.123456789, balanceCm: 24.1, twistWeight: 6.25, stiffness: 60.5, axisCm: 5.08 },
      asReported: { massG: '8.05 oz' },
      facts: { beam: '14', leftRightG: -0.4 },
      strings: {},
    });
    const total = await count();
    const rated = await server.call('GET', '/setups?minStiffness=60&maxStiffness=61&sort=stiffness');
    expect(rated.body).toMatchObject({ total: 1, rows: [{ specs: { stiffness: 60.5 } }] });
    const csv = await (await fetch(`${server.base}/setups.csv`)).text();
    const json = await (await fetch(`${server.base}/setups.json`)).text();
    expect(setupFile.parse(JSON.parse(json)).setups).toHaveLength(total);
    expect((await store(csv)).body).toMatchObject({ rows: total, stored: 0, already: total, problems: [] });
    const again = await send(json, { mode: 'store' }, { 'content-type': 'application/json' });
    expect(again.body).toMatchObject({ rows: total, stored: 0, already: total, problems: [] });

    const empty = await startTestServer();
    try {
      const sent = await fetch(`${empty.base}/setups/import?mode=store`, {
        method: 'POST',
        headers: { 'content-type': 'text/csv' },
        body: csv,
      });
      expect(await sent.json()).toMatchObject({ stored: total });
      const sorted = (text: string): string[] =>
        (JSON.parse(text) as { setups: unknown[] }).setups.map((s) => JSON.stringify(s)).toSorted();
      const there = await (await fetch(`${empty.base}/setups.json`)).text();
      const plain = (text: string): string[] =>
        sorted(text).map((s) => JSON.stringify(Object.entries(JSON.parse(s) as object).toSorted()));
      expect(plain(there)).toHaveLength(total);
    } finally {
      await empty.close();
    }
  });

  it('a file holds what the query finds, and no more', async () => {
    const json = await (await fetch(`${server.base}/setups.json?sport=padel&minWeight=370`)).text();
    expect(
      setupFile
        .parse(JSON.parse(json))
        .setups.map(({ name }) => name)
        .toSorted(),
    ).toEqual(
      (await call('GET', '/setups?sport=padel&minWeight=370')).body.rows
        .map(({ name }: Setup) => name)
        .toSorted(),
    );
  });

  it('gives swing weights the axis that their source was said to have, in a sport that quotes more than one', () => {
    const headers = ['Name', 'Sport', 'Swing weight', 'Axis, cm'];
    const read = (sport: string, axis: string) => {
      const mapping = mappingOf(headers, [], setupMapping.parse({ assume: { axisCm: 0 } }));
      const found = readSetupCells(['A', sport, '92', axis], columnsOf(headers, mapping), mapping.assume);
      return found && 'setup' in found ? found.setup.specs.axisCm : undefined;
    };
    expect(read('badminton', '')).toBe(0);
    expect(read('badminton', '9.5')).toBe(9.5);
    expect(read('tennis', '')).toBeUndefined();
  });

  it('its columns are read back as what they are', () => {
    const headers = EXPORTED.map((field) => HEADERS[field]);
    const mapping = mappingOf(headers, [], setupMapping.parse({}));
    expect(columnsOf(headers, mapping).map(({ field }) => field)).toEqual(EXPORTED);
  });
});

describe('several reports of one frame', () => {
  const report = (massG: number, confidence: string, dress: Dress = {}) =>
    call('POST', '/setups', {
      name: 'Tarn Whitlow',
      sourceKind: 'published',
      confidence,
      shape: { sport: 'tennis', lengthCm: 68.58 },
      dress,
      specs: { massG, swingWeight: 322 },
      source: `${massG}`,
    });

  it('stand side by side; one, or their average, is chosen and offered, and all of them again', async () => {
    const own = await measuredFrame('tennis', {});
    const offered = async (): Promise<string[]> =>
      (await call('GET', `/measurements/${own.id}/setups?search=whitlow`)).body.rows.map(
        (r: { setup: Setup }) => r.setup.source,
      );
    const sure = (await report(330, 'high')).body;
    await report(342, 'low');
    const page = (await call('GET', `/setups/${sure.id}`)).body;
    expect(page.reports).toHaveLength(2);
    expect(await offered()).toHaveLength(2);

    await call('PUT', `/setups/${sure.id}/reports`, { use: 'one' });
    expect(await offered()).toEqual(['330']);
    const average = (await call('PUT', `/setups/${sure.id}/reports`, { use: 'average' })).body;
    // By confidence: 1 for high, 0.2 for low.
    expect(average.setup.specs.massG).toBeCloseTo((330 + 0.2 * 342) / 1.2, 9);
    expect(await offered()).toEqual([expect.stringMatching(/^average of 2 reports/)]);
    // Made again it is the average of the reports, not of itself.
    await report(336, 'high');
    const again = (await call('PUT', `/setups/${sure.id}/reports`, { use: 'average' })).body;
    expect(again.reports).toHaveLength(4);
    expect(again.setup.specs.massG).toBeCloseTo((330 + 336 + 0.2 * 342) / 2.2, 9);
    await call('PUT', `/setups/${sure.id}/reports`, { use: 'all' });
    expect(await offered()).toHaveLength(4);
    // What somebody told of an average is a report like any other.
    const told = {
      name: 'Iva Stroud',
      sourceKind: 'hearsay',
      shape: { sport: 'tennis', lengthCm: 68.58 },
      dress: {},
    };
    const one = (
      await call('POST', '/setups', { ...told, source: 'average of a club', specs: { massG: 320 } })
    ).body;
    await call('POST', '/setups', { ...told, source: 'paper', specs: { massG: 330 } });
    const mean = (await call('PUT', `/setups/${one.id}/reports`, { use: 'average' })).body;
    expect(mean.setup.specs.massG).toBeCloseTo(325, 9);
    expect((await call('GET', `/setups/${one.id}`)).body.setup.specs.massG).toBe(320);
    expect((await call('PUT', '/setups/nobody/reports', { use: 'one' })).status).toBe(404);
  });
});

describe('makes that the shop has had', () => {
  it('are offered with what is known of them, each once, those it had most of first', async () => {
    const frame = (tag: string, model: string) =>
      call('POST', '/frames', {
        tag,
        maker: 'Hazel & Prow',
        model,
        pattern: '16×19',
        shape: { sport: 'tennis', lengthCm: 68.58, headAreaCm2: 632 },
        nominal: { specs: { massG: 305 }, tolerance: { massG: 7 }, dress: {} },
      });
    await frame('HP-1', 'Arrow');
    await frame('HP-2', 'Arrow');
    await frame('HP-3', 'Bolt');
    const { rows, total } = (await call('GET', '/models?search=hazel')).body;
    expect(total).toBe(2);
    expect(rows.map((m: { model: string; frames: number }) => [m.model, m.frames])).toEqual([
      ['Arrow', 2],
      ['Bolt', 1],
    ]);
    expect(rows[0]).toMatchObject({
      pattern: '16×19',
      shape: { headAreaCm2: 632 },
      nominal: { specs: { massG: 305 } },
    });
  });
});
