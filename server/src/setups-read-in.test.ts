import { gzipSync } from 'node:zlib';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { type Setup } from '@kevro/contract';
import { readHere, type ReadFile } from './exchange/setup-reading';
import { startTestServer } from './test-server';
import { onLibrary } from './test-setups';

const { server, call, send, count, store } = onLibrary();

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

it('is answered once it is done with: the next list may follow at once', async () => {
  const slowly: ReadFile = async (file) => {
    const opened = await readHere(file);
    return { ...opened, close: () => new Promise((done) => setTimeout(done, 300)) };
  };
  const own = await startTestServer(undefined, undefined, { reading: slowly });
  const sent = async (name: string): Promise<number> =>
    (
      await fetch(`${own.base}/setups/import?mode=store`, {
        method: 'POST',
        headers: { 'content-type': 'text/csv' },
        body: `name,sport,weight (g)\n${name},tennis,320\n`,
      })
    ).status;
  expect([await sent('One After'), await sent('The Other')]).toEqual([200, 200]);
  await own.close();
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
