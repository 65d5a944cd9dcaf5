import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { jobAfter, type StringStep } from '../part';
import { SPORTS } from '../sport';
import {
  PROGRAMMES,
  nextStep,
  suggestProgramme,
  type Noted,
  type Played,
  type ProgrammeRequest,
  type Proposal,
} from '.';

const shape = { sport: 'tennis', lengthCm: 68.58 } as const;
const specs = { massG: 318, balanceCm: 32.2, swingWeight: 302, twistWeight: 13.4 };
const good: Noted = { energyLeft: 'plenty', arm: 'fine', depth: 'good' };
const long: Noted = { ...good, depth: 'long' };
const short: Noted = { ...good, depth: 'short' };
const armTired: Noted = { ...good, arm: 'tired' };
const sore: Noted = { ...good, arm: 'sore' };
const bed = { mainsKg: 24, crossesKg: 23, mainsKind: 'polyester', unit: 'kg' } as const;
const ask = (history: readonly Played[], more: Partial<ProgrammeRequest> = {}): Proposal =>
  nextStep({ programme: 'strings-first', shape, specs, history, bed, ...more });
const played = (...all: (readonly [StringStep | undefined, Noted?])[]): Played[] =>
  all.map(([strings, session]) => ({ change: [], strings, session }));
const tighter: StringStep = { change: 'tighter', byKg: 1 };
const looser: StringStep = { change: 'looser', byKg: 1 };

describe('strings first', () => {
  it.each<[string, Played[], Partial<Proposal>]>([
    [
      'balls fly long: tighter by 1 kg, of 1 to 1.5 (common practice)',
      played([undefined, long]),
      { state: 'go-on', strings: tighter, reason: 'flies-long' },
    ],
    [
      'balls fall short: looser',
      played([undefined, short]),
      { state: 'go-on', strings: looser, reason: 'falls-short' },
    ],
    [
      'new strings wait to be played',
      played([undefined, long], [tighter]),
      { state: 'go-on', reason: 'play-first' },
    ],
    ['still long: tighter again', played([undefined, long], [tighter, long]), { strings: tighter }],
    [
      'tighter was too far: half of it back, and that is it',
      played([undefined, long], [tighter, short]),
      { state: 'done', strings: { change: 'looser', byKg: 0.5 }, reason: 'too-far' },
    ],
    [
      'an arm that tires: looser (common practice)',
      played([undefined, armTired]),
      { state: 'go-on', strings: looser, reason: 'arm-tires' },
    ],
    [
      'it still tires: softer than polyester is nylon (common practice)',
      played([undefined, armTired], [looser, armTired]),
      { strings: { change: 'softer', to: 'nylon' } },
    ],
    [
      'an arm that tires after tighter strings: back',
      played([undefined, long], [tighter, { ...armTired, depth: 'long' }]),
      { state: 'done', strings: looser, reason: 'arm-tires' },
    ],
    [
      'less spin: thinner',
      played([undefined, { ...good, spin: 'less' }]),
      { strings: { change: 'thinner' }, reason: 'no-bite' },
    ],
    ['balls land where they should', played([undefined, good]), { state: 'done', reason: 'strings-suit' }],
    [
      'nobody said where balls landed',
      played([undefined, { energyLeft: 'plenty', arm: 'fine' }]),
      { state: 'go-on', reason: 'say-depth' },
    ],
    [
      'too heavy as it is: strings do not make it lighter',
      played([undefined, { energyLeft: 'none', arm: 'fine', depth: 'long' }]),
      { state: 'done', reason: 'tired-as-found' },
    ],
    [
      'three changes: weight is next',
      played([undefined, long], [tighter, long], [tighter, long], [tighter, long]),
      { state: 'done', reason: 'weight-next' },
    ],
    [
      'sore after tighter strings: back, and it stops',
      played([undefined, long], [tighter, sore]),
      { state: 'stopped', strings: looser, reason: 'sore' },
    ],
    [
      'said once',
      played([undefined, long], [tighter, sore], [looser, good]),
      { state: 'stopped', reason: 'sore' },
    ],
  ])('%s', (_what, history, expected) => {
    const found = ask(history);
    expect(found).toMatchObject({ change: [], ...expected });
    expect(found.strings).toEqual(expected.strings);
    expect(found.specs).toMatchObject(specs);
  });

  it('strings that are due are changed before their tension is', () => {
    expect(ask(played([undefined, long]), { bed: { ...bed, isDue: true } })).toMatchObject({
      strings: { change: 'newer' },
      reason: 'dead-strings',
    });
    expect(ask(played([undefined, long], [{ change: 'newer' }, long]))).toMatchObject({ strings: tighter });
  });

  it('badminton goes by its own steps; no tension leaves what the sport strings with; paddles have no strings', () => {
    const shuttle = { sport: 'badminton', lengthCm: 67.5 } as const;
    const light = { massG: 88, balanceCm: 30, swingWeight: 70 };
    const found = ask(played([undefined, long]), { shape: shuttle, specs: light, bed: { mainsKg: 11 } });
    expect(found.strings).toEqual({ change: 'tighter', byKg: SPORTS.badminton.stringing?.stepKg[0] });
    expect(ask(played([undefined, long]), { bed: { mainsKg: 35.5 } })).toMatchObject({
      reason: 'weight-next',
    });
    const paddle = { sport: 'padel', lengthCm: 45.5 } as const;
    expect(() =>
      ask(played([undefined, long]), {
        shape: paddle,
        specs: { ...light, massG: 365, balanceCm: 26, swingWeight: 140 },
      }),
    ).toThrow('no-strings');
  });

  it('suits where strings answer, never after a sore arm, nor where nothing is strung', () => {
    const about = { growing: false, soreArm: false, ceilingKnown: true, strung: true };
    expect(suggestProgramme({ ...about, last: long })).toBe('strings-first');
    expect(suggestProgramme({ ...about, last: armTired })).toBe('strings-first');
    expect(suggestProgramme({ ...about, last: { ...armTired, energyLeft: 'none' } })).toBe('trim-evenly');
    expect(suggestProgramme({ ...about, last: { ...long, arm: 'sore' } })).toBe('after-sore-arm');
    expect(suggestProgramme({ ...about, strung: false, last: long })).toBe('climb');
  });

  const session = fc.record<Noted>(
    {
      energyLeft: fc.constantFrom('plenty', 'enough', 'little', 'none'),
      arm: fc.constantFrom('fine', 'fine', 'tired', 'sore'),
      depth: fc.constantFrom('short', 'good', 'long'),
      spin: fc.constantFrom('less', 'same'),
    },
    { requiredKeys: ['energyLeft', 'arm'] },
  );
  it('never two levers at once, nothing tighter for an arm that is not fine, and it comes to an end (property)', () => {
    fc.assert(
      fc.property(fc.array(session, { minLength: 12, maxLength: 12 }), (sessions) => {
        const history: Played[] = [{ change: [], session: sessions[0] }];
        for (const next of sessions.slice(1)) {
          const found = ask(history);
          expect(found.change).toEqual([]);
          const last = history.at(-1)?.session;
          if (last?.arm !== 'fine' || history.some(({ session: one }) => one?.arm === 'sore'))
            expect(found.strings?.change).not.toBe('tighter');
          if (found.state !== 'go-on') return;
          history.push({ change: [], strings: found.strings, session: next });
        }
        expect(history.filter(({ strings }) => strings).length).toBeLessThanOrEqual(3);
      }),
    );
  });
  it('no other programme touches strings (property)', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...PROGRAMMES),
        fc.array(session, { minLength: 1, maxLength: 4 }),
        (programme, sessions) => {
          const history = sessions.map((one): Played => ({ change: [], session: one }));
          const found = nextStep({
            programme,
            shape,
            specs,
            history,
            bed,
            towards: { massG: 330, swingWeight: 326 },
          });
          if (programme !== 'strings-first') expect(found.strings).toBeUndefined();
        },
      ),
    );
  });
});

describe('a stringing job', () => {
  const now = {
    mains: 'nylon 1.30',
    crosses: 'nylon 1.30',
    mainsKg: 24,
    crossesKg: 23,
    mainsMm: 1.3,
    crossesMm: 1.3,
  };
  it('is the same string at another tension', () => {
    expect(jobAfter(now, looser)).toEqual({ ...now, mainsKg: 23, crossesKg: 22, step: looser });
  });
  it('names no string where another is to be chosen', () => {
    const softer = jobAfter(now, { change: 'softer', to: 'gut' });
    expect(softer).toMatchObject({ mainsKind: 'gut', crossesKind: 'gut', mainsKg: 24 });
    expect(softer.mains).toBeUndefined();
    expect(jobAfter(now, { change: 'thinner' }).mainsMm).toBeCloseTo(1.25, 9);
  });
});
