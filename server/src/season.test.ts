import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { dayAfter, type Day } from '@kevro/core';
import { seasonTaskSentence, type SeasonPage } from '@kevro/contract';
import { readCalendar, writeCalendar } from './exchange/calendar-file';
import { onPlayingShop } from './test-play';

const today = '2026-11-23';
const now = `${today}T09:00:00.000Z`;
const { server, made, key, opened } = onPlayingShop(() => now);
const seasonOf = async (id: string): Promise<SeasonPage> => (await server.get(`/players/${id}/season`)).body;
const event = (...lines: string[]): string => ['BEGIN:VEVENT', ...lines, 'END:VEVENT'].join('\r\n');
const file = (...events: string[]): string =>
  ['BEGIN:VCALENDAR', 'VERSION:2.0', 'PRODID:-//a club//fixtures//EN', ...events, 'END:VCALENDAR', ''].join(
    '\r\n',
  );

describe('a calendar file (RFC 5545)', () => {
  it('is read as matches and rests: whole days, times, what recurs; without what is called off or too far away', () => {
    const text = file(
      event(
        'UID:a',
        'DTSTART;VALUE=DATE:20261205',
        'DTEND;VALUE=DATE:20261207',
        'SUMMARY:Club cup\\, outdoors in the heat',
      ),
      event('UID:b', 'DTSTART:20261212T140000Z', 'DTEND:20261212T170000Z', 'SUMMARY:League'),
      event('UID:c', 'DTSTART;VALUE=DATE:20261220', 'DTEND;VALUE=DATE:20270104', 'SUMMARY:Winter break'),
      event(
        'UID:d',
        'DTSTART:20261201T180000',
        'DURATION:PT2H',
        'RRULE:FREQ=WEEKLY;COUNT=3',
        'SUMMARY:Ladder',
      ),
      event('UID:e', 'DTSTART;VALUE=DATE:20261230', 'STATUS:CANCELLED', 'SUMMARY:Off'),
      event('UID:f', 'DTSTART;VALUE=DATE:20200101', 'SUMMARY:Long ago'),
    );
    expect(readCalendar(text, today, 'UTC')).toEqual({
      dates: [
        {
          uid: 'a',
          kind: 'match',
          fromDay: '2026-12-05',
          toDay: '2026-12-06',
          title: 'Club cup, outdoors in the heat',
          venue: 'hot-fast',
        },
        {
          uid: 'b',
          kind: 'match',
          fromDay: '2026-12-12',
          toDay: '2026-12-12',
          title: 'League',
          venue: 'usual',
        },
        {
          uid: 'c',
          kind: 'rest',
          fromDay: '2026-12-20',
          toDay: '2027-01-03',
          title: 'Winter break',
          venue: 'usual',
        },
        ...['2026-12-01', '2026-12-08', '2026-12-15'].map((day) => ({
          uid: `d ${day}`,
          kind: 'match',
          fromDay: day,
          toDay: day,
          title: 'Ladder',
          venue: 'usual',
        })),
      ],
      skipped: 2,
    });
    const named = (summary: string) =>
      readCalendar(file(event('UID:x', 'DTSTART;VALUE=DATE:20261205', `SUMMARY:${summary}`)), today, 'UTC')
        .dates[0];
    expect(named('Play-off, tie-break format')?.kind).toBe('match');
    expect([named('Holidays')?.kind, named('Day off')?.kind]).toEqual(['rest', 'rest']);
    expect(named('Winter league')?.venue).toBe('usual');
    // World time is read where the shop is: late on the 12th in UTC is the 13th in Auckland.
    const late = file(event('UID:x', 'DTSTART:20261212T200000Z', 'DTEND:20261212T220000Z', 'SUMMARY:Cup'));
    expect(readCalendar(late, today, 'Pacific/Auckland').dates[0]?.fromDay).toBe('2026-12-13');
    expect(() => readCalendar('name,date', today, 'UTC')).toThrow('This is no calendar file');
    expect(readCalendar(file(), today, 'UTC')).toEqual({ dates: [], skipped: 0 });
  });

  it('comes back as it was written, without what is to be done (property)', () => {
    const date = fc.record({
      id: fc.uuid(),
      kind: fc.constantFrom('match' as const, 'rest' as const),
      from: fc.integer({ min: -29, max: 300 }),
      length: fc.integer({ min: 0, max: 30 }),
      title: fc.string({ maxLength: 40 }).map((s) => s.replace(/[^\p{L}\p{N} ,;]/gu, '').trim()),
      venue: fc.constantFrom<Day>('usual', 'hot-fast', 'cold-slow'),
    });
    fc.assert(
      fc.property(fc.uniqueArray(date, { maxLength: 20, selector: ({ id }) => id }), (all) => {
        const dates = all
          // Words of a title may say of themselves how hot it is.
          .map(({ from, length, title, ...rest }) => ({
            ...rest,
            // How it plays is asked of matches only.
            venue: rest.kind === 'rest' ? ('usual' as const) : rest.venue,
            title: title && `x${title.replace(/\w+/g, 'x')}`,
            fromDay: dayAfter(today, from),
            toDay: dayAfter(today, from + length),
          }));
        const page: SeasonPage = {
          player: { id: 'p', name: 'Ilka' },
          today,
          dates,
          frames: [],
          tasks: [{ what: 'strings', on: today, tag: 'T-1' }],
        };
        const { dates: back, skipped } = readCalendar(writeCalendar('Shop', page, now), today, 'UTC');
        expect(skipped).toBe(1);
        expect(back).toEqual(
          dates.map(({ id, title, ...rest }) => ({
            ...rest,
            uid: id,
            title: title || (rest.kind === 'match' ? 'Match' : 'Rest'),
          })),
        );
      }),
    );
  });
});

describe('a season', () => {
  it('plans a climb around a match that is typed, and moves it when the match moves', async () => {
    const f = await opened();
    await f.begin('climb');
    const typed = await made(`/players/${f.playerId}/season`, {
      key: key(),
      kind: 'match',
      fromDay: '2026-12-05',
      toDay: '2026-12-06',
      title: 'Club cup',
    });
    const steps = ({ tasks }: SeasonPage): string[] =>
      tasks.flatMap(({ what, on }) => (what === 'step' ? [on] : []));
    // Two sessions first, at two a week: the 30th, which lies in the week of the match.
    expect(steps(typed).slice(0, 2)).toEqual(['2026-12-07', '2026-12-14']);
    const [date] = typed.dates;
    const moved = await made(
      `/season/${date.id}`,
      { kind: 'match', fromDay: '2026-12-19', toDay: '2026-12-19', title: 'Club cup' },
      'PUT',
    );
    expect(steps(moved).slice(0, 2)).toEqual(['2026-11-30', '2026-12-20']);
    // As its own page says: after a tired session it goes no further, and so does the season.
    await f.play();
    await f.play();
    expect((await f.programme()).next).toMatchObject({ reason: 'carried' });
    expect(steps(await seasonOf(f.playerId))[0]).toBe(today);
    await f.step();
    await f.play({ energyLeft: 'none' });
    expect((await f.programme()).next).toMatchObject({ reason: 'tired', state: 'go-on' });
    await f.play({ arm: 'sore' });
    expect(steps(await seasonOf(f.playerId))).toEqual([]);
    const without = await made(`/season/${date.id}/removed`, {}, 'PUT');
    expect(without.dates).toEqual([]);
    expect((await server.put(`/season/${date.id}/removed`, {})).status).toBe(404);
  });

  it('names no programme that says that an arm was sore, on the page or in the file', async () => {
    const f = await opened();
    await f.begin('after-sore-arm');
    const { tasks } = await seasonOf(f.playerId);
    const step = tasks.find(({ what }) => what === 'step');
    expect(step && seasonTaskSentence(step)).toMatch(/step 1 of its programme/);
    const text = await (await fetch(`${server.base}/players/${f.playerId}/season.ics`)).text();
    expect(text).toContain('its programme');
    expect(text.toLowerCase()).not.toContain('sore');
  });

  it('strings the frames before the match, looks at who grows, and says so in the file', async () => {
    const f = await opened(undefined, { birthYear: 2013 });
    await made(`/frames/${f.frameId}/stringings`, {
      key: key(),
      strungOn: '2026-09-01',
      mains: 'nylon',
      mainsKg: 24,
      crossesKg: 23,
      unit: 'kg',
    });
    const page = await made(`/players/${f.playerId}/season`, {
      key: key(),
      kind: 'match',
      fromDay: '2026-12-19',
      toDay: '2026-12-19',
      venue: 'hot-fast',
    });
    expect(page.tasks.map(({ what, on }: SeasonPage['tasks'][number]) => [what, on]).slice(0, 3)).toEqual([
      ['strings', '2026-12-17'],
      ['for-venue', '2026-12-18'],
      ['back-to-usual', '2026-12-20'],
    ]);
    expect(page.tasks).toContainEqual({ what: 'look-again', on: '2027-04-09' });
    const calendar = await fetch(`${server.base}/players/${f.playerId}/season.ics`);
    expect(calendar.headers.get('content-type')).toContain('text/calendar');
    const text = await calendar.text();
    expect(text).toContain('new strings');
    // Read again it changes what is there, and adds nothing.
    const again = await made(`/players/${f.playerId}/season/file`, { key: key(), text });
    expect(again).toMatchObject({
      added: 0,
      changed: 1,
      dates: page.dates.map((date: object) => ({ ...date, title: 'Match' })),
    });
  });

  it('reads a file once however often it is sent, and changes what its next edition changed', async () => {
    const { id } = await made('/players', { name: 'Calendar player', sports: ['tennis'] });
    const send = (text: string) => server.post(`/players/${id}/season/file`, { key: key(), text });
    const league = (day: string) =>
      file(event('UID:league-1', `DTSTART;VALUE=DATE:${day}`, 'SUMMARY:League'));
    expect((await send(league('20261212'))).body).toMatchObject({ added: 1, changed: 0, skipped: 0 });
    expect((await send(league('20261213'))).body).toMatchObject({ added: 0, changed: 1 });
    expect((await seasonOf(id)).dates).toMatchObject([{ fromDay: '2026-12-13', title: 'League' }]);
    const wrong = await send('a letter');
    expect([wrong.status, wrong.body.code]).toEqual([422, 'no-calendar']);
    const backwards = await server.post(`/players/${id}/season`, {
      key: key(),
      kind: 'rest',
      fromDay: '2026-12-10',
      toDay: '2026-12-01',
    });
    expect([backwards.status, backwards.body.errors[0]]).toMatchObject([
      422,
      { path: 'toDay', code: 'ends-before' },
    ]);
    expect(
      (await server.get('/day')).body.matches.filter(({ playerId }: { playerId: string }) => playerId === id),
    ).toEqual([]);
    await send(league('20261130'));
    expect((await server.get('/day')).body.matches).toContainEqual({
      playerId: id,
      playerName: 'Calendar player',
      fromDay: '2026-11-30',
      title: 'League',
    });
  });

  it('goes with the player', async () => {
    const { id } = await made('/players', { name: 'To be erased', sports: ['tennis'] });
    const page = await made(`/players/${id}/season`, {
      key: key(),
      kind: 'rest',
      fromDay: '2026-12-10',
      toDay: '2026-12-12',
      title: 'a knee',
    });
    expect((await server.post(`/players/${id}/erase`, { name: 'To be erased' })).status).toBe(200);
    expect(
      (
        await server.put(`/season/${page.dates[0].id}`, {
          kind: 'rest',
          fromDay: '2026-12-10',
          toDay: '2026-12-12',
        })
      ).status,
    ).toBe(404);
  });
});
