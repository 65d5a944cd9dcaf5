import { describe, expect, it } from 'vitest';
import type { FittingRow } from '@kevro/contract';
import { groupOf, grouped, leftWords } from './groups';

type Frame = FittingRow['frames'][number];
const frame = (more: Partial<Frame>): Frame => ({
  id: 'f1',
  tag: 'A-1',
  name: 'Velmond Arc',
  sport: 'tennis',
  round: 1,
  programme: null,
  next: null,
  stringsDue: [],
  ...more,
});
const row = (id: string, frames: Frame[], closed: FittingRow['closed'] = null): FittingRow => ({
  id,
  openedAt: '2026-11-20T09:00:00.000Z',
  closed,
  playerName: id,
  frames,
});
const toPlay = { station: 'play', because: 'not-played' } as const;

describe('what a day asks for', () => {
  it('tells what sets from work, what is to be played in a programme from what can be handed over', () => {
    const open = { closed: null };
    expect(groupOf(open, frame({ next: { station: 'plan', because: 'no-plan' } }))).toBe('work');
    expect(groupOf(open, frame({ next: { station: 'play', because: 'step-due' }, programme: 'climb' }))).toBe(
      'work',
    );
    const until = '2026-11-27T10:00:00.000Z';
    expect(groupOf(open, frame({ next: { station: 'build', because: 'setting', until } }))).toBe('setting');
    expect(groupOf(open, frame({ next: toPlay, programme: 'climb' }))).toBe('to-play');
    expect(groupOf(open, frame({ next: toPlay }))).toBe('hand-over');
    expect(groupOf(open, frame({}))).toBe('rest');
    const closed = { at: until, how: 'handed-over' } as const;
    expect(groupOf({ closed }, frame({ next: toPlay }))).toBe('closed');
  });

  it('keeps the frames of a fitting together, and shows no empty group', () => {
    const work = { station: 'aim', because: 'no-aim' } as const;
    const rows = [
      row('set', [frame({ next: work }), frame({ id: 'f2', next: work }), frame({ id: 'f3', next: toPlay })]),
      row('other', [frame({ next: work })]),
    ];
    expect(
      grouped(rows).map(({ group, entries }) => [group, entries.map((e) => `${e.row.id} ${e.first}`)]),
    ).toEqual([
      ['work', ['set true', 'set false', 'other true']],
      ['hand-over', ['set true']],
    ]);
  });

  it('says how long something still sets', () => {
    const now = Date.parse('2026-11-26T10:00:00.000Z');
    expect(leftWords('2026-11-26T12:10:00.000Z', now)).toBe('2 h 10 min left');
    expect(leftWords('2026-11-26T11:00:00.000Z', now)).toBe('1 h left');
    expect(leftWords('2026-11-26T10:25:00.000Z', now)).toBe('25 min left');
    expect(leftWords('2026-11-26T10:00:30.000Z', now)).toBe('under a minute left');
  });
});
