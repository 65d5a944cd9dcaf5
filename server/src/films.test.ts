import { request } from 'node:http';
import { expect, it } from 'vitest';
import { FILM_MOST_BYTES } from '@kevro/contract';
import { onBench } from './test-capture';

let time = Date.parse('2026-11-23T09:00:00.000Z');
const { server, key, addFrame, capture, store, typed, typeAll } = onBench(() => time);
const { get, post, put } = server;

const made = async (): Promise<{ frameId: string; code: string }> => {
  const frameId = await addFrame();
  return { frameId, code: (await post(`/frames/${frameId}/film-links`)).body.code };
};
const send = async (code: string, body: Uint8Array<ArrayBuffer>, type = 'video/webm') => {
  const response = await fetch(`${server.base}/filmed/${code}/film?name=swing.webm`, {
    method: 'PUT',
    headers: { 'content-type': type },
    body,
  });
  return { status: response.status, body: await response.json() };
};
const bytes = (length: number): Uint8Array<ArrayBuffer> =>
  Uint8Array.from({ length }, (_, at) => (at * 7919 + (at >> 9)) % 256);

it('a film that a phone sends by a link comes whole to the page that asked, and goes once it was read', async () => {
  const { frameId, code } = await made();
  const page = await get(`/filmed/${code}`);
  expect(page.body).toMatchObject({ frame: { maker: 'Oskerra' } });
  const film = bytes(700_001);
  const sent = await send(code, film);
  expect(sent).toMatchObject({
    status: 200,
    body: { name: 'swing.webm', type: 'video/webm', bytes: 700_001 },
  });
  const [listed] = (await get(`/frames/${frameId}/films`)).body;
  expect(listed).toEqual(sent.body);
  const file = await fetch(`${server.base}/films/${listed.id}/file`);
  expect(file.headers.get('content-type')).toBe('video/webm');
  // Held against each other at once: one by one 700,000 bytes take seconds.
  expect(Buffer.from(await file.arrayBuffer()).equals(film)).toBe(true);
  expect((await get(`/frames/${(await made()).frameId}/films`)).body).toEqual([]);
  await post(`/films/${listed.id}/drop`);
  expect((await get(`/frames/${frameId}/films`)).body).toEqual([]);
  expect((await fetch(`${server.base}/films/${listed.id}/file`)).status).toBe(404);
  expect(await server.db.query('select 1 from film_piece where film_id = $1', [listed.id])).toEqual([]);
});

it('what is no film, is too large, or comes by no link or one that has ended, is refused', async () => {
  const { frameId, code } = await made();
  expect((await send(code, bytes(10), 'text/plain')).body.code).toBe('not-a-film');
  expect((await send(code, new Uint8Array(0))).body.code).toBe('not-a-film');
  expect((await send('nobodys', bytes(10))).status).toBe(404);
  const tooLarge = await new Promise((done) => {
    const put = request(`${server.base}/filmed/${code}/film`, {
      method: 'PUT',
      headers: { 'content-type': 'video/mp4', 'content-length': FILM_MOST_BYTES + 1 },
    });
    put.on('response', (response) => {
      done(response.statusCode);
      put.destroy();
    });
    put.on('error', () => undefined);
    put.write('x');
  });
  expect(tooLarge).toBe(413);
  expect((await get(`/frames/${frameId}/films`)).body).toEqual([]);
  time += 61 * 60_000;
  expect((await send(code, bytes(10))).body.code).toBe('link-ended');
  expect((await get(`/filmed/${code}`)).body.code).toBe('link-ended');
});

it('a film that breaks off leaves nothing behind, and one that nobody reads goes', async () => {
  const { frameId, code } = await made();
  await new Promise<void>((done) => {
    const put = request(`${server.base}/filmed/${code}/film`, {
      method: 'PUT',
      headers: { 'content-type': 'video/mp4', 'content-length': 2_000_000 },
    });
    put.on('error', () => done());
    put.write(Buffer.alloc(600_000), () => put.destroy(new Error('the phone went')));
  });
  const left = async (): Promise<number> => (await server.db.query('select 1 from film')).length;
  const end = Date.now() + 5000;
  while ((await left()) > 0 && Date.now() < end) await new Promise((again) => setTimeout(again, 20));
  expect(await left()).toBe(0);
  await send(code, bytes(100));
  expect((await get(`/frames/${frameId}/films`)).body).toHaveLength(1);
  time += 121 * 60_000;
  await made();
  expect((await get(`/frames/${frameId}/films`)).body).toEqual([]);
});

it('a film is kept with a reading only where that is wanted, and goes with it', async () => {
  const own = async (frameId: string) => {
    const response = await fetch(`${server.base}/frames/${frameId}/films?name=own.mp4`, {
      method: 'POST',
      headers: { 'content-type': 'video/mp4' },
      body: bytes(300_000),
    });
    return (await response.json()).id as string;
  };
  const kept = async (frameId: string) => (await get(`/frames/${frameId}`)).body.films;
  const frameId = await addFrame();
  await typeAll(frameId);
  const readingId = key();
  await typed(frameId, 'massG', 327.2, 'typed', readingId);
  const filmId = await own(frameId);
  const elsewhere = await addFrame();
  expect((await put(`/frames/${elsewhere}/kept-film`, { filmId, readingId })).status).toBe(404);
  expect((await put(`/frames/${frameId}/kept-film`, { filmId, readingId: 'none' })).status).toBe(404);
  expect((await put(`/frames/${frameId}/kept-film`, { filmId, readingId })).status).toBe(200);
  // What is kept is not dropped as one that was only read, nor with time.
  await post(`/films/${filmId}/drop`);
  time += 300 * 60_000;
  await made();
  const measurement = (await store(frameId, (await capture(frameId)).id)).body;
  expect(await kept(frameId)).toEqual([
    { id: filmId, measurementId: measurement.id, name: 'own.mp4', bytes: 300_000 },
  ]);
  await put(`/measurements/${measurement.id}/counts`, { counts: false, reason: 'the wrong frame' });
  expect(await kept(frameId)).toEqual([]);
  expect((await fetch(`${server.base}/films/${filmId}/file`)).status).toBe(404);

  // With readings that are dropped.
  await typed(frameId, 'massG', 327.2, 'typed', 'film-reading-2');
  const second = await own(frameId);
  await put(`/frames/${frameId}/kept-film`, { filmId: second, readingId: 'film-reading-2' });
  await post(`/frames/${frameId}/capture/drop`, { captureId: (await capture(frameId)).id });
  expect((await fetch(`${server.base}/films/${second}/file`)).status).toBe(404);
});

it('a person who is erased takes the films of their frames along', async () => {
  const ownerId = (await post('/players', { name: 'Hale Brindwick', sports: ['tennis'] })).body.id;
  const frameId = await addFrame({ ownerId });
  await typed(frameId, 'massG', 320, 'typed', 'film-reading-3');
  const code = (await post(`/frames/${frameId}/film-links`)).body.code;
  const { id } = (await send(code, bytes(300_000))).body;
  await put(`/frames/${frameId}/kept-film`, { filmId: id, readingId: 'film-reading-3' });
  expect((await post(`/players/${ownerId}/erase`, { name: 'Hale Brindwick' })).status).toBe(200);
  expect(await server.db.query('select 1 from film_piece where film_id = $1', [id])).toEqual([]);
});
