import { describe, expect, it } from 'vitest';
import { type Dress } from '@kevro/core';
import {
  EXPORTED,
  HEADERS,
  columnsOf,
  mappingOf,
  readSetupCells,
  setupFile,
  setupMapping,
  type Setup,
} from '@kevro/contract';
import { startTestServer } from './test-server';
import { onLibrary } from './test-setups';

const { server, call, send, count, store, measuredFrame } = onLibrary();

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
