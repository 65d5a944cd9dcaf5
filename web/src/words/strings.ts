import {
  KG_PER_POUND,
  kindNamed,
  kindsOf,
  readTension,
  specName,
  tensionOf,
  type Lever,
  type Sport,
  type StringChange,
  type StringDue,
  type StringKind,
  type StringingJob,
  type TensionSpread,
  type WeightLever,
} from '@kevro/core';
import {
  STRING_KIND_NAMES,
  stringStepWords,
  type Setup,
  type StringBed,
  type Stringing,
} from '@kevro/contract';
import { counted } from './counted';
import { dayWords } from './days';

export const KIND_ITEMS = (Object.keys(STRING_KIND_NAMES) as StringKind[]).map((value) => ({
  value,
  title: STRING_KIND_NAMES[value],
}));

export type TensionUnit = Stringing['unit'];
/** A tension without its unit, in the one in which its strings were said. */
export const inTension = (kg: number, unit: TensionUnit): string =>
  (unit === 'lb' ? kg / KG_PER_POUND : kg).toFixed(1).replace(/\.0$/, '');
export const tensionWords = ({
  mainsKg,
  crossesKg,
  unit,
}: Pick<Stringing, 'mainsKg' | 'crossesKg' | 'unit'>): string =>
  `${inTension(mainsKg, unit)}${mainsKg === crossesKg ? '' : ` / ${inTension(crossesKg, unit)}`} ${unit}`;

export function stringWords(s: Stringing): string {
  const gauge = (mm: number | null): string => (mm === null ? '' : ` ${mm.toFixed(2)} mm`);
  const mains = `${s.mains}${gauge(s.mainsMm)}`;
  const crosses = `${s.crosses}${gauge(s.crossesMm)}`;
  const parts = [mains === crosses ? mains : `${mains} / ${crosses}`, tensionWords(s)];
  if (s.preStretchPercent > 0) parts.push(`pre-stretched ${s.preStretchPercent} %`);
  if (s.by) parts.push(`by ${s.by}`);
  if (s.note) parts.push(s.note);
  return parts.join(' · ');
}

/** How new strings are to go in: «nylon 1.30 mm, 25 / 24 kg». */
export function jobWords(job: StringingJob): string {
  const { mains, crosses = mains, mainsKind, crossesKind = mainsKind, mainsMm, crossesMm = mainsMm } = job;
  const one = (name: string | undefined, kind: StringKind | undefined, mm: number | undefined): string =>
    [name || (kind ? STRING_KIND_NAMES[kind] : ''), mm === undefined ? '' : `${mm.toFixed(2)} mm`]
      .filter(Boolean)
      .join(' ');
  const named = [one(mains, mainsKind, mainsMm), one(crosses, crossesKind, crossesMm)].filter(Boolean);
  const { mainsKg, crossesKg = mainsKg, unit = 'kg' } = job;
  const tension =
    mainsKg === undefined || crossesKg === undefined ? '' : tensionWords({ mainsKg, crossesKg, unit });
  const wanted = tension ? '' : job.step ? stringStepWords(job.step, unit) : '';
  return [[...new Set(named)].join(' / '), tension, wanted].filter(Boolean).join(', ');
}
/** Where the shop says nothing else (common practice). */
export const USUAL_ORDER = 'Mains from the middle out, then crosses from the head down';
/** What there is to know while they go in: pre-stretch, and the order of mains and crosses. */
export const stringingWords = (
  { preStretchPercent = 0 }: StringingJob = {},
  order = USUAL_ORDER,
): string[] => [
  ...(preStretchPercent > 0 ? [`Pre-stretch ${preStretchPercent} % before it goes in.`] : []),
  order.endsWith('.') ? order : `${order}.`,
];

/** «about 19.8 kg ±1.6, estimated» */
export function leftWords(bed: StringBed): string {
  const left = tensionOf(bed.stringing, bed);
  if (!left) return '';
  const { unit, readings } = bed.stringing;
  const about = `about ${inTension(left.kg, unit)} ${unit} ±${inTension(2 * left.uncertainty, unit)}`;
  const read = readings.at(-1);
  if (!read) return `${about}, estimated`;
  const measured = `${inTension(read.kg, unit)} ${unit} measured ${dayWords(read.on)}${read.with ? ` (${read.with})` : ''}`;
  return left.share > 0.995 ? measured : `${measured}; now ${about}, estimated`;
}

/** «23 days, 6 h of play» */
export const useWords = ({ days, hours, sessions, notedHours }: StringBed): string => {
  const played = hours >= 0.5 ? `, ${hours.toFixed(0)} h of play` : '';
  const noted =
    hours > notedHours
      ? ' as somebody says'
      : sessions > 0
        ? ` in ${counted(sessions, 'session', 'sessions')}`
        : '';
  return `${counted(days, 'day', 'days')}${played}${played ? noted : ''}`;
};
const DUE_WORDS: Record<StringDue, (bed: Pick<StringBed, 'days' | 'hours'>) => string> = {
  days: ({ days }) => `${counted(days, 'day', 'days')} in`,
  hours: ({ hours }) => `${hours.toFixed(0)} h played`,
  felt: () => 'two sessions in a row went long or lost spin',
};
/** Why strings are due: «190 days in, 24 h played» */
export const dueWords = (bed: Pick<StringBed, 'days' | 'hours' | 'due'>): string =>
  bed.due.map((one) => DUE_WORDS[one](bed)).join(', ');

/** What a change of strings is for, and what it gives up. */
const CHANGE_WORDS: Record<StringChange, { why: string; givesUp: string }> = {
  newer: { why: 'dead strings let balls fly', givesUp: 'nothing' },
  tighter: { why: 'balls fly less far', givesUp: 'power, and some comfort' },
  looser: { why: 'more power, easier on the arm', givesUp: 'control' },
  softer: { why: 'less shock to the arm', givesUp: 'control, and how long they last' },
  thinner: { why: 'more bite on the ball', givesUp: 'how long they last' },
  thicker: { why: 'lasts longer', givesUp: 'bite' },
  opener: { why: 'more bite on the ball', givesUp: 'another frame, strings that last' },
};
/** What sessions here say of a lever. */
const LEARNED_WORDS = {
  suits: 'suited players here',
  against: 'players here were happier the other way',
};
/** «swing weight down, twist weight up» */
export const movesWords = (moves: WeightLever['moves']): string =>
  moves.map(({ key, up }) => `${specName(key)} ${up ? 'up' : 'down'}`).join(', ');
/** @example leverWords({ lever: 'strings', change: 'tighter', byKg: [1, 1.5], costs: 1 }, 'kg').what // tighter strings, by 1 to 1.5 kg */
export function leverWords(lever: Lever, unit: TensionUnit): { what: string; why: string; learned: string } {
  const learned = lever.learned ? LEARNED_WORDS[lever.learned] : '';
  if (lever.lever === 'weight') {
    return { what: `weight: ${movesWords(lever.moves)}`, why: 'bench time', learned };
  }
  const { why, givesUp } = CHANGE_WORDS[lever.change];
  const what = stringStepWords({ change: lever.change });
  const [least, most] = lever.byKg ?? [];
  const by =
    least === undefined || most === undefined
      ? ''
      : unit === 'lb'
        ? `, by ${Math.round(least / KG_PER_POUND)} to ${Math.round(most / KG_PER_POUND)} lb`
        : `, by ${least} to ${most} kg`;
  const to = lever.to ? `, ${STRING_KIND_NAMES[lever.to]}` : '';
  return { what: `${what}${to}${by}`, why: `${why}; gives up ${givesUp}`, learned };
}

const kindWords = (mains: StringKind | undefined, crosses: StringKind | undefined): string => {
  const named = [mains, crosses ?? mains].flatMap((kind) => (kind ? [STRING_KIND_NAMES[kind]] : []));
  return [...new Set(named)].join(' / ');
};
/** How the strings in a frame compare with others': «23 / 22 kg, polyester». */
export function bedWords({ stringing }: StringBed): string {
  const { mains, crosses } = kindsOf(stringing);
  return [tensionWords(stringing), kindWords(mains, crosses)].filter(Boolean).join(', ');
}
/** How a setup is strung, its tension in the unit of one's own where it can be read. @example toldStrings({ mains: 'poly', tension: '52/50 lb' }, 'tennis', 'kg') // 23.6 / 22.7 kg, polyester */
export function toldStrings(
  { mains = '', crosses = '', tension = '' }: Setup['strings'],
  sport: Sport,
  unit: TensionUnit,
): string {
  const read = readTension(tension, sport);
  const kinds = kindWords(kindNamed(mains), kindNamed(crosses));
  return [read ? tensionWords({ ...read, unit }) : tension, kinds].filter(Boolean).join(', ');
}
/** «Tensions of 41 setups: 22.1 to 25 kg for the middle half.» */
export const spreadWords = ({ count, lowKg, middleKg, highKg }: TensionSpread, unit: TensionUnit): string =>
  `Tensions of ${count} setups: half of them ${inTension(lowKg, unit)} to ${inTension(highKg, unit)} ${unit}, around ${inTension(middleKg, unit)}.`;
