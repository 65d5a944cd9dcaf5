import fc from 'fast-check';

export const SPORTS = ['tennis', 'pickleball', 'padel', 'badminton', 'cricket'];
export const number = fc.oneof(
  fc.double({ min: -50, max: 500, noNaN: true }),
  fc.constantFrom(0, -0, 1e-9, 1e9, -1e300, 5e-324, 10.16, 68.58),
);
export const maybe = <T>(value: fc.Arbitrary<T>): fc.Arbitrary<unknown> =>
  fc.oneof(
    { weight: 9, arbitrary: value as fc.Arbitrary<unknown> },
    { weight: 1, arbitrary: fc.jsonValue() },
  );
export const some = (model: Record<string, fc.Arbitrary<unknown>>): fc.Arbitrary<unknown> =>
  fc.record(model, { requiredKeys: [] });
export const within = (min: number, max: number): fc.Arbitrary<number> =>
  fc.double({ min, max, noNaN: true });
export const often = (good: fc.Arbitrary<unknown>, wild: fc.Arbitrary<unknown>): fc.Arbitrary<unknown> =>
  fc.oneof({ weight: 9, arbitrary: good }, { weight: 1, arbitrary: maybe(wild) });
export const specs = often(
  fc.record(
    {
      massG: within(250, 380),
      balanceCm: within(20, 36),
      swingWeight: within(260, 400),
      twistWeight: within(5, 25),
    },
    { requiredKeys: ['massG', 'balanceCm', 'swingWeight'] },
  ),
  some({
    massG: maybe(number),
    balanceCm: maybe(number),
    swingWeight: maybe(number),
    twistWeight: maybe(number),
    axisCm: number,
  }),
);
export const shape = often(
  fc.oneof(
    fc.record({ sport: fc.constantFrom('tennis', 'badminton'), lengthCm: within(66, 74) }),
    fc.record({
      sport: fc.constant('padel'),
      lengthCm: within(44, 47),
      shape: fc.constantFrom('round', 'diamond'),
    }),
    fc.record({ sport: fc.constant('pickleball'), lengthCm: within(39, 44), headWidthCm: within(15, 22) }),
  ),
  some({
    sport: fc.constantFrom(...SPORTS),
    lengthCm: number,
    headAreaCm2: number,
    headLengthCm: number,
    headWidthCm: number,
    handleLengthCm: number,
    shape: fc.constantFrom('round', 'elongated', 'none of these'),
  }),
);
export const whole = (
  model: Record<string, fc.Arbitrary<unknown>>,
  required: string[],
): fc.Arbitrary<unknown> => often(fc.record(model, { requiredKeys: required }), some(model));
export const spot = fc.oneof(
  fc.record({ clock: often(within(0, 12), number) }),
  some({ xCm: number, yCm: number }),
  fc.record({ zone: fc.constantFrom('tip', 'butt', 'throat', 'slotHeart', 'moon') }),
);
export const dress = some({
  strings: fc.oneof(fc.boolean(), fc.record({ massG: number })),
  baseGrip: fc.constantFrom('leather', 'felt'),
  overgrips: fc.integer({ min: -1, max: 8 }),
  dampener: fc.boolean(),
});
export const target = some({
  value: often(within(1, 400), number),
  tolerance: often(within(0.1, 3), number),
  priority: fc.constantFrom('must', 'want', 'free', 'perhaps'),
});
export const someSpecs = often(
  fc.record(
    {
      massG: within(250, 380),
      balanceCm: within(20, 36),
      swingWeight: within(260, 400),
      twistWeight: within(5, 25),
      axisCm: within(0, 12),
    },
    { requiredKeys: [] },
  ),
  specs,
);
export const setups = fc.array(fc.record({ id: fc.string(), specs: someSpecs }), { maxLength: 4 });
export const ZONES = ['tip', 'sides', 'throat', 'handle', 'slotHeart', 'moon'];
export const placement = whole(
  {
    zone: fc.constantFrom(...ZONES),
    massG: often(within(0.5, 12), number),
    xCm: often(within(2, 44), number),
    yCm: often(within(0, 10), number),
    mirrored: fc.boolean(),
    spanCm: often(within(0.5, 10), number),
    layers: fc.integer({ min: 1, max: 3 }),
  },
  ['zone', 'massG', 'xCm', 'yCm', 'mirrored'],
);
export const placements = fc.array(placement, { maxLength: 3 });
export const aim = some({ massG: target, balanceCm: target, swingWeight: target, twistWeight: target });
export const u = within(0, 1);
export const readingU = fc.oneof(u, fc.record({ random: u, common: u }));
export const instruments = often(
  fc.record(
    { massG: readingU, balanceCm: readingU, swingWeight: readingU, twistWeight: readingU },
    { requiredKeys: [] },
  ),
  some({ massG: number, swingWeight: some({ random: number, common: number }) }),
);
export const quantumG = often(fc.constantFrom(0.5, 2), fc.constantFrom(-1, 0, 1e9));

/** Bodies that are nearly right: every path behind the schema is walked too. */
export const BODIES: Record<string, fc.Arbitrary<unknown>> = {
  predict: whole(
    {
      shape,
      specs,
      additions: fc.array(
        whole(
          {
            massG: often(within(-3, 15), number),
            at: spot,
            spanCm: often(within(0.5, 14), number),
            mirrored: fc.boolean(),
          },
          ['massG', 'at'],
        ),
        { maxLength: 3 },
      ),
    },
    ['shape', 'specs', 'additions'],
  ),
  redress: whole({ shape, specs, from: dress, to: dress }, ['shape', 'specs', 'from', 'to']),
  shiftAxis: whole({ specs, toAxisCm: often(within(0, 20), number) }, ['specs', 'toAxisCm']),
  plan: whole(
    {
      shape,
      specs,
      target: aim,
      schools: fc.array(fc.constantFrom('free', 'tip', 'ends', 'sides', 'balance-keeping'), { maxLength: 2 }),
      quantumG,
      margin: fc.boolean(),
      locked: fc.array(placement, { maxLength: 1 }),
      caps: some({ tip: often(within(0, 12), number), butt: often(within(0, 30), number) }),
    },
    ['shape', 'specs', 'target'],
  ),
  chance: whole(
    {
      shape,
      specs,
      placements,
      target: aim,
      densityShare: often(within(0, 0.2), number),
      placingCm: often(within(0, 1), number),
      start: instruments,
      uncertainty: instruments,
      sameInstruments: fc.boolean(),
      drift: often(fc.record({ swingWeight: u }), some({ swingWeight: number })),
    },
    ['shape', 'specs', 'placements', 'target'],
  ),
  readings: whole(
    {
      shape,
      specs,
      placements,
      target: aim,
      start: instruments,
      uncertainty: instruments,
      sameInstruments: fc.boolean(),
      wanted: often(within(0.5, 0.99), number),
    },
    ['shape', 'specs', 'target'],
  ),
  trim: whole({ shape, specs, placements, target: aim, quantumG }, [
    'shape',
    'specs',
    'placements',
    'target',
  ]),
  lighten: whole({ placements, share: often(within(0, 1), number), quantumG }, ['placements', 'share']),
  commonAim: whole(
    {
      frames: fc.array(fc.record({ id: fc.string(), shape, specs }), { minLength: 1, maxLength: 3 }),
      keys: fc.subarray(['massG', 'swingWeight', 'twistWeight'], { minLength: 1 }),
    },
    ['frames'],
  ),
  sensitivity: whole({ shape, specs, massG: often(within(0.1, 20), number) }, ['shape', 'specs']),
  nearest: whole({ specs, setups, sport: fc.constantFrom('tennis', 'padel') }, ['specs', 'setups']),
  pendulum: whole(
    {
      massG: often(within(250, 400), number),
      balanceCm: often(within(28, 36), number),
      pivotCm: often(within(0, 8), number),
      swings: often(fc.integer({ min: 1, max: 40 }), number),
      seconds: often(within(20, 60), number),
      amplitudeDeg: often(within(0, 40), number),
      axisCm: often(within(0, 12), number),
      uncertainty: some({ massG: within(0, 2), seconds: within(0, 1) }),
    },
    ['massG', 'balanceCm', 'pivotCm', 'swings', 'seconds'],
  ),
  twist: whole(
    {
      faceOn: fc.array(often(within(300, 310), number), { minLength: 1, maxLength: 4 }),
      edgeOn: fc.array(often(within(310, 330), number), { maxLength: 4 }),
      readingUncertainty: often(within(0, 2), number),
    },
    ['faceOn', 'edgeOn'],
  ),
  reach: whole({ shape, specs, setups }, ['shape', 'specs', 'setups']),
  nextStep: whole(
    {
      programme: fc.constantFrom(
        'find-ceiling',
        'settle-face',
        'quiet-handle',
        'trim-evenly',
        'climb',
        'after-sore-arm',
      ),
      sport: fc.constant('tennis'),
      shape: often(fc.constant({ sport: 'tennis', lengthCm: 68.58 }), shape),
      specs,
      history: fc.array(
        whole(
          {
            change: fc.array(
              fc.record({ zone: fc.constantFrom('tip', 'sides', 'handle', 'slotTip'), massG: within(-5, 8) }),
              { maxLength: 2 },
            ),
            session: fc.record({
              energyLeft: fc.constantFrom('plenty', 'little', 'none'),
              arm: fc.constantFrom('fine', 'tired', 'sore'),
            }),
          },
          ['change'],
        ),
        { maxLength: 4 },
      ),
    },
    ['programme', 'sport', 'shape', 'specs', 'history'],
  ),
  guards: whole(
    {
      sport: fc.constant('tennis'),
      shape: often(fc.constant({ sport: 'tennis', lengthCm: 68.58 }), shape),
      specs,
      dress: some({ strings: fc.boolean(), overgrips: fc.integer({ min: 0, max: 3 }) }),
      target: aim,
      player: some({ age: within(6, 80), ceilingSwingWeight: within(250, 380), soreArm: fc.boolean() }),
    },
    ['sport', 'shape', 'specs', 'dress', 'target'],
  ),
  shapeAdvice: whole(
    {
      first: fc.constantFrom('hands', 'power', 'forgiveness', 'reach', 'luck'),
      misHits: fc.constantFrom('tip', 'sides'),
      from: fc.constantFrom('other-racket-sport', 'new'),
    },
    ['first'],
  ),
  parseSpecs: whole(
    {
      text: fc.string({ maxLength: 60 }),
      sport: often(fc.constantFrom('tennis', 'padel'), fc.constantFrom(...SPORTS)),
    },
    ['text'],
  ),
};

/** Calls that search are asked less often. */
