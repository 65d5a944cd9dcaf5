import { describe, expect, it } from 'vitest';
import {
  checkOf,
  hasWork,
  measuredIn,
  programmeOn,
  programmeStanding,
  roundState,
  signOffOf,
  stateInFrame,
  type MeasurementFact,
  type RoundRecords,
} from '.';

const NOW = '2026-11-25T10:00:00.000Z';
const m = (id: string, purpose: MeasurementFact['purpose'], more: Partial<MeasurementFact> = {}) => ({
  id,
  purpose,
  counts: true,
  supersededBy: null,
  ...more,
});
const mark = (measurementId: string | null, planId = 'p1') => ({
  planId,
  step: 'final-check',
  mark: 'done' as const,
  at: NOW,
  measurementId,
});
const checked: RoundRecords = {
  startId: 'm1',
  compared: true,
  measurements: [m('m1', 'found'), m('c1', 'check')],
  aims: [{ id: 'a1' }],
  plans: [
    { id: 'p1', aimId: 'a1', startId: 'm1', steps: [{ key: 'final-check', kind: 'final-check' as const }] },
  ],
  marks: [mark('c1')],
  signOffs: [{ planId: 'p1', measurementId: 'c1', passed: true }],
  sessions: [],
};
const corrected: RoundRecords = {
  ...checked,
  measurements: [
    m('m1', 'found'),
    m('c1', 'check', { counts: false, supersededBy: 'c2' }),
    m('c2', 'check', { counts: false, supersededBy: 'c3' }),
    m('c3', 'check'),
  ],
};

describe('the check of a build', () => {
  it('is the one that took its place where it was corrected, however often', () => {
    expect(checkOf(checked, 'p1')?.id).toBe('c1');
    expect(checkOf(corrected, 'p1')?.id).toBe('c3');
    expect(measuredIn(corrected)?.id).toBe('c3');
  });

  it('that was signed off and then corrected is to be signed off again', () => {
    expect(signOffOf(checked, 'p1')?.passed).toBe(true);
    expect(signOffOf(corrected, 'p1')).toBeUndefined();
    expect(roundState(checked, NOW).next?.station).toBe('play');
    expect(roundState(corrected, NOW).next).toEqual({ station: 'check', because: 'built' });
  });

  it('is the one before where a second one was discarded, with its sign-off', () => {
    const second = {
      ...checked,
      measurements: [...checked.measurements, m('c2', 'check', { counts: false })],
      marks: [...checked.marks, mark('c2')],
    };
    expect(checkOf(second, 'p1')?.id).toBe('c1');
    expect(signOffOf(second, 'p1')).toBeDefined();
  });

  it('is none where it was discarded, and another plan has its own', () => {
    const gone = { ...checked, measurements: [m('m1', 'found'), m('c1', 'check', { counts: false })] };
    expect(checkOf(gone, 'p1')).toBeUndefined();
    expect(roundState(gone, NOW).stations.check).toBe('due');
    expect(checkOf(checked, 'p2')).toBeUndefined();
    expect(measuredIn(gone)?.id).toBe('m1');
  });

  it('is found without an end where two measurements say that they took each other’s place', () => {
    const round = {
      ...checked,
      measurements: [
        m('c1', 'check', { counts: false, supersededBy: 'c2' }),
        m('c2', 'check', { supersededBy: 'c1' }),
      ],
    };
    expect(() => checkOf(round, 'p1')).not.toThrow();
  });
});

it('a fitting has work as soon as anything hangs on it', () => {
  const round = { id: 'r1', number: 1, aims: [], plans: [], sessions: [], measurements: [] };
  const empty = { rounds: [round], programmes: [], links: 0, followUps: 0 };
  expect(hasWork(empty)).toBe(false);
  // Where it starts was measured before it was opened.
  expect(hasWork({ ...empty, rounds: [{ ...round, measurements: [{ roundId: null }] }] })).toBe(false);
  const work = [
    { rounds: [{ ...round, measurements: [{ roundId: 'r1' }] }] },
    { rounds: [{ ...round, aims: [{}] }] },
    { rounds: [{ ...round, plans: [{}] }] },
    { rounds: [{ ...round, sessions: [{}] }] },
    { rounds: [round, { ...round, id: 'r2', number: 2 }] },
    { programmes: [{}] },
    { links: 1 },
    { followUps: 1 },
  ];
  for (const own of work) expect(hasWork({ ...empty, ...own }), JSON.stringify(own)).toBe(true);
});

describe('a programme in the rounds of its frame', () => {
  const played = (id: string, ...counts: boolean[]) => ({
    id,
    sessions: counts.map((counts, i) => ({ id: `${id}${i}`, counts })),
  });
  const programme = { roundId: 'r2', sessionsBefore: 1, events: [] };

  it('counts sessions from where it began, discarded ones too', () => {
    const rounds = [played('r1', true, true), played('r2', true, false), played('r3', true)];
    expect(programmeStanding(programme, rounds)).toMatchObject({ state: 'running', sessions: 2 });
  });

  it('is the one that is not ended', () => {
    const ended = { ...programme, events: [{ what: 'end' as const, sessions: 0, day: null }] };
    expect(programmeOn([ended, programme], [played('r2')])?.programme).toBe(programme);
    expect(programmeOn([ended], [played('r2')])).toBeUndefined();
  });

  it('asks for a session before its first step, though one was played before it began', () => {
    const state = (...counts: boolean[]) => {
      const round = played('r2', ...counts);
      const frame = { rounds: [round], programmes: [programme] };
      return stateInFrame({ ...checked, sessions: round.sessions }, { frame, roundId: 'r2' }, NOW, false)
        .next;
    };
    expect(state(true)).toEqual({ station: 'play', because: 'not-played' });
    expect(state(true, false)).toEqual({ station: 'play', because: 'not-played' });
    expect(state(true, true)).toEqual({ station: 'play', because: 'step-due' });
  });
});
