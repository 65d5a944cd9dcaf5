import { expect } from 'vitest';
import { sportData, type Dress, type Sport } from '@kevro/core';
import type { Setup, SetupImport } from '@kevro/contract';
import { onServer } from './test-server';

/** A shop whose library is read in, looked through and sent out. */
export function onLibrary() {
  const server = onServer();
  const { call } = server;
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
  return { server, call, send, count, store, measuredFrame };
}
