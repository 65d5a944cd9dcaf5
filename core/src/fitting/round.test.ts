import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { PURPOSES, STATIONS, purposeChoice, roundState, type RoundRecords } from '.';

const NOW = '2026-11-25T10:00:00.000Z';
const empty: RoundRecords = {
  startId: null,
  compared: false,
  measurements: [],
  aims: [],
  plans: [],
  marks: [],
  signOffs: [],
  sessions: [],
};
const steps = [
  { key: 'weigh-before', kind: 'weigh-before' },
  { key: 'measure-trial', kind: 'measure-trial' },
  { key: 'fill', kind: 'fill-handle', waitMinutes: 60 },
  { key: 'final-check', kind: 'final-check' },
] as const;
const measured: RoundRecords = {
  ...empty,
  startId: 'm1',
  measurements: [{ id: 'm1', purpose: 'found', counts: true, supersededBy: null }],
};
const aimed: RoundRecords = { ...measured, aims: [{ id: 'a1' }] };
const planned: RoundRecords = { ...aimed, plans: [{ id: 'p1', aimId: 'a1', startId: 'm1', steps }] };
const mark = (step: string, at = NOW, as: RoundRecords['marks'][number]['mark'] = 'done') => ({
  planId: 'p1',
  step,
  mark: as,
  at,
  measurementId: step === 'final-check' && as === 'done' ? 'c1' : null,
});
const check = { id: 'c1', purpose: 'check' as const, counts: true, supersededBy: null };
const built: RoundRecords = {
  ...planned,
  measurements: [...planned.measurements, check],
  marks: steps.map(({ key }) => mark(key, '2026-11-24T10:00:00Z')),
};
const signed = (passed: boolean): RoundRecords => ({
  ...built,
  signOffs: [{ planId: 'p1', measurementId: 'c1', passed }],
});
const next = (records: RoundRecords, closed = false) => roundState(records, NOW, closed).next;

describe('the state of a round', () => {
  it('goes from one station to the next, each with its reason', () => {
    expect(next(empty)).toEqual({ station: 'measure', because: 'nothing-measured' });
    expect(next(measured)).toEqual({ station: 'compare', because: 'nothing-beside' });
    expect(next({ ...measured, compared: true })).toEqual({ station: 'aim', because: 'no-aim' });
    expect(next(aimed)).toEqual({ station: 'plan', because: 'no-plan' });
    expect(next(planned)).toEqual({ station: 'build', because: 'steps-left', step: 'weigh-before' });
    expect(next(built)).toEqual({ station: 'check', because: 'built' });
    expect(next(signed(true))).toEqual({ station: 'play', because: 'not-played' });
    expect(next(signed(false))).toEqual({ station: 'play', because: 'not-played' });
    expect(next({ ...signed(true), sessions: [{ id: 's', counts: true }] })).toBeUndefined();
    expect(next({ ...signed(true), sessions: [{ id: 's', counts: false }] })?.station).toBe('play');
    expect(next(planned, true)).toBeUndefined();
  });

  it('says what a blocked station stands on', () => {
    expect(roundState(empty, NOW).blockedBy).toMatchObject({
      compare: 'measure',
      aim: 'measure',
      plan: 'aim',
    });
    expect(roundState(planned, NOW).blockedBy).toEqual({ check: 'build', play: 'check' });
  });

  it('waits until what was done last has set, and goes on by itself', () => {
    const filled = { ...planned, marks: ['weigh-before', 'measure-trial', 'fill'].map((s) => mark(s)) };
    expect(roundState(filled, NOW).stations.build).toBe('waiting');
    expect(next(filled)).toEqual({
      station: 'build',
      because: 'setting',
      step: 'final-check',
      until: '2026-11-25T11:00:00.000Z',
    });
    const later = roundState(filled, '2026-11-25T11:00:01.000Z');
    expect(later.stations.build).toBe('due');
    expect(later.next?.because).toBe('steps-left');
  });

  it('counts a skipped step as over, and one that is opened again as open', () => {
    const marks = [
      mark('weigh-before'),
      mark('measure-trial', NOW, 'skipped'),
      mark('weigh-before', NOW, 'open'),
    ];
    const state = roundState({ ...planned, marks }, NOW);
    expect(state.next?.step).toBe('weigh-before');
    expect(state.steps['measure-trial']).toEqual({ mark: 'skipped', at: NOW });
  });

  it('lets a plan lapse by another aim, another start or another plan, and says by which', () => {
    const lapsed = (records: RoundRecords) => roundState(records, NOW).lapsed;
    expect(lapsed({ ...planned, aims: [{ id: 'a1' }, { id: 'a2' }] })).toEqual({ p1: 'another-aim' });
    expect(lapsed({ ...planned, startId: 'm2' })).toEqual({ p1: 'another-start' });
    const two = { ...planned, plans: [...planned.plans, { id: 'p2', aimId: 'a1', startId: 'm1', steps }] };
    expect(lapsed(two)).toEqual({ p1: 'another-plan' });
    expect(next({ ...planned, startId: 'm2' })).toEqual({ station: 'plan', because: 'plan-lapsed' });
  });

  it('lets a trim that starts from a check take the place of what was built', () => {
    const checked: RoundRecords = {
      ...built,
      plans: [...built.plans, { id: 'trim', aimId: 'a1', startId: 'c1', steps }],
    };
    expect(roundState(checked, NOW)).toMatchObject({ planId: 'trim', built: false });
  });
});

describe('what a measurement is for', () => {
  const choice = (records: RoundRecords) => purposeChoice(records, roundState(records, NOW));

  it('is plain where no plan stands, and asked where one does', () => {
    expect(choice(empty)).toEqual({ suggested: 'found', choices: ['found'] });
    expect(choice(aimed).choices).toEqual(['found']);
    expect(choice(planned)).toMatchObject({
      suggested: 'step',
      choices: ['trial', 'step', 'check', 'found'],
    });
    expect(choice({ ...planned, marks: [mark('weigh-before')] }).suggested).toBe('trial');
    expect(choice(built).suggested).toBe('check');
    expect(choice(signed(true)).suggested).toBe('later');
  });
});

/** One thing that happens to a round. */
type Event =
  | { kind: 'measured'; purpose: (typeof PURPOSES)[number]; start: boolean }
  | { kind: 'aimed' | 'planned' | 'played' | 'signed' }
  | { kind: 'marked'; step: number; mark: 'done' | 'skipped' | 'open' };
const event: fc.Arbitrary<Event> = fc.oneof(
  fc.record({
    kind: fc.constant('measured' as const),
    purpose: fc.constantFrom(...PURPOSES),
    start: fc.boolean(),
  }),
  fc.record({
    kind: fc.constantFrom('aimed' as const, 'planned' as const, 'played' as const, 'signed' as const),
  }),
  fc.record({
    kind: fc.constant('marked' as const),
    step: fc.nat(steps.length - 1),
    mark: fc.constantFrom('done' as const, 'skipped' as const, 'open' as const),
  }),
);

/** The records after an event, as the server would keep them: only what it would take is added. */
function after(records: RoundRecords, e: Event, i: number): RoundRecords {
  const { aimId, planId } = roundState(records, NOW);
  switch (e.kind) {
    case 'measured': {
      const id = `m${i}`;
      const starts = e.purpose === 'found' && e.start;
      return {
        ...records,
        measurements: [...records.measurements, { id, purpose: e.purpose, counts: true, supersededBy: null }],
        startId: starts ? id : records.startId,
      };
    }
    case 'aimed':
      return records.startId ? { ...records, aims: [...records.aims, { id: `a${i}` }] } : records;
    case 'planned':
      if (!aimId || !records.startId) return records;
      return {
        ...records,
        plans: [...records.plans, { id: `p${i}`, aimId, startId: records.startId, steps }],
      };
    case 'marked': {
      const step = steps[e.step]?.key;
      if (!planId || !step) return records;
      return {
        ...records,
        marks: [...records.marks, { planId, step, mark: e.mark, at: NOW, measurementId: null }],
      };
    }
    case 'signed':
      return planId
        ? {
            ...records,
            signOffs: [
              ...records.signOffs,
              { planId, measurementId: records.measurements.at(-1)?.id ?? '', passed: i % 2 === 0 },
            ],
          }
        : records;
    case 'played':
      return { ...records, sessions: [...records.sessions, { id: `s${i}`, counts: true }] };
  }
}

describe('a round in any order of calls (property)', () => {
  const history = fc.array(event, { maxLength: 25 });

  it('keeps its plan and its marks through every trial, step, check and later measurement', () => {
    fc.assert(
      fc.property(history, fc.constantFrom('trial', 'step', 'check', 'later'), (events, purpose) => {
        const records = events.reduce(after, empty);
        const before = roundState(records, NOW);
        const then = roundState(
          {
            ...records,
            measurements: [...records.measurements, { id: 'new', purpose, counts: true, supersededBy: null }],
          },
          NOW,
        );
        expect(then).toEqual(before);
      }),
    );
  });

  it('keeps its plan through a found measurement that is not made the start', () => {
    fc.assert(
      fc.property(history, (events) => {
        const records = events.reduce(after, empty);
        const then = after(records, { kind: 'measured', purpose: 'found', start: false }, 99);
        expect(roundState(then, NOW).planId).toBe(roundState(records, NOW).planId);
      }),
    );
  });

  it('has at most one plan that stands; every other one is said to have lapsed, and none is lost', () => {
    fc.assert(
      fc.property(history, (events) => {
        const records = events.reduce(after, empty);
        const { planId, lapsed } = roundState(records, NOW);
        const ids = records.plans.map(({ id }) => id);
        expect([...Object.keys(lapsed), ...(planId ? [planId] : [])].toSorted()).toEqual(ids.toSorted());
      }),
    );
  });

  it('never has a station done whose ground is not, and always says what is next until nothing is', () => {
    fc.assert(
      fc.property(history, (events) => {
        const { stations, next: due } = roundState(events.reduce(after, empty), NOW);
        if (stations.plan === 'done') expect(stations.aim).toBe('done');
        if (stations.build === 'done') expect(stations.plan).toBe('done');
        if (stations.check === 'done') expect(stations.build).toBe('done');
        const open = STATIONS.filter((s) => stations[s] === 'due' || stations[s] === 'waiting');
        expect(due?.station).toBe(open[0]);
      }),
    );
  });
});
