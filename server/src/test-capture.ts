import type { CaptureRecord } from '@kevro/contract';
import { onServer, startTestServer } from './test-server';

export const shape = { sport: 'tennis', lengthCm: 68.58 };

/** A bench at which frames are added and readings typed. @param now what its clock says, ms */
export function onBench(now: () => number) {
  const server = onServer(() => startTestServer(() => new Date(now()).toISOString()));
  const { get, post } = server;
  let n = 0;
  /** A number that no other has had. */
  const another = (): number => ++n;
  const key = (): string => `test-key-${++n}`;
  const newFrame = (more = {}) => ({ tag: `T-${++n}`, maker: 'Oskerra', model: 'Tide 98', shape, ...more });
  const addFrame = async (more = {}): Promise<string> => (await post('/frames', newFrame(more))).body.id;
  const typed = (frameId: string, quantity: string, value: number, means = 'typed', k = key()) =>
    post(`/frames/${frameId}/readings`, { means, key: k, quantity, value });
  const capture = async (frameId: string): Promise<CaptureRecord> =>
    (await get(`/frames/${frameId}/capture`)).body;
  const store = (frameId: string, captureId: string) =>
    post(`/frames/${frameId}/capture/store`, { captureId });
  async function typeAll(frameId: string): Promise<void> {
    await typed(frameId, 'massG', 327);
    await typed(frameId, 'balanceCm', 32.2);
    await typed(frameId, 'swingWeight', 320);
  }
  return { server, another, key, newFrame, addFrame, typed, capture, store, typeAll };
}
