import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  PROGRAMMES,
  dayAfter,
  daysBetween,
  growthDays,
  inMatchWeek,
  programmeTraits,
  seasonPlan,
  type SeasonDate,
  type SeasonState,
} from '..';

const today = '2026-11-30';
const match = (fromDay: string, venue: SeasonDate['venue'] = 'usual', toDay = fromDay): SeasonDate => ({
  kind: 'match',
  fromDay,
  toDay,
  venue,
});
const rest = (fromDay: string, toDay: string): SeasonDate => ({
  kind: 'rest',
  fromDay,
  toDay,
  venue: 'usual',
});
const climb = { tag: 'T-1', programme: { name: 'climb', steps: 0, played: 2, now: 'step' } } as const;
const plan = (more: Partial<SeasonState>) =>
  seasonPlan({ today, dates: [], frames: [], sore: false, ...more });
const steps = (more: Partial<SeasonState>): string[] =>
  plan({ frames: [climb], ...more }).flatMap(({ what, on }) => (what === 'step' ? [on] : []));

describe('a season', () => {
  it('plans a climb step by step, two sessions after each (common practice): at two a week a week apart', () => {
    expect(steps({})).toEqual(Array.from({ length: 7 }, (_, i) => dayAfter(today, 7 * i)));
    expect(steps({ sessionsAWeek: 4 })[1]).toBe(dayAfter(today, 4));
    // One session of two was played: the next step waits for the other.
    expect(
      steps({ frames: [{ tag: 'T-1', programme: { name: 'climb', steps: 5, played: 1, now: 'play' } }] }),
    ).toEqual(['2026-12-04', '2026-12-11']);
  });

  it('goes no further than the programme itself: its last step is one, and what is over plans none', () => {
    const says = (now: 'step' | 'play' | 'last-step' | 'over') =>
      plan({ frames: [{ tag: 'T-1', programme: { name: 'climb', steps: 2, played: 2, now } }] });
    expect(says('last-step')).toEqual([
      { what: 'step', on: today, tag: 'T-1', programme: 'climb', step: 3, last: true },
    ]);
    expect(says('over')).toEqual([]);
    expect(says('step')[0]?.on).toBe(today);
    expect(says('play')[0]?.on).toBe('2026-12-04');
  });

  it('keeps the week of a match free, and what could not be played before it', () => {
    // The match is on the 19th: its week begins on the 13th, and a step on the 7th would be played by the 14th.
    expect(steps({ dates: [match('2026-12-19')] }).slice(0, 3)).toEqual([today, '2026-12-20', '2026-12-27']);
  });

  it('does nothing in a rest, in which nothing is played either', () => {
    expect(steps({ dates: [rest('2026-12-03', '2026-12-20')] }).slice(0, 2)).toEqual([today, '2026-12-25']);
  });

  it('strings before the matches by which they are due, two days ahead; no step on that day', () => {
    const strings = { strungOn: '2026-10-01', lastDays: 90 };
    const tasks = plan({ dates: [match('2026-12-19')], frames: [{ tag: 'T-1', strings }] });
    expect(tasks[0]).toEqual({ what: 'strings', on: '2026-12-17', tag: 'T-1', before: '2026-12-19' });
    // Fresh enough for the next match: due by their days only.
    expect(tasks[1]).toEqual({ what: 'strings', on: '2027-03-17', tag: 'T-1' });
    // Due already: today, and they are still new by the match.
    expect(
      plan({
        dates: [match('2026-12-19')],
        frames: [{ tag: 'T-1', strings: { strungOn: '2026-06-01', lastDays: 90 } }],
      })[0],
    ).toMatchObject({ on: today, late: true });
  });

  it('makes ready for the heat the day before, and goes back for the next match or after the last', () => {
    const dates = [match('2026-12-05', 'hot-fast'), match('2026-12-12', 'hot-fast'), match('2026-12-19')];
    expect(plan({ dates, frames: [{ tag: 'T-1' }] })).toMatchObject([
      { what: 'for-venue', on: '2026-12-04', venue: 'hot-fast', before: '2026-12-05' },
      { what: 'back-to-usual', on: '2026-12-18', before: '2026-12-19' },
    ]);
    expect(
      plan({ dates: dates.slice(0, 1), frames: [climb, { tag: 'T-2' }] }).filter(
        ({ what }) => what !== 'step',
      ),
    ).toMatchObject([
      { what: 'for-venue', tag: 'T-2' },
      { what: 'back-to-usual', on: '2026-12-06', tag: 'T-2' },
    ]);
  });

  it('looks at a growing player more often the faster they grow, and late where it was missed', () => {
    // 3 cm: half a year at 6 cm a year (common practice).
    expect(growthDays(7)).toBe(183);
    expect(growthDays(13)).toBeLessThan(growthDays(10) ?? 0);
    expect(growthDays(18)).toBeUndefined();
    const looked = (lookedOn: string) => plan({ growing: { age: 13, lookedOn } });
    expect(looked('2026-11-01')).toMatchObject([{ what: 'look-again', on: '2027-03-18' }]);
    // Somebody asked for a look in between: growth counts on from it.
    expect(
      plan({ looksAskedOn: ['2026-11-20', '2027-01-15'], growing: { age: 13, lookedOn: '2026-11-01' } }),
    ).toMatchObject([
      { what: 'look-again', on: today, late: true },
      { what: 'look-again', on: '2027-01-15' },
    ]);
    expect(looked('2026-01-01')[0]).toMatchObject({ on: today, late: true });
  });
});

describe('whatever the calendar (property)', () => {
  const day = fc.integer({ min: -30, max: 170 }).map((n) => dayAfter(today, n));
  const dates = fc
    .array(
      fc.record({
        kind: fc.constantFrom('match' as const, 'rest' as const),
        fromDay: day,
        length: fc.integer({ min: 0, max: 9 }),
        venue: fc.constantFrom('usual' as const, 'hot-fast' as const, 'cold-slow' as const),
      }),
      { maxLength: 12 },
    )
    .map((all) =>
      all.map(({ length, ...date }): SeasonDate => ({ ...date, toDay: dayAfter(date.fromDay, length) })),
    );
  const frames = fc.array(
    fc.record({
      tag: fc.constantFrom('T-1', 'T-2'),
      programme: fc.record({
        name: fc.constantFrom(...PROGRAMMES),
        steps: fc.integer({ min: 0, max: 7 }),
        played: fc.integer({ min: 0, max: 4 }),
        now: fc.constantFrom('step' as const, 'play' as const, 'last-step' as const, 'over' as const),
      }),
      strings: fc.record({
        strungOn: day.map((d) => dayAfter(d, -170)),
        lastDays: fc.integer({ min: 20, max: 400 }),
      }),
    }),
    { maxLength: 1 },
  );
  const state = fc.record({
    today: fc.constant(today),
    dates,
    frames,
    sore: fc.boolean(),
    sessionsAWeek: fc.integer({ min: 1, max: 7 }),
  });

  it('no step lies in the week of a match, on a rest, or on the day of new strings; none comes after a sore arm', () => {
    fc.assert(
      fc.property(state, (given) => {
        const tasks = seasonPlan(given);
        const strings = tasks.filter(({ what }) => what === 'strings').map(({ on }) => on);
        for (const { what, on } of tasks) {
          expect(on >= today).toBe(true);
          if (what !== 'step') continue;
          expect(given.sore).toBe(false);
          expect(inMatchWeek(on, given.dates)).toBe(false);
          expect(
            given.dates.some(({ kind, fromDay, toDay }) => kind === 'rest' && on >= fromDay && on <= toDay),
          ).toBe(false);
          expect(strings).not.toContain(on);
        }
      }),
    );
  });
  it('a programme keeps its order, its pace and its end', () => {
    fc.assert(
      fc.property(state, (given) => {
        for (const { tag, programme } of given.frames) {
          const own = seasonPlan(given).filter((task) => task.what === 'step' && task.tag === tag);
          expect(own.map(({ step }) => step)).toEqual(own.map((_, i) => programme.steps + 1 + i));
          const { sessionsBetween, mostSteps } = programmeTraits(programme.name);
          expect(programme.steps + own.length).toBeLessThanOrEqual(Math.max(mostSteps, programme.steps));
          for (const [i, { on }] of own.slice(1).entries())
            expect(daysBetween(own[i]?.on ?? '', on)).toBeGreaterThanOrEqual(
              (sessionsBetween * 7) / given.sessionsAWeek - 1e-9,
            );
        }
      }),
    );
  });
  it('no match is played with strings that are due; what was missed moves on from today', () => {
    fc.assert(
      fc.property(state, (given) => {
        for (const { strings } of given.frames) {
          const tasks = seasonPlan(given).filter(({ what }) => what === 'strings');
          for (const { kind, fromDay } of given.dates) {
            if (kind !== 'match' || fromDay <= today || fromDay > dayAfter(today, 182)) continue;
            const strung = tasks.findLast(({ on }) => on <= fromDay)?.on ?? strings.strungOn;
            expect(daysBetween(strung, fromDay)).toBeLessThanOrEqual(strings.lastDays + 1);
          }
        }
        // Tomorrow nothing was done: whatever was to be done by today comes again, not before tomorrow.
        const tomorrow = dayAfter(today, 1);
        for (const { on } of seasonPlan({ ...given, today: tomorrow })) expect(on >= tomorrow).toBe(true);
      }),
    );
  });
});
