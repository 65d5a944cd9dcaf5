import { describe, expect, it } from 'vitest';
import { calls, type Call } from '@kevro/contract';
import type { Answer } from './test-server';
import {
  withServer,
  next,
  made,
  SHAPE,
  TAPE,
  world,
  felt,
  BEGINS,
  added,
  begins,
  isAct,
  serverNow,
} from './test-acts';

withServer();

it('every call says whether it changes something: what is sent and changes nothing is named here', () => {
  const silent = Object.entries<Call>(calls)
    .filter(([, { method }]) => method !== 'get')
    .filter((entry) => !isAct(entry))
    .map(([name]) => name)
    .filter((name) => !calls[name as keyof typeof calls].path.startsWith('/compute/'));
  expect(silent.toSorted()).toEqual([
    // What was filmed is no part of the shop until it is kept.
    'addFilm',
    'cancelReading',
    // What a phone sent is no part of the shop until it is a reading.
    'dropFilm',
    'hearPort',
    'makeFilmLink',
    'pair',
    'sendFilm',
    'standIn',
    'takeReading',
  ]);
  const reading = Object.entries<Call>(calls).filter(isAct);
  expect(reading.every(([, { method }]) => method !== 'get')).toBe(true);
});

it('every act is sent twenty times below, but for those that say how something is to be: sent again they change nothing more', () => {
  const others = Object.entries<Call>(calls)
    .filter(isAct)
    .map(([name]) => name)
    .filter((name) => !(name in BEGINS) && !/^(edit|archive|retire|count|restore)/.test(name));
  expect(others.toSorted()).toEqual([
    // A reading has its own key; the others are idempotent by what they name.
    'addReading',
    // A name is one person's: sent again it is refused.
    'addStaff',
    // Tried by itself: it needs a shop in which nothing was stored.
    'beginShop',
    'doneLookAgain',
    'dropCapture',
    'erasePlayer',
    'importSetups',
    'keepFilm',
    'letOthersIn',
    'ownPassphrase',
    'plugHere',
    'removeFilm',
    'removeFitting',
    'removeOutline',
    'removeSeasonDate',
    'resetStaff',
    'setAside',
    'setBeside',
    'setDress',
    'setParts',
    'setPassphrase',
    'setReferences',
    'signIn',
    'signOut',
    'startRound',
    'storeCapture',
    'takeOutline',
    // Tried by itself: it needs a programme that has come to a step.
    'takeStep',
    // Says what a part weighs: sent again it says the same.
    'weighPart',
  ]);
});

describe('twenty equal calls at once, each as if the answer to the one before was lost', () => {
  it.each(begins)('%s: one is made, and all are answered with it', async (name, [far, path, body]) => {
    const { method } = calls[name];
    const once = await world(far);
    const there = await path(once);
    const expected = await added(() =>
      made(there, { ...body(once), key: next('key of once') }, method.toUpperCase()),
    );
    const w = await world(far);
    const here = await path(w);
    const key = next('key of twenty');
    const same = { ...body(w), key };
    const answers: Answer[] = [];
    const all = await added(async () => {
      answers.push(
        ...(await Promise.all(
          Array.from({ length: 20 }, () => serverNow().call(method.toUpperCase(), here, same)),
        )),
      );
    });
    expect(answers.map(({ status, body: found }) => [status, found])).toEqual(
      answers.map(() => [200, answers[0]?.body]),
    );
    expect(all).toEqual(expected);
    expect(expected.change_log).toBe(1);
  });

  it('take one step of a programme, and go back once', async () => {
    const w = await world();
    await made('/parts', { ...TAPE, name: next('tape for steps') });
    await made(`${w.at}/programmes`, {
      key: next('programme key'),
      frameId: w.frameId,
      name: 'find-ceiling',
    });
    await made(`${w.at}/sessions`, { key: next('session key'), roundId: w.roundId, ...felt });
    const [entry] = (await serverNow().call('GET', w.at)).body.frames;
    const { id: programmeId, sessions } = entry.programmes[0];
    const step = { key: next('step key'), programmeId, sessions };
    const all = await added(() =>
      Promise.all(
        Array.from({ length: 20 }, async () => {
          const answer = await serverNow().call('POST', `${w.at}/programmes/step`, step);
          expect(answer.status, JSON.stringify(answer.body)).toBe(200);
        }),
      ),
    );
    expect(all).toEqual({ round: 1, aim: 1, plan: 1, programme_event: 1, change_log: 1 });
  });

  it('without a key, close a fitting once and open it again once', async () => {
    const { at } = await world();
    const statuses = async (path: string, body: object) =>
      (await Promise.all(Array.from({ length: 20 }, () => serverNow().call('POST', at + path, body)))).map(
        ({ status }) => status,
      );
    const closed = await statuses('/close', { how: 'given-up', note: '' });
    expect(closed.filter((status) => status === 200)).toHaveLength(1);
    expect(closed.filter((status) => status === 409)).toHaveLength(19);
    const opened = await statuses('/reopen', { newRound: true });
    expect(opened.filter((status) => status === 200)).toHaveLength(1);
    expect((await serverNow().call('GET', at)).body.frames[0].rounds).toHaveLength(2);
  });
});

describe('the key of a form', () => {
  it('with other content is refused, and says what was stored', async () => {
    const key = next('key of a form');
    const first = await made('/players', { name: next('First'), sports: ['tennis'], key });
    const { status, body } = await serverNow().call('POST', '/players', {
      name: next('Second'),
      sports: ['tennis'],
      key,
    });
    expect([status, body.code, body.existing]).toEqual([409, 'stored-already', first.id]);
  });

  it('of another act is refused', async () => {
    const key = next('key of two acts');
    await made('/players', { name: next('First'), sports: ['tennis'], key });
    const { status, body } = await serverNow().call('POST', '/parts', { ...TAPE, name: next('tape'), key });
    expect([status, body.code]).toEqual([409, 'key-used']);
  });

  it('that was refused is free: the form is put right and sent again', async () => {
    const key = next('key of a mistake');
    const taken = await made('/frames', { tag: next('X'), maker: 'V', model: 'Q', shape: SHAPE });
    const frame = { maker: 'V', model: 'Q', shape: SHAPE, key };
    expect((await serverNow().call('POST', '/frames', { ...frame, tag: taken.tag })).status).toBe(409);
    await made('/frames', { ...frame, tag: next('X') });
  });

  it('is kept as a hash, so that nobody who reads the database makes a player’s link of it', async () => {
    const w = await world();
    const key = next('key of a link');
    const { code } = await made(`${w.at}/links`, { roundId: w.roundId, key });
    const stored = JSON.stringify([
      await serverNow().db.query('select * from change_log'),
      await serverNow().db.query('select * from session_link'),
    ]);
    expect(stored).not.toContain(key);
    expect(stored).not.toContain(code);
  });
});
