/** How a spec follows from where weight lies: summed up, as a moment, as an inertia about the hand's axis or the long axis; not at all for a rating. */
export type AddsUp = 'mass' | 'moment' | 'swing' | 'twist' | 'not';

/** All that is said of a spec in one place: lanes, forms, tables, lists, files, errors, prints and SQL read it here. */
export interface SpecTraits {
  /** As it is said within a sentence. */
  name: string;
  /** One word for it, where there is little room and in the address of a list. */
  short: string;
  /** What names a column of it in a list, all lower case, without units (common practice). */
  spelt: string;
  /** The unit that it is kept in; none for a rating. */
  unit: '' | 'g' | 'cm' | 'kg·cm²';
  /** What a typed number of it measures, and the units that a list may have it in: the first is the one it is kept in. */
  measure: 'mass' | 'length' | 'inertia' | 'number';
  listUnits: readonly string[];
  /** Its column in SQL, in measurements and setups. */
  column: string;
  addsUp: AddsUp;
  /** Least and most as shares of what a frame of the sport usually is: beyond, a digit or a unit is wrong (common practice, from memory). */
  stated?: readonly [number, number];
  /** Between what a rating lies: it has no usual value to be judged by. */
  within?: readonly [number, number];
  /** The least width of its lane as a share of what it shows, so that small differences stay small on frames of every weight. */
  laneShare: number;
  /** Which way more of it goes, as a person says it. */
  sides: readonly [more: string, less: string];
}

const OVER = ['over', 'under'] as const;
export const SPECS = {
  massG: {
    name: 'weight',
    short: 'weight',
    spelt: 'weight|mass|static weight|total weight|wt|static',
    unit: 'g',
    measure: 'mass',
    listUnits: ['g', 'oz', 'kg', 'lb'],
    column: 'mass_g',
    addsUp: 'mass',
    stated: [0.3, 2.5],
    laneShare: 0.075,
    sides: OVER,
  },
  balanceCm: {
    name: 'balance',
    short: 'balance',
    spelt: 'balance|balance point|bal|bp|bal pt|bal point|bal pts',
    unit: 'cm',
    measure: 'length',
    listUnits: ['cm', 'mm', 'in', 'points head-light', 'points head-heavy'],
    column: 'balance_cm',
    addsUp: 'moment',
    laneShare: 0.06,
    sides: ['toward the tip', 'toward the butt'],
  },
  swingWeight: {
    name: 'swing weight',
    short: 'swing',
    spelt: 'swing weight|swingweight|sw|swing',
    unit: 'kg·cm²',
    measure: 'inertia',
    listUnits: ['kg·cm²'],
    column: 'swing_weight',
    addsUp: 'swing',
    stated: [0.1, 2.5],
    laneShare: 0.11,
    sides: OVER,
  },
  twistWeight: {
    name: 'twist weight',
    short: 'twist',
    spelt: 'twist weight|twistweight|tw|twist',
    unit: 'kg·cm²',
    measure: 'inertia',
    listUnits: ['kg·cm²'],
    column: 'twist_weight',
    addsUp: 'twist',
    stated: [0.1, 5],
    laneShare: 0.18,
    sides: OVER,
  },
  // How far a frame bends under a load, as its maker or a machine says it: for paddles and shafts nobody agrees on a number.
  stiffness: {
    name: 'stiffness',
    short: 'stiffness',
    spelt: 'stiffness|flex|ra',
    unit: '',
    measure: 'number',
    listUnits: [],
    column: 'stiffness',
    addsUp: 'not',
    within: [0, 120],
    laneShare: 0.18,
    sides: ['stiffer', 'softer'],
  },
} as const satisfies Record<string, SpecTraits>;

export type AnySpecKey = keyof typeof SPECS;
/** Those that follow from where weight lies: they can be aimed at and planned for. */
export type SpecKey = {
  [K in AnySpecKey]: (typeof SPECS)[K]['addsUp'] extends 'not' ? never : K;
}[AnySpecKey];
/** Whether weight changes it, so that it can be aimed at. @example isPlanned('massG') // true */
export const isPlanned = (key: AnySpecKey): key is SpecKey => (SPECS[key].addsUp as AddsUp) !== 'not';
/** All specs, in the order in which they are shown. */
export const ALL_SPEC_KEYS = Object.keys(SPECS) as readonly AnySpecKey[];
/** The four that weight changes, in the order in which they are shown. */
export const SPEC_KEYS = ALL_SPEC_KEYS.filter((key): key is SpecKey => isPlanned(key));

/** Numbers that weight does not change: measured, compared and shown, never aimed at. */
export type RatingKey = Exclude<AnySpecKey, SpecKey>;
export const RATING_KEYS = ALL_SPEC_KEYS.filter((key): key is RatingKey => !isPlanned(key));
export type Ratings = Partial<Record<RatingKey, number>>;
/** What ratings have; one of which nothing is known is left out. @example ratingsBy((key) => settled[key]?.value) */
export const ratingsBy = <T>(of: (key: RatingKey) => T | undefined): Partial<Record<RatingKey, T>> =>
  Object.fromEntries(
    RATING_KEYS.map((key) => [key, of(key)]).filter(([, value]) => value !== undefined),
  ) as Partial<Record<RatingKey, T>>;
/** The ratings of specs, as they are: whatever is put on a frame leaves them. @example ratingsOf({ massG: 300 }) // {} */
export const ratingsOf = (specs: KnownSpecs): Ratings => ratingsBy((key) => specs[key]);
/** The four, and each rating that one of these knows. @example specsToShow([{ massG: 300 }]).length // 4 */
export const specsToShow = (known: readonly (KnownSpecs | undefined)[]): AnySpecKey[] =>
  ALL_SPEC_KEYS.filter((key) => isPlanned(key) || known.some((of) => of?.[key] !== undefined));

/** A spec as it is said within a sentence. @example specName('swingWeight') // 'swing weight' */
export const specName = (key: AnySpecKey): string => SPECS[key].name;

/** With a capital first letter. @example capital('swing weight') // 'Swing weight' */
export const capital = <S extends string>(text: S): Capitalize<S> =>
  (text.charAt(0).toUpperCase() + text.slice(1)) as Capitalize<S>;

/** Any of them; one that is not known is left out. */
export type KnownSpecs = Partial<Record<AnySpecKey, number>>;

/** What each of the four has. @example bySpec(() => 1).massG // 1 */
export const bySpec = <T>(of: (key: SpecKey) => T): Record<SpecKey, T> =>
  Object.fromEntries(SPEC_KEYS.map((key) => [key, of(key)])) as Record<SpecKey, T>;
/** What every spec has, ratings too. @example byAnySpec(specName).balanceCm // 'balance' */
export const byAnySpec = <T>(of: (key: AnySpecKey) => T): Record<AnySpecKey, T> =>
  Object.fromEntries(ALL_SPEC_KEYS.map((key) => [key, of(key)])) as Record<AnySpecKey, T>;
