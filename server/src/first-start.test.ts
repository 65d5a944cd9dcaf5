import { describe, expect, it } from 'vitest';
import type { PartRow, Shop } from '@kevro/contract';
import { onServer } from './test-server';

describe('a new shop', () => {
  const server = onServer();
  const shop = async (): Promise<Shop> => (await server.call('GET', '/shop')).body;
  const parts = async (): Promise<PartRow[]> => (await server.call('GET', '/parts')).body;

  it('is asked a few things, and begins with the parts that were ticked; sent twice it begins once', async () => {
    expect((await shop()).begun).toBe(false);
    const body = {
      key: 'first-start-1',
      name: 'Bench & Bow',
      fits: ['padel', 'tennis'],
      measuresWith: ['scale'],
      starters: [{ starter: 'lead-6', sampleG: 11.5 }, { starter: 'putty' }, { starter: 'screw-1' }],
    };
    for (const _ of [1, 2]) {
      const { status, body: answer } = await server.call('POST', '/shop/begin', body);
      expect(status).toBe(200);
      expect(answer).toMatchObject({ name: 'Bench & Bow', begun: true, fits: ['padel', 'tennis'] });
    }
    const stock = await parts();
    expect(stock.map(({ part }) => part.name)).toEqual(['Lead tape 6 mm', 'Handle putty', 'Screw 1 g']);
    expect(stock[0]?.part).toMatchObject({ gPerCm: 0.115 });
    expect(stock.map(({ part }) => part.typical ?? false)).toEqual([false, true, true]);
  });

  it('begins once: another page that comes later changes nothing', async () => {
    const late = await server.call('POST', '/shop/begin', {
      name: 'Other',
      starters: [{ starter: 'putty' }],
    });
    expect(late.status).toBe(409);
    expect((await shop()).name).toBe('Bench & Bow');
    expect(await parts()).toHaveLength(3);
  });

  it('has a typical part weighed by one number', async () => {
    const putty = (await parts()).find(({ part }) => part.kind === 'filling')?.part;
    const { body } = await server.call('POST', `/parts/${putty?.id}/weigh`, { sampleG: 18.2 });
    expect(body).toMatchObject({ gPerCm: 1.82, name: 'Handle putty' });
    expect(body).not.toHaveProperty('typical');
  });

  it('says beside its field what cannot be, and adds nothing', async () => {
    const heavy = await server.call('POST', '/parts/starters', {
      starters: [{ starter: 'silicone' }, { starter: 'screw-9' }],
    });
    expect(heavy.body.errors).toMatchObject([{ path: 'starters.1.starter', code: 'part-unknown' }]);
    expect(await parts()).toHaveLength(3);
  });

  it('with nothing but players was begun before it was asked', async () => {
    await server.db.query('delete from shop');
    expect((await shop()).begun).toBe(true);
  });
});
