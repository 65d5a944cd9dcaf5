import {
  byReported,
  ALL_SPORTS,
  BASE_GRIPS,
  CONFIDENCES,
  FIELD_UNITS,
  Fault,
  SOURCE_KINDS,
  ALL_SPEC_KEYS,
  REPORTED,
  SPECS,
  byAnySpec,
  type AnySpecKey,
  fieldScale,
  parseBalance,
  parseNumber,
  parseSpecs,
  recoilWeight,
  settleFrame,
  sportData,
  statedProblems,
  type Column,
  type Dress,
  type Problem,
  type SetupField,
  type Sport,
} from '@kevro/core';
import type { z } from 'zod';
import { fieldError, sentence, type ErrorCode } from '../errors';
import { newSetup } from '../records/setup';
import { fieldErrors } from '../zod-errors';
import type { Assumed } from './setup-mapping';

export type SetupToStore = z.output<typeof newSetup>;

/** One thing wrong in a row: which field, and a sentence. */
export interface CellProblem {
  field?: SetupField | undefined;
  code: ErrorCode;
  message: string;
}
export type ReadSetup = { setup: SetupToStore } | { problems: CellProblem[] };

const YES = new Set(['yes', 'y', 'true', '1', 'x', 'strung', 'on', 'ja', 'oui', 'si', 'sí']);
const NO = new Set(['no', 'n', 'false', '0', 'unstrung', 'off', 'none', 'bare', 'nein', 'non']);
/** Which column a complaint of the schema is about. */
function fieldAt(path: string): SetupField | undefined {
  const [first = '', second = ''] = path.split('.');
  if (first === 'asReported') return REPORTED[second as AnySpecKey];
  const name = ['specs', 'shape', 'facts', 'strings', 'dress'].includes(first) && second ? second : first;
  return name in HEADERS ? (name as SetupField) : undefined;
}

/** Reads the cells of one row. */
class Row {
  readonly problems: CellProblem[] = [];
  private readonly cells = new Map<SetupField, { text: string; unit: string | undefined }>();

  constructor(cells: readonly string[], columns: readonly Column[]) {
    columns.forEach(({ field, unit }, i) => {
      // What was made harmless for a spreadsheet is read as it was; so are blanks of every kind.
      const text = (cells[i] ?? '')
        .replace(/[\u00a0\u2009\u202f]/g, ' ')
        .trim()
        .replace(/^'(?=[=+\-@\t\r])/, '');
      if (field && text !== '') this.cells.set(field, { text, unit });
    });
  }

  text(field: SetupField): string | undefined {
    return this.cells.get(field)?.text;
  }
  get empty(): boolean {
    return this.cells.size === 0;
  }
  wrong(field: SetupField, code: ErrorCode, values?: Record<string, string | number>): undefined {
    this.problems.push({ field, code, message: sentence(code, values) });
    return undefined;
  }
  /** A choice said by its first letters or whole. */
  choice<T extends string>(field: SetupField, choices: readonly T[]): T | undefined {
    const text = this.text(field)?.toLowerCase();
    if (text === undefined) return undefined;
    const found = choices.find((choice) => text === choice || text.startsWith(choice));
    return found ?? this.wrong(field, 'not-among-choices', { choices: choices.join(', ') });
  }
  yes(field: SetupField): boolean | undefined {
    const text = this.text(field)?.toLowerCase();
    if (text === undefined) return undefined;
    if (YES.has(text)) return true;
    if (NO.has(text)) return false;
    return this.wrong(field, 'not-among-choices', { choices: 'yes, no' });
  }
  number(field: SetupField): number | undefined {
    const text = this.text(field);
    if (text === undefined) return undefined;
    return parseNumber(text) ?? this.wrong(field, 'not-a-number');
  }
  /** A number with its unit, in the first unit of its field; one without any is in the column's. */
  measure(field: SetupField): number | undefined {
    const cell = this.cells.get(field);
    if (!cell) return undefined;
    const [, number = '', said = ''] = /^(.*?\d[.,]?)\s*([^\d.,]*)$/.exec(cell.text) ?? [];
    const value = parseNumber(number);
    if (value === undefined) return this.wrong(field, 'not-a-number');
    const own = said.trim().toLowerCase();
    if (own === '' && cell.unit === undefined) {
      return this.wrong(field, 'no-unit', { choices: (FIELD_UNITS[field] ?? []).join(', ') });
    }
    const scale = fieldScale(field, own === '' ? (cell.unit as string) : own);
    return scale === undefined ? this.wrong(field, 'not-a-number') : value * scale;
  }
  spec(key: AnySpecKey, lengthCm: number): number | undefined {
    if (key === 'balanceCm') return this.balance(lengthCm);
    return SPECS[key].listUnits.length === 0 ? this.number(key) : this.measure(key);
  }
  balance(lengthCm: number): number | undefined {
    const cell = this.cells.get('balanceCm');
    if (!cell) return undefined;
    if (/[a-z"]/i.test(cell.text)) {
      return parseBalance(cell.text, 'cm', lengthCm) ?? this.wrong('balanceCm', 'not-a-number');
    }
    if (!cell.unit?.startsWith('points')) return this.measure('balanceCm');
    const points = parseNumber(cell.text.replace('−', '-'));
    if (points === undefined) return this.wrong('balanceCm', 'not-a-number');
    const way = cell.unit === 'points head-heavy' ? 'HH' : 'HL';
    return parseBalance(`${points} ${way}`, 'cm', lengthCm);
  }
  strings(): Dress['strings'] {
    const text = this.text('strings')?.toLowerCase();
    const weighed = text === undefined ? undefined : /^([\d.,]+)\s*g$/.exec(text)?.[1];
    if (weighed === undefined) return this.yes('strings');
    return { massG: parseNumber(weighed) ?? 0 };
  }
}

const known = <T extends object>(of: T): Partial<T> =>
  Object.fromEntries(
    Object.entries(of).filter(([, value]) => value !== undefined && value !== ''),
  ) as Partial<T>;

/** A dress without what is not on it: two that say the same are the same. */
export function plainDress({ strings, baseGrip, overgrips, dampener }: Dress): Dress {
  return {
    ...(strings ? { strings } : {}),
    ...(baseGrip && baseGrip !== 'none' ? { baseGrip } : {}),
    ...(overgrips ? { overgrips } : {}),
    ...(dampener ? { dampener } : {}),
  };
}

const said = (problem: Problem): CellProblem => {
  const { path, code, message } = fieldError(problem);
  return { field: fieldAt(path), code, message };
};

/** What is wrong with shapes, as far as they were looked at: a list has few of them. */
const judged = new Map<string, CellProblem[]>();
const MOST_JUDGED = 2000;
function shapeProblems(shape: SetupToStore['shape']): CellProblem[] {
  const key = JSON.stringify(shape);
  const known = judged.get(key);
  if (known) return known;
  if (judged.size >= MOST_JUDGED) judged.clear();
  let problems: CellProblem[] = [];
  try {
    settleFrame(shape);
  } catch (error) {
    if (!(error instanceof Fault)) throw error;
    problems = error.problems.map(said);
  }
  judged.set(key, problems);
  return problems;
}

/** What is wrong with a setup that reads well: a shape or numbers that cannot be. */
export function setupProblems({ shape, specs }: Pick<SetupToStore, 'shape' | 'specs'>): CellProblem[] {
  const problems = shapeProblems(shape);
  return problems.length > 0
    ? problems
    : statedProblems(specs, sportData(shape.sport), shape.lengthCm).map(said);
}

/** Specs with the axis of their source, where the sport quotes more than one and the row says none. */
function aboutAxis<S extends { swingWeight?: number | undefined; axisCm?: number | undefined }>(
  sport: Sport,
  specs: S,
  { axisCm }: Assumed,
): S {
  const asks = sportData(sport).quotedAxesCm !== undefined && specs.swingWeight !== undefined;
  return asks && specs.axisCm === undefined && axisCm !== undefined ? { ...specs, axisCm } : specs;
}

/** Specs with the swing weight that follows from a recoil weight about the balance point, where a row tells that one alone (parallel axes). */
function withSwing<S extends Partial<Record<'massG' | 'balanceCm' | 'swingWeight' | 'axisCm', number>>>(
  specs: S,
  recoil: number,
  usualAxisCm: number,
): S {
  const { massG, balanceCm, swingWeight, axisCm = usualAxisCm } = specs;
  if (massG === undefined || balanceCm === undefined || swingWeight !== undefined) return specs;
  const about = recoil - recoilWeight({ massG, balanceCm, swingWeight: 0, axisCm });
  return { ...specs, swingWeight: Number(about.toFixed(1)), axisCm };
}

/**
 * One row of a list as a setup, or what is wrong with it, cell by cell. A typed line among the cells gives what the other cells do not.
 * @param columns what each cell is @param assume what holds where the row does not say
 * @returns undefined for a row without anything in it
 */
export function readSetupCells(
  cells: readonly string[],
  columns: readonly Column[],
  assume: Assumed,
): ReadSetup | undefined {
  const row = new Row(cells, columns);
  if (row.empty) return undefined;
  const sport: Sport = row.choice('sport', ALL_SPORTS) ?? assume.sport;
  const { shapes, lengthCm: usual } = sportData(sport);
  const line = row.text('line');
  const typed = line === undefined ? undefined : parseSpecs(line, sport, row.measure('lengthCm'));
  const year = /\b(?:19|20)\d\d\b/.exec(typed?.leftover ?? '')?.[0];
  const named = (typed?.leftover ?? '')
    .replace(year ?? '', '')
    .replace(/[\s,;:–-]+$/, '')
    .trim();

  const shape = row.text('shape')?.toLowerCase() ?? typed?.shape.shape;
  const lengthCm = row.measure('lengthCm') ?? typed?.shape.lengthCm ?? shapes[shape ?? '']?.lengthCm ?? usual;
  const dress = known({
    strings: row.strings(),
    baseGrip: row.choice('baseGrip', BASE_GRIPS),
    overgrips: row.number('overgrips'),
    dampener: row.yes('dampener'),
  });
  const stated = known({
    ...byAnySpec((key) => row.spec(key, lengthCm)),
    axisCm: row.measure('axisCm'),
  });
  const recoil = row.measure('recoilWeight');
  const specs = recoil === undefined ? stated : withSwing(stated, recoil, sportData(sport).axisCm);
  const given = {
    name: row.text('name') ?? named,
    frameName: row.text('frameName'),
    paint: row.text('paint'),
    sourceKind: row.choice('sourceKind', SOURCE_KINDS) ?? assume.sourceKind,
    source: row.text('source') ?? assume.source,
    link: row.text('link'),
    year: row.number('year') ?? (year === undefined ? undefined : Number(year)),
    reportedOn: row.text('reportedOn'),
    confidence: row.choice('confidence', CONFIDENCES) ?? assume.confidence,
    style: row.text('style'),
    shape: known({
      sport,
      lengthCm,
      shape,
      headAreaCm2: row.measure('headAreaCm2') ?? typed?.shape.headAreaCm2,
      headLengthCm: row.measure('headLengthCm'),
      headWidthCm: row.measure('headWidthCm'),
      handleLengthCm: row.measure('handleLengthCm'),
    }),
    dress: plainDress({ ...assume.dress, ...typed?.dress, ...dress }),
    specs: aboutAxis(sport, { ...typed?.specs, ...specs }, assume),
    asReported: known(
      Object.fromEntries(
        ALL_SPEC_KEYS.map((key) => [key, row.text(REPORTED[key]) ?? told(row, key, columns)]),
      ),
    ),
    facts: known({
      pattern: row.text('pattern') ?? typed?.shape.pattern,
      beam: row.text('beam'),
      gripSize: row.text('gripSize'),
      leftRightG: row.measure('leftRightG'),
      note: row.text('note'),
    }),
    strings: known({
      mains: row.text('mains'),
      crosses: row.text('crosses'),
      gauge: row.text('gauge'),
      tension: row.text('tension'),
    }),
  };
  if (row.problems.length > 0) return { problems: row.problems };
  const read = newSetup.safeParse(known(given), { reportInput: true });
  if (!read.success) {
    return {
      problems: fieldErrors(read.error.issues).map(({ path, code, message }) => ({
        field: fieldAt(path),
        code,
        message,
      })),
    };
  }
  const problems = setupProblems(read.data);
  return problems.length > 0 ? { problems } : { setup: read.data };
}

/** A value as it was told, where it was told in a unit of its own: what it was brought to says nothing new. */
function told(row: Row, key: AnySpecKey, columns: readonly Column[]): string | undefined {
  const text = row.text(key);
  const recoil = row.text('recoilWeight');
  if (key === 'swingWeight' && text === undefined && recoil !== undefined) return `recoil weight ${recoil}`;
  const unit = columns.find(({ field }) => field === key)?.unit;
  const [kept] = FIELD_UNITS[key] ?? [];
  if (text === undefined || (unit === kept && !/[a-z"]/i.test(text))) return undefined;
  return /[a-z"]/i.test(text) || unit === undefined ? text : `${text} ${unit}`;
}

const header = (name: string, unit: string): string => (unit ? `${name} (${unit})` : name);
/** The columns of an exported list, in order, by names that are read back as what they are. */
export const HEADERS: Record<SetupField, string> = {
  name: 'name',
  frameName: 'frame',
  paint: 'paint',
  sport: 'sport',
  shape: 'shape',
  lengthCm: 'length (cm)',
  headAreaCm2: 'head size (cm²)',
  headLengthCm: 'head length (cm)',
  headWidthCm: 'head width (cm)',
  handleLengthCm: 'handle length (cm)',
  ...byAnySpec((key) => header(SPECS[key].name, SPECS[key].unit)),
  recoilWeight: 'recoil weight (kg·cm²)',
  axisCm: 'swung about (cm)',
  strings: 'strings on',
  baseGrip: 'base grip',
  overgrips: 'overgrips',
  dampener: 'dampener',
  sourceKind: 'kind of source',
  source: 'source',
  link: 'link',
  year: 'year',
  reportedOn: 'date',
  confidence: 'confidence',
  style: 'style',
  pattern: 'pattern',
  beam: 'beam',
  gripSize: 'grip size',
  leftRightG: 'left right (g)',
  note: 'note',
  mains: 'mains',
  crosses: 'crosses',
  gauge: 'gauge',
  tension: 'tension',
  ...byReported(({ name }) => `${name} as published`),
  line: 'line',
};
/** What is read and never written: a typed line, and what a swing weight was worked out from. */
const READ_ONLY: readonly SetupField[] = ['line', 'recoilWeight'];
export const EXPORTED = (Object.keys(HEADERS) as SetupField[]).filter((field) => !READ_ONLY.includes(field));

/** A setup as the cells of a list, which reads back as the same setup. */
export function setupCells(setup: SetupToStore): (string | number)[] {
  const { shape, dress, specs, facts, strings, asReported } = setup;
  const strung = dress.strings;
  const cells: Partial<Record<SetupField, string | number | null | undefined>> = {
    ...shape,
    ...specs,
    ...facts,
    ...strings,
    name: setup.name,
    frameName: setup.frameName,
    paint: setup.paint,
    sourceKind: setup.sourceKind,
    source: setup.source,
    link: setup.link,
    year: setup.year,
    reportedOn: setup.reportedOn,
    confidence: setup.confidence,
    style: setup.style,
    strings: typeof strung === 'object' ? `${strung.massG} g` : strung ? 'yes' : 'no',
    baseGrip: dress.baseGrip ?? 'none',
    overgrips: dress.overgrips ?? 0,
    dampener: dress.dampener ? 'yes' : 'no',
    ...Object.fromEntries(ALL_SPEC_KEYS.map((key) => [REPORTED[key], asReported[key]])),
  };
  return EXPORTED.map((field) => cells[field] ?? '');
}
