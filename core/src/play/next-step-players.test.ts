import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { predict } from '../mass';
import { seededNormals, seededUniforms } from '../measure';
import { SPORTS, type Sport } from '../sport';
import {
  ARM,
  ENERGY,
  OFTEN,
  PROGRAMMES,
  nextStep,
  programmesOf,
  type Day,
  type Felt,
  type Played,
  type Programme,
  type Proposal,
  type ZoneChange,
} from '.';

const SPORT_NAMES = Object.keys(SPORTS) as Sport[];
const shape = { sport: 'tennis', lengthCm: 68.58 } as const;
const specs = { massG: 318, balanceCm: 32.2, swingWeight: 302, twistWeight: 13.4 };
const good: Felt = { energyLeft: 'plenty', arm: 'fine' };
const tired: Felt = { energyLeft: 'little', late: 'sometimes', arm: 'fine' };
const twisting: Felt = { ...good, twists: 'sometimes' };
const none: readonly ZoneChange[] = [];
const tip = (massG: number): ZoneChange[] => [{ zone: 'tip', massG }];
const handle = (massG: number): ZoneChange[] => [{ zone: 'handle', massG }];
const played = (...all: (readonly [readonly ZoneChange[], Felt?])[]): Played[] =>
  all.map(([change, session]) => ({ change, session }));
const towards = { massG: 330, swingWeight: 326 };
const next = (programme: Programme, history: readonly Played[]): Proposal =>
  nextStep({ programme, shape, specs, history, towards });

const felt: fc.Arbitrary<Felt> = fc.record({
  energyLeft: fc.constantFrom(...ENERGY),
  late: fc.constantFrom(...OFTEN),
  twists: fc.constantFrom(...OFTEN),
  firmVolleys: fc.constantFrom('yes' as const, 'no' as const),
  arm: fc.constantFrom(...ARM),
});
/** A programme as it is really played: each step is what was proposed, each answer is anything at all. */
function follow(programme: Programme, answers: readonly Felt[]): { history: Played[]; last: Proposal } {
  const history: Played[] = [];
  let last = next(programme, history);
  for (const session of answers) {
    history.push({ change: last.change, session });
    last = next(programme, history);
    if (last.state !== 'go-on') break;
  }
  return { history, last };
}

describe('whatever a player answers (property)', () => {
  const programme = fc.constantFrom(...PROGRAMMES);

  it('a sore arm stops it, and nothing is added after it', () => {
    fc.assert(
      fc.property(programme, fc.array(felt, { maxLength: 8 }), (which, answers) => {
        const { history } = follow(
          which,
          answers.filter(({ arm }) => arm !== 'sore'),
        );
        const sore = [...history, { change: none, session: { ...good, arm: 'sore' as const } }];
        const stopped = next(which, sore);
        expect(stopped.state).toBe('stopped');
        expect(stopped.change.every(({ massG }) => massG <= 0)).toBe(true);
        // However well it plays once lighter: the programme is over.
        const later = next(which, [...sore, { change: stopped.change, session: good }]);
        expect([later.state, later.change]).toEqual(['stopped', []]);
      }),
    );
  });

  it('who is tired is given nothing more to carry, whatever was changed by hand', () => {
    const grams = fc.record({
      zone: fc.constantFrom('tip' as const, 'handle' as const),
      massG: fc.double({ min: -3, max: 3, noNaN: true }),
    });
    const one = fc.record({ change: fc.array(grams, { maxLength: 2 }), session: felt });
    fc.assert(
      fc.property(programme, fc.array(one, { minLength: 1, maxLength: 5 }), (which, history) => {
        const last = history.at(-1) as (typeof history)[number];
        last.session = { ...tired };
        const { change } = nextStep({ programme: which, shape, specs, history, towards, there: tip(20) });
        const more = change.reduce((all, { massG }) => all + massG, 0);
        expect(more).toBeLessThan(1e-9);
      }),
    );
  });

  /** As a hand cuts: never to the hundredth what was asked for. */
  const cut = (change: readonly ZoneChange[], by: () => number): ZoneChange[] =>
    change.map(({ zone, massG }) => ({ zone, massG: massG * (1 + 0.02 * by()) }));
  const anySport = fc.constantFrom(...SPORT_NAMES);

  it('after a sore or tired session nothing loads more, in grams or in swing weight, on no day, and whatever was moved by hand', () => {
    const day = fc.constantFrom<Day>('usual', 'hot-fast', 'cold-slow');
    fc.assert(
      fc.property(
        programme,
        anySport,
        day,
        fc.array(felt, { minLength: 2, maxLength: 12 }),
        fc.integer(),
        fc.boolean(),
        (which, sport, on, answers, seed, byHand) => {
          fc.pre(programmesOf(sport).includes(which));
          const normal = seededNormals(seed);
          const { usual, lengthCm, programmeSteps } = SPORTS[sport];
          const there = [
            { zone: 'tip' as const, massG: 1.5 * programmeSteps.tipG },
            { zone: 'handle' as const, massG: programmeSteps.handleG },
          ];
          const history: Played[] = [];
          const ask = (): Proposal =>
            nextStep({
              programme: which,
              shape: { sport, lengthCm },
              specs: usual,
              history,
              there,
              towards: { massG: 1.05 * usual.massG, swingWeight: 1.06 * usual.swingWeight },
              day: on,
            });
          let step = ask();
          for (const session of answers) {
            const now = predict(
              { sport, lengthCm },
              usual,
              history.flatMap(({ change }) => change.map(({ zone, massG }) => ({ massG, at: { zone } }))),
            ).specs;
            const before = history.findLast(({ session: one }) => one)?.session;
            const hard =
              before &&
              (before.arm !== 'fine' ||
                ['little', 'none'].includes(before.energyLeft) ||
                before.late === 'often');
            if (hard) {
              expect(step.specs.massG).toBeLessThan(now.massG + 1e-9);
              expect(step.specs.swingWeight).toBeLessThan(now.swingWeight + 1e-9);
            }
            // A fitter may move weight from the tip to the sides of their own accord: taking that back would load.
            const moved =
              byHand && step.change.length === 0 && history.length === 1
                ? [
                    { zone: 'tip' as const, massG: -programmeSteps.tipG },
                    { zone: 'sides' as const, massG: 1.01 * programmeSteps.tipG },
                  ]
                : cut(step.change, normal);
            history.push({ change: moved, session });
            step = ask();
            if (step.state !== 'go-on') break;
          }
        },
      ),
      { numRuns: 300 },
    );
  });

  it('takes back what was moved from the tip to the sides without loading the tip again: the weight at the sides comes off', () => {
    const moved: ZoneChange[] = [...tip(-3.98), { zone: 'sides', massG: 4.03 }];
    const sore = played([none, twisting], [moved, { ...good, arm: 'sore' }]);
    const found = nextStep({ programme: 'settle-face', shape, specs, history: sore, there: tip(6) });
    expect(found).toMatchObject({ state: 'stopped', reason: 'sore' });
    expect(found.change).toEqual([{ zone: 'sides', massG: -4.03 }]);
  });

  it('no zone takes more than its cap, and a full one ends it with what to do instead', () => {
    fc.assert(
      fc.property(programme, anySport, fc.integer(), (which, sport, seed) => {
        fc.pre(programmesOf(sport).includes(which));
        const normal = seededNormals(seed);
        const { usual, lengthCm, zones } = SPORTS[sport];
        const history: Played[] = [];
        const lies = new Map<string, number>();
        const goOn: Felt = { energyLeft: 'plenty', arm: 'fine', twists: 'often', firmVolleys: 'no' };
        for (let n = 0; n < 40; n++) {
          const step = nextStep({
            programme: which,
            shape: { sport, lengthCm },
            specs: usual,
            history,
            towards: { massG: 1.4 * usual.massG, swingWeight: 1.5 * usual.swingWeight },
          });
          for (const { zone, massG } of step.change) {
            const cap = zones.find(({ name }) => name === zone)?.capG ?? 0;
            if (massG > 0) expect((lies.get(zone) ?? 0) + massG).toBeLessThan(cap + 1e-9);
          }
          if (step.state !== 'go-on') return;
          const laid = cut(step.change, normal);
          for (const { zone, massG } of laid) lies.set(zone, (lies.get(zone) ?? 0) + massG);
          history.push({ change: laid, session: goOn });
        }
        throw new Error(`${which} does not end`);
      }),
    );
    const full = nextStep({
      programme: 'find-ceiling',
      shape,
      specs,
      history: played([none, good]),
      there: tip(8),
    });
    expect(full).toMatchObject({ state: 'done', change: [], reason: 'no-room', full: ['tip'] });
    const noPart = nextStep({
      programme: 'quiet-handle',
      shape,
      specs,
      history: played([none, { ...good, firmVolleys: 'no' }]),
      caps: { handle: 0 },
    });
    expect(noPart).toMatchObject({ state: 'done', reason: 'no-room', full: ['handle'] });
  });

  it.each(['climb', 'after-sore-arm'] as const)(
    '%s ends for somebody who stays tired, and for one who is good every other time',
    (which) => {
      for (const answer of [() => tired, (n: number) => (n % 2 ? good : tired)]) {
        const history: Played[] = [];
        let step = nextStep({ programme: which, shape, specs, history, there: tip(3) });
        for (let n = 0; n < 30 && step.state === 'go-on'; n++) {
          history.push({ change: step.change, session: answer(n) });
          step = nextStep({ programme: which, shape, specs, history, there: tip(3) });
        }
        expect(step).toMatchObject({ state: 'done', reason: 'stays-tired' });
        expect(step.change.every(({ massG }) => massG < 0)).toBe(true);
      }
    },
  );

  it('half-way also goes to a lighter frame: off the head first, then out of the handle, as far as something lies there', () => {
    const there = [...tip(5), ...handle(8)];
    const lighter = { massG: 305, swingWeight: 282 };
    const history = played([none, good]);
    const ask = (): Proposal =>
      nextStep({ programme: 'half-way', shape, specs, history, there, towards: lighter });
    for (const reason of ['half-way-head', 'half-way-handle'] as const) {
      const step = ask();
      expect(step).toMatchObject({ state: 'go-on', reason });
      expect(step.change.every(({ massG }) => massG < 0)).toBe(true);
      history.push({ change: step.change, session: good });
    }
    const found = ask();
    expect(found).toMatchObject({ state: 'done', reason: 'half-way' });
    expect(Math.abs(found.specs.swingWeight - (specs.swingWeight + 282) / 2)).toBeLessThan(1.5);
    expect(Math.abs(found.specs.massG - (specs.massG + 305) / 2)).toBeLessThan(1);
    const bare = nextStep({
      programme: 'half-way',
      shape,
      specs,
      history: played([none, good]),
      towards: lighter,
    });
    expect(bare).toMatchObject({ state: 'done', change: [], reason: 'nothing-left' });
  });

  it('it comes to an end, takes off no more than it put on, and its specs are those of all its changes', () => {
    fc.assert(
      fc.property(programme, fc.array(felt, { minLength: 40, maxLength: 40 }), (which, answers) => {
        const { history, last } = follow(which, answers);
        const net = new Map<string, number>();
        for (const { zone, massG } of [...history.flatMap(({ change }) => change), ...last.change])
          net.set(zone, (net.get(zone) ?? 0) + massG);
        for (const massG of net.values()) expect(massG).toBeGreaterThan(-1e-9);
        const added = [...net.values()].reduce((all, one) => all + one, 0);
        expect(last.specs.massG).toBeCloseTo(specs.massG + added, 9);
      }),
    );
  });
});

describe('players with a ceiling that nobody knows', () => {
  const RUNS = 500;
  const usualOf = (sport: Sport) => {
    const { usual, axisCm } = SPORTS[sport];
    return { ...usual, axisCm };
  };
  const shapes = {
    tennis: shape,
    padel: { sport: 'padel', lengthCm: 45.5, shape: 'round' },
    pickleball: { sport: 'pickleball', lengthCm: 40.6, headWidthCm: 19.7 },
    badminton: { sport: 'badminton', lengthCm: 67.5 },
  } as const;

  it.each(SPORT_NAMES.flatMap((sport) => [0.33, 0.5, 0.8].map((noise) => [sport, noise] as const)))(
    '%s: what is stated holds in 90 to 98 of 100 of 500 runs where answers are noisy by %s of a step',
    (sport, noise) => {
      const uniform = seededUniforms(11);
      const normal = seededNormals(12);
      // As many steps as the tip takes.
      const most =
        (SPORTS[sport].zones.find(({ name }) => name === 'tip')?.capG ?? 0) /
        SPORTS[sport].programmeSteps.tipG;
      let [found, holds] = [0, 0];
      for (let run = 0; run < RUNS; run++) {
        const before = usualOf(sport);
        const history: Played[] = [];
        const ask = () =>
          nextStep({ programme: 'find-ceiling', shape: shapes[sport], specs: before, history });
        const oneStep =
          nextStep({
            programme: 'find-ceiling',
            shape: shapes[sport],
            specs: before,
            history: [{ change: [], session: good }],
          }).specs.swingWeight - before.swingWeight;
        const ceiling = before.swingWeight + (0.5 + (most - 0.5) * uniform()) * oneStep;
        let step = ask();
        while (step.state === 'go-on') {
          // What is felt is the distance to the ceiling, give or take the noise.
          const room = (ceiling - step.specs.swingWeight) / oneStep + noise * normal();
          const energyLeft = room > 1 ? 'plenty' : room > 0 ? 'enough' : room > -1 ? 'little' : 'none';
          history.push({ change: step.change, session: { energyLeft, arm: 'fine' } });
          step = ask();
        }
        if (!step.ceiling) continue;
        found++;
        if (Math.abs(step.ceiling.swingWeight - ceiling) <= 2 * step.ceiling.uncertainty) holds++;
      }
      // Who is tired with the frame as it is, or not with all that the tip takes, has no ceiling found.
      expect(found).toBeGreaterThan(0.7 * RUNS);
      expect(holds / found).toBeGreaterThan(0.9);
      if (noise >= 0.5) expect(holds / found).toBeLessThan(0.985);
    },
  );
});
