import { expect, it } from 'vitest';
import { onBench, shape } from './test-capture';

let time = Date.parse('2026-11-23T09:00:00.000Z');
const { server, addFrame } = onBench(() => time);
const { get, post, put } = server;

/** Half an ellipse, from the tip to the bottom. */
const points = Array.from({ length: 21 }, (_, i): [number, number] => {
  const angle = (Math.PI * i) / 20;
  return [17.5 * (1 - Math.cos(angle)), i === 20 ? 0 : 13.6 * Math.sin(angle)];
});
const outline = { points, hoopCm: 1.1, from: 'photo', takenOn: '2026-11-23', widthSdCm: 0.1, faceSdCm2: 5 };
const sendPhoto = async (frameId: string, type = 'image/jpeg') => {
  const response = await fetch(`${server.base}/frames/${frameId}/films?name=photo.jpg`, {
    method: 'POST',
    headers: { 'content-type': type },
    body: new Uint8Array(120_000).fill(7),
  });
  return { status: response.status, body: await response.json() };
};
const file = (id: string) => fetch(`${server.base}/films/${id}/file`);

it('an outline of its own is stored with its photo, and taken from the frame again', async () => {
  const frameId = await addFrame();
  const pictureId = (await sendPhoto(frameId)).body.id;
  const taken = await put(`/frames/${frameId}/outline`, { outline, lengthCm: 68.4, pictureId });
  expect(taken.status).toBe(200);
  expect(taken.body.shape).toEqual({ ...shape, lengthCm: 68.4, outline });
  expect((await get(`/frames/${frameId}`)).body.outlinePicture).toBe(pictureId);
  // What is kept stays: it waits for nobody.
  await post(`/films/${pictureId}/drop`);
  time += 300 * 60_000;
  await post(`/frames/${frameId}/film-links`);
  expect((await file(pictureId)).headers.get('content-type')).toBe('image/jpeg');
  expect((await get(`/frames/${frameId}/films`)).body).toEqual([]);
  // Taken anew, the photo before goes.
  const second = (await sendPhoto(frameId)).body.id;
  await put(`/frames/${frameId}/outline`, { outline, pictureId: second });
  expect((await file(pictureId)).status).toBe(404);
  expect((await file(second)).status).toBe(200);
  const removed = await post(`/frames/${frameId}/remove-outline`);
  expect(removed.body.shape).toEqual({ ...shape, lengthCm: 68.4 });
  expect((await file(second)).status).toBe(404);
});

it('an outline that a changed frame has no more takes its photo along', async () => {
  const frameId = await addFrame();
  const pictureId = (await sendPhoto(frameId)).body.id;
  const {
    id: _,
    archived: __,
    ...frame
  } = (await put(`/frames/${frameId}/outline`, { outline, pictureId })).body;
  await put(`/frames/${frameId}`, { ...frame, note: 'looked at' });
  expect((await file(pictureId)).status).toBe(200);
  await put(`/frames/${frameId}`, { ...frame, shape });
  expect((await file(pictureId)).status).toBe(404);
});

it('an outline that is no head, or a photo of another frame, is refused and nothing changes', async () => {
  const frameId = await addFrame();
  const elsewhere = (await sendPhoto(await addFrame())).body.id;
  const before = (await get(`/frames/${frameId}`)).body.frame;
  const refused = async (body: object): Promise<string> => {
    const answer = await put(`/frames/${frameId}/outline`, body);
    expect([404, 422]).toContain(answer.status);
    return answer.body.errors[0].path;
  };
  expect(await refused({ outline: { ...outline, points: points.toReversed() } })).toBe(
    'shape.outline.points',
  );
  expect(await refused({ outline: { ...outline, points: points.slice(0, 12) } })).toBe(
    'shape.outline.points',
  );
  expect(await refused({ outline: { points, hoopCm: 4.9 }, lengthCm: 30 })).toBe('shape');
  expect(await refused({ outline, pictureId: elsewhere })).toBe('pictureId');
  expect((await get(`/frames/${frameId}`)).body.frame).toEqual(before);
});

it('what a browser could run is no photo', async () => {
  const frameId = await addFrame();
  expect((await sendPhoto(frameId, 'image/svg+xml')).status).toBe(415);
  const { code } = (await post(`/frames/${frameId}/film-links`, { takes: 'photo' })).body;
  const send = (type: string) =>
    fetch(`${server.base}/filmed/${code}/film?name=a`, {
      method: 'PUT',
      headers: { 'content-type': type },
      body: new Uint8Array(10),
    });
  expect((await (await send('video/mp4')).json()).code).toBe('not-a-photo');
  expect((await send('image/png')).status).toBe(200);
  expect((await get(`/filmed/${code}`)).body.takes).toBe('photo');
});

it('a model’s outline is offered to the next frame of it, and to a copy', async () => {
  const of = { maker: 'Brindle', model: 'Moth 2' };
  const first = await addFrame(of);
  const second = await addFrame(of);
  expect((await get(`/frames/${second}`)).body.modelOutline).toBeNull();
  await put(`/frames/${first}/outline`, { outline });
  const { tag } = (await get(`/frames/${first}`)).body.frame;
  expect((await get(`/frames/${second}`)).body.modelOutline).toEqual({ tag, outline });
  expect((await get(`/frames/${first}`)).body.modelOutline).toBeNull();
  const models = (await get('/models?search=moth')).body.rows;
  expect(models[0].outline).toEqual({ tag, outline });
  const twin = (await post(`/frames/${first}/duplicate`, { tag: 'moth-twin', key: 'moth-twin' })).body;
  expect(twin.shape.outline).toEqual({ ...outline, from: 'model' });
  expect((await get('/models?search=oskerra')).body.rows[0].outline).toBeNull();
});

it('a person who is erased takes the photos of their frames along; the outline stays', async () => {
  const ownerId = (await post('/players', { name: 'Wenna Asker', sports: ['tennis'] })).body.id;
  const frameId = await addFrame({ ownerId });
  const pictureId = (await sendPhoto(frameId)).body.id;
  await put(`/frames/${frameId}/outline`, { outline, pictureId });
  expect((await post(`/players/${ownerId}/erase`, { name: 'Wenna Asker' })).status).toBe(200);
  expect(await server.db.query('select 1 from film_piece where film_id = $1', [pictureId])).toEqual([]);
  expect((await get(`/frames/${frameId}`)).body.frame.shape.outline).toEqual(outline);
});
