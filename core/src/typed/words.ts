import { type RatingKey } from '../spec';
import { G_PER_OUNCE, G_PER_POUND, spelledScale } from '../units';
import type { Specs } from '../mass';

/** What a number of the line may be. */
export type Means = Exclude<keyof Specs, RatingKey> | 'lengthCm' | 'headAreaCm2';
export type Dimension = 'mass' | 'length' | 'area' | 'inertia';

type Unit = readonly [Dimension, number];
/** Spellings of units that number fields know too: what one of them is stands there. */
const known = (dimension: Dimension, spelt: string): [string, Unit][] =>
  spelt.split(' ').map((unit) => [unit, [dimension, spelledScale(dimension, unit) ?? Number.NaN]]);
/** Spellings and units that only fitters' lines have. */
const alike = (dimension: Dimension, spelt: string, scale: number): [string, Unit][] =>
  spelt.split(' ').map((unit) => [unit, [dimension, scale]]);

export const UNITS: Record<string, Unit> = Object.fromEntries([
  ...known('mass', 'g gr gram grams oz ounce ounces'),
  ...alike('mass', 'grs gm gms gramm', 1),
  ...alike('mass', 'ozs', G_PER_OUNCE),
  ...alike('mass', 'lb lbs pound pounds', G_PER_POUND),
  ...alike('mass', 'kg', 1000),
  ...known('length', 'mm cm in inch inches "'),
  ...known('area', 'cm2 in2'),
  ...known('inertia', 'kgcm2'),
]);
/** Units in which tension is said too: a number that cannot be a frame's weight is no second weight then. */
export const TENSION_UNITS = ['kg', 'lb', 'lbs', 'pound', 'pounds'];

/** Words that say what the next number is: they bind it. Single letters do so only right before a number. */
export const LABELS: Record<string, Means> = {
  mass: 'massG',
  w: 'massG',
  m: 'massG',
  balance: 'balanceCm',
  b: 'balanceCm',
  sw: 'swingWeight',
  s: 'swingWeight',
  tw: 'twistWeight',
  t: 'twistWeight',
  axis: 'axisCm',
  length: 'lengthCm',
  len: 'lengthCm',
  long: 'lengthCm',
  lang: 'lengthCm',
  area: 'headAreaCm2',
};
/** Labels that may stand after their number too. */
export const LABELS_AFTER = ['axis', 'balance', 'sw', 'tw', 'length', 'long', 'lang', 'mass'];
export const DIMENSION: Record<Means, Dimension> = {
  massG: 'mass',
  balanceCm: 'length',
  lengthCm: 'length',
  axisCm: 'length',
  headAreaCm2: 'area',
  swingWeight: 'inertia',
  twistWeight: 'inertia',
};

const words = (text: string): ReadonlySet<string> => new Set(text.split(' '));
/** Words and marks that take the next number away from the frame: it is of something else, a guess, or a wish. */
export const VETO_BEFORE = words(
  'lead tape tungsten putty silicone beam core gauge handle grip strings string tension at @ incl including limit nearly almost under below over above max min maximum minimum thickness thick width wide stiffness flex ra price size mains crosses from between to target aim goal want wants need needs add added adds adding plus minus less remove sleeve bumper hoop tip butt throat screw screws recoil price age for by sub < > ≤ ≥ $ € £ #',
);
/** Words and marks before a number that is meant as it is typed, as near as anybody knows. */
export const ABOUT = words('about approx approximately around circa ca roughly ~');
/** Words and marks that do so from behind. */
export const VETO_AFTER = words(
  'lead tape tungsten putty silicone beam core gauge handle thick thickness wide width tension at under on inside more less heavier lighter extra added each ish approx max min or ? % + ° oclock',
);
/** Marks that part a line into pieces of which each is about one thing. */
export const PARTS = words(', ; | ( ) [ ]');

export const COUNT: Record<string, number> = {
  no: 0,
  without: 0,
  with: 1,
  one: 1,
  an: 1,
  a: 1,
  two: 2,
  three: 3,
  four: 4,
};
