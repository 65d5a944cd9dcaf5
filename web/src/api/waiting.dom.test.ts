// @vitest-environment happy-dom
import fc from 'fast-check';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { leaveOut, refused, sendAnyway, sendOrKeep, sendWaiting, unsent } from './waiting';

interface Sent {
  path: string;
  body: { key?: string; captureId?: string };
  ago: string | undefined;
}
let sent: Sent[] = [];
/** What the server does with the next call. */
let server: (call: Sent) => Response | 'dead';
const json = (body: unknown, status = 200): Response => new Response(JSON.stringify(body), { status });
const problem = (code: string, status: number): Response => json({ code, detail: `said: ${code}` }, status);

beforeEach(async () => {
  for (const one of [...refused.value, ...unsent.value]) leaveOut(one);
  sent = [];
  server = () => json({});
  vi.stubGlobal('fetch', async (url: string, init: RequestInit) => {
    const headers = init.headers as Record<string, string>;
    const call = {
      path: url.replace('/api/v1', ''),
      body: JSON.parse(String(init.body)) as Sent['body'],
      ago: headers['kevro-done-ago'],
    };
    const answer = server(call);
    if (answer === 'dead') throw new TypeError('fetch failed');
    sent.push(call);
    return answer;
  });
});

let n = 0;
const read = (value: number, captureId?: string) => {
  const key = `reading-${++n}`;
  return sendOrKeep('addReading', {
    id: 'f1',
    body: { means: 'typed', key, quantity: 'massG', value, ...(captureId ? { captureId } : {}) },
    what: `Weight ${value} g`,
  });
};
const keys = (): (string | undefined)[] => sent.map(({ body }) => body.key);

describe('what is done while the server is away', () => {
  it('is sent once it is back, each once, in the order in which it was done, with how long ago that was', async () => {
    await fc.assert(
      fc.asyncProperty(
        fc.array(fc.constantFrom('there', 'dead', 'starting', 'answer lost'), { maxLength: 12 }),
        async (states) => {
          sent = [];
          const stored: string[] = [];
          const done: string[] = [];
          for (const state of states) {
            server = ({ body: { key = '' } }) => {
              if (state === 'dead') return 'dead';
              if (state === 'starting') return problem('starting', 503);
              if (!stored.includes(key)) stored.push(key);
              return state === 'answer lost' ? 'dead' : json({});
            };
            const answer = read(300);
            done.push(`reading-${n}`);
            await answer;
            await sendWaiting();
          }
          server = ({ body: { key = '' } }) => {
            if (!stored.includes(key)) stored.push(key);
            return json({});
          };
          await sendWaiting();
          expect(stored).toEqual(done);
          expect(unsent.value).toEqual([]);
        },
      ),
      { numRuns: 60 },
    );
  });

  it('is on the device, under a place of its own', async () => {
    server = () => 'dead';
    await read(301);
    await read(302);
    await sendWaiting();
    const kept = Object.keys(localStorage).filter((key) => key.startsWith('kevro-waiting '));
    expect(kept).toHaveLength(2);
    server = () => json({});
    await sendWaiting();
    expect(Object.keys(localStorage).filter((key) => key.startsWith('kevro-waiting '))).toEqual([]);
    expect(sent.every(({ ago }) => Number(ago) >= 0)).toBe(true);
  });

  it('goes before what is done once it is back', async () => {
    server = () => 'dead';
    await read(301);
    await sendWaiting();
    server = () => json({});
    await read(302);
    await sendWaiting();
    expect(keys()).toEqual([`reading-${n - 1}`, `reading-${n}`]);
  });

  it('and is not taken, waits for the fitter and holds nothing else up', async () => {
    server = () => 'dead';
    await read(301, 'old');
    await read(302);
    await sendWaiting();
    server = ({ body }) => (body.captureId ? problem('capture-gone', 409) : json({}));
    await sendWaiting();
    expect([unsent.value.length, refused.value.map(({ what }) => what)]).toEqual([0, ['Weight 301 g']]);
    const [one] = refused.value;
    if (!one) throw new Error('nothing to settle');
    await sendAnyway(one);
    expect(refused.value).toEqual([]);
    expect(sent.at(-1)?.body.captureId).toBeUndefined();
  });
});

it('what the server refuses at once is said at once, and kept nowhere', async () => {
  server = () => problem('capture-gone', 409);
  await expect(read(301)).rejects.toThrow('said: capture-gone');
  expect([unsent.value, refused.value]).toEqual([[], []]);
});
