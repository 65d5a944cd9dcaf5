import { ALL_SPORTS, sportData, type Sport } from '../sport';
import { ALL_SPEC_KEYS, SPECS, byAnySpec, capital, type AnySpecKey, type SpecTraits } from '../spec';
import { G_PER_POUND, parseNumber, spelledScale, unitSpelt } from '../units';

/** The column of what was told of a spec, unit and all. @example REPORTED.massG // 'reportedWeight' */
export type ReportedField = `reported${Capitalize<(typeof SPECS)[AnySpecKey]['short']>}`;
export const REPORTED = byAnySpec((key) => `reported${capital(SPECS[key].short)}` as const);

/** What each of those columns has. @example byReported(({ name }) => `${name} as published`).reportedSwing // 'swing weight as published' */
export const byReported = <T>(of: (spec: SpecTraits) => T): Record<ReportedField, T> =>
  Object.fromEntries(ALL_SPEC_KEYS.map((key) => [REPORTED[key], of(SPECS[key])])) as Record<ReportedField, T>;

/** What a column of a list of setups can be. */
export const SETUP_FIELDS = [
  'name',
  'frameName',
  'paint',
  'sport',
  'shape',
  'lengthCm',
  'headAreaCm2',
  'headLengthCm',
  'headWidthCm',
  'handleLengthCm',
  ...ALL_SPEC_KEYS,
  'recoilWeight',
  'axisCm',
  'strings',
  'baseGrip',
  'overgrips',
  'dampener',
  'sourceKind',
  'source',
  'link',
  'year',
  'reportedOn',
  'confidence',
  'style',
  'pattern',
  'beam',
  'gripSize',
  'leftRightG',
  'note',
  'mains',
  'crosses',
  'gauge',
  'tension',
  ...Object.values(REPORTED),
  'line',
] as const;
export type SetupField = (typeof SETUP_FIELDS)[number];

/** A field's numbers come in one of these; the first is what they are kept in. */
export const FIELD_UNITS: Partial<Record<SetupField, readonly string[]>> = {
  ...Object.fromEntries(
    ALL_SPEC_KEYS.flatMap((key) =>
      SPECS[key].listUnits.length > 0 ? [[key, SPECS[key].listUnits] as const] : [],
    ),
  ),
  recoilWeight: ['kg·cm²'],
  axisCm: ['cm', 'mm', 'in'],
  lengthCm: ['cm', 'mm', 'in'],
  headAreaCm2: ['cm²', 'in²'],
  headLengthCm: ['cm', 'mm', 'in'],
  headWidthCm: ['cm', 'mm', 'in'],
  handleLengthCm: ['cm', 'mm', 'in'],
  leftRightG: ['g'],
};

/** What one column is: nothing, where it is left out. A unit is missing where it has to be asked for. */
export interface Column {
  field?: SetupField | undefined;
  unit?: string | undefined;
}

/** Names that columns go by, each for one field; all lower case, without units and marks (common practice). */
const NAMES: Record<SetupField, string> = {
  name: 'name|player|player name|who|pro|person|setup|athlete',
  frameName:
    'frame|frame name|racket|racquet|paddle|model|racket model|racquet model|frame underneath|underneath|mold',
  paint: 'paint|paint says|painted as|paintjob|cosmetic',
  sport: 'sport|game',
  shape: 'shape|head shape|paddle shape',
  lengthCm: 'length|frame length|overall length|len',
  headAreaCm2: 'head|head size|head area|face area|area|headsize|hs',
  headLengthCm: 'head length|face length',
  headWidthCm: 'head width|face width|width',
  handleLengthCm: 'handle length|handle',
  ...byAnySpec((key) => SPECS[key].spelt),
  recoilWeight: 'recoil weight|recoilweight|rw|recoil',
  axisCm: 'axis|swung about|swing axis|pivot',
  strings: 'strings on|strung|stringing|string state|state|dress',
  baseGrip: 'base grip|basegrip|replacement grip',
  overgrips: 'overgrips|overgrip|over grips|number of overgrips',
  dampener: 'dampener|dampner|vibration dampener',
  sourceKind: 'kind|kind of source|source kind|source type',
  source: 'source|where from|reference|reported by|where it comes from',
  link: 'link|url|web|website|address',
  year: 'year|season|yr',
  reportedOn: 'date|reported on|reported|day',
  confidence: 'confidence|trust|how sure',
  style: 'style|playing style|plays',
  pattern: 'pattern|string pattern',
  beam: 'beam|beam width|thickness',
  gripSize: 'grip size|handle size|grip',
  leftRightG: 'left right|left right difference|left heavier by',
  note: 'note|notes|comment|comments|remark|remarks',
  mains: 'mains|main strings|string|strings',
  crosses: 'crosses|cross strings',
  gauge: 'gauge|string gauge',
  tension: 'tension|string tension',
  ...byReported(({ name }) => `${name} as published|${name} as told|${name} as reported|reported ${name}`),
  line: 'line|specs|typed|text|numbers',
};
const FIELD_OF = new Map(
  SETUP_FIELDS.flatMap((field) => NAMES[field].split('|').map((name) => [name, field] as const)),
);

/** Ways in which columns write a unit that number fields do not know. */
const POINTS: Record<string, string> = Object.fromEntries(
  (
    [
      ['points head-light', 'pts hl|points hl|points head light|hl'],
      ['points head-heavy', 'pts hh|points hh|points head heavy|hh'],
    ] as const
  ).flatMap(([unit, spelt]) => spelt.split('|').map((one) => [one, unit])),
);

/** A column's name without its unit, and the unit, where it says one. */
function splitHeader(header: string): { name: string; unit: string | undefined } {
  const plain = header.normalize('NFKC').replace(/_/g, ' ').trim().toLowerCase();
  const bracketed = /^(.*?)\s*[([](.+?)[)\]]\s*$/.exec(plain);
  const parted = /^(.*?)\s*[,/]\s*(\S.*)$/.exec(plain);
  const last = /^(.+)\s(\S+)$/.exec(plain);
  for (const found of [bracketed, parted, last]) {
    if (!found) continue;
    const unit = unitNamed(found[2] ?? '');
    if (unit) return { name: tidy(found[1] ?? ''), unit };
  }
  return { name: tidy(bracketed?.[1] ?? plain), unit: undefined };
}
const tidy = (name: string): string => name.replace(/[^\p{L}\p{N}]+/gu, ' ').trim();
const KNOWN_UNITS = new Set(Object.values(FIELD_UNITS).flatMap((units) => [...(units ?? [])]));
/** NFKC writes a raised 2 as a plain one. */
const unitNamed = (text: string): string | undefined => {
  const plain = text.trim().replace('*', '·').replace(/cm2$/, 'cm²').replace(/in2$/, 'in²');
  const spelt = POINTS[plain] ?? unitSpelt(plain);
  return KNOWN_UNITS.has(spelt) ? spelt : undefined;
};

/** What one of a unit is in the first unit of a field; undefined for points, which need the length. */
export function fieldScale(field: SetupField, unit: string): number | undefined {
  if (field === 'massG' || field === 'leftRightG') return HEAVY[unit] ?? spelledScale('mass', unit);
  if (field === 'headAreaCm2') return spelledScale('area', unit);
  if (field === 'recoilWeight') return spelledScale('inertia', unit);
  return spelledScale(field in SPECS ? SPECS[field as AnySpecKey].measure : 'length', unit);
}
/** Units of weight in which a frame is told, but no number field takes it. */
const HEAVY: Record<string, number> = { kg: 1000, lb: G_PER_POUND };

/** Frames lie no more points than this from even (common practice). */
const MOST_POINTS = 12;

const middle = (values: readonly number[]): number =>
  values.toSorted((a, b) => a - b)[values.length >> 1] ?? 0;

/**
 * In which unit a column's plain numbers are: the only one in which the middle of them can be a frame's of the sport. Two that fit, or a sign whose meaning is
 * not said, are left open.
 */
export function unitByRange(field: SetupField, cells: readonly string[], sport: Sport): string | undefined {
  const units = FIELD_UNITS[field];
  const { plausible } = sportData(sport);
  const range = plausible[field as keyof typeof plausible] as readonly [number, number] | undefined;
  if (!units) return undefined;
  if (units.length === 1) return units[0];
  const numbers = cells.flatMap((cell) => parseNumber(cell) ?? []);
  if (!range || numbers.length === 0) return undefined;
  const value = middle(numbers);
  const fits = units.filter((unit) => {
    const scale = fieldScale(field, unit);
    if (scale !== undefined) return value * scale >= range[0] && value * scale <= range[1];
    // Points are small numbers; which way they count is said, never guessed.
    return Math.abs(value) <= MOST_POINTS;
  });
  return fits.length === 1 ? fits[0] : undefined;
}

/**
 * What the columns of a list are, from their names, the units in them, and their first cells. Each field is taken once; a column whose name says nothing is
 * left out, and a unit that is not clear is left open.
 * @param rows some of the first rows @param sport whose ranges decide between units where the list names none
 * @example guessColumns(['Player', 'Weight (oz)'], [['A. Rook', '11.9']], 'tennis')[1] // { field: 'massG', unit: 'oz' }
 */
export function guessColumns(
  headers: readonly string[],
  rows: readonly (readonly string[])[],
  sport: Sport,
): Column[] {
  const taken = new Set<SetupField>();
  const fields = headers.map((header) => {
    const { name, unit } = splitHeader(header);
    const field =
      FIELD_OF.get(name) ?? SETUP_FIELDS.find((f) => f.toLowerCase() === header.trim().toLowerCase());
    if (!field || taken.has(field)) return {};
    taken.add(field);
    return { field, unit };
  });
  const ofSport = fields.findIndex(({ field }) => field === 'sport');
  const named = ALL_SPORTS.filter((of) => rows.some((row) => row[ofSport]?.trim().toLowerCase() === of));
  // A list of several sports is read by the first that it names: their units are the same.
  const ranges = named[0] ?? sport;
  return headers.map((header, i): Column => {
    const { field, unit } = fields[i] ?? {};
    if (!field) return {};
    if (!FIELD_UNITS[field]) return { field };
    const known = FIELD_UNITS[field].includes(unit ?? '') ? unit : undefined;
    // Where the name is the field's own, so is the unit.
    const own = header.trim() === field ? FIELD_UNITS[field][0] : undefined;
    const cells = rows.map((row) => row[i] ?? '');
    return { field, unit: known ?? own ?? unitByRange(field, cells, ranges) };
  });
}
