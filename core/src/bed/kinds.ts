import { STRING_MATERIALS, type StringKind, type StringingJob } from '../part';
import { dataOf, type AnySport } from '../sport';
import { KG_PER_POUND, quantileOf } from '../units';

export const STRING_KINDS = STRING_MATERIALS;

const NAMED: readonly (readonly [RegExp, StringKind])[] = [
  [/\b(co-?)?poly(ester)?\b|\bco-?poly/i, 'polyester'],
  [/\b(nylon|synthetic|syn|multi(filament)?|mono(filament)?)\b/i, 'nylon'],
  [/\bgut\b/i, 'gut'],
];
/**
 * What a string is made of by its name, where the name says it. @example kindNamed('synthetic gut 1.30') // 'nylon'
 */
export const kindNamed = (name: string): StringKind | undefined =>
  NAMED.find(([words]) => words.test(name))?.[1];

/** What mains and crosses are made of: as somebody said, else as their names say; crosses that say nothing are as the mains. */
export function kindsOf(named: {
  mains: string;
  crosses: string;
  mainsKind: StringKind | null;
  crossesKind: StringKind | null;
}): { mains: StringKind | undefined; crosses: StringKind | undefined } {
  const mains = named.mainsKind ?? kindNamed(named.mains);
  return { mains, crosses: named.crossesKind ?? kindNamed(named.crosses) ?? mains };
}

/** Tensions of a bed, kg. */
export interface Tensions {
  mainsKg: number;
  crossesKg: number;
}

/**
 * A tension as it is told: «52/50 lb», «24 kg», «23.5 / 22». Without a unit it is taken in the one in which it can be a tension of the sport; undefined where both
 * could be or neither is.
 * @example readTension('52/50', 'tennis') // { mainsKg: 23.59, crossesKg: 22.68 }
 */
export function readTension(text: string, sport: AnySport): Tensions | undefined {
  const { stringing } = dataOf(sport);
  const found =
    /(\d+(?:[.,]\d+)?)\s*(?:(?:kg|kgs|lbs?|pounds?|kilos?)?\s*[/–\-x×&]\s*(\d+(?:[.,]\d+)?))?/i.exec(text);
  if (!stringing || !found?.[1]) return undefined;
  const values = [found[1], found[2] ?? found[1]].map((one) => Number(one.replace(',', '.')));
  const [least, most] = stringing.tensionKg;
  const fits = (scale: number): boolean =>
    values.every((value) => value * scale >= least && value * scale <= most);
  const unit = /\bkg|kgs|kilo/i.test(text) ? 1 : /lb|pound/i.test(text) ? KG_PER_POUND : undefined;
  const scales = unit === undefined ? [1, KG_PER_POUND].filter(fits) : [unit].filter(fits);
  const [scale] = scales;
  if (scale === undefined || scales.length > 1) return undefined;
  const [mains, crosses] = values as [number, number];
  return { mainsKg: mains * scale, crossesKg: crosses * scale };
}

/** Tensions of many beds: the mean of mains and crosses, kg, with the quarters below and above which a quarter of them lies. */
export interface TensionSpread {
  count: number;
  lowKg: number;
  middleKg: number;
  highKg: number;
}
const FEWEST_SPREAD = 5;
/**
 * How tensions spread that are told; of fewer than five nothing is said. @example tensionSpread(['52 lb', '24 kg', …], 'tennis')?.middleKg // 23.6
 */
export function tensionSpread(texts: readonly string[], sport: AnySport): TensionSpread | undefined {
  const all = texts
    .flatMap((text) => readTension(text, sport) ?? [])
    .map(({ mainsKg, crossesKg }) => (mainsKg + crossesKg) / 2)
    .toSorted((a, b) => a - b);
  if (all.length < FEWEST_SPREAD) return undefined;
  return {
    count: all.length,
    lowKg: quantileOf(all, 0.25),
    middleKg: quantileOf(all, 0.5),
    highKg: quantileOf(all, 0.75),
  };
}

/** Strings as they are in a frame. */
interface Strung extends Tensions {
  mains: string;
  crosses: string;
  mainsKind: StringKind | null;
  crossesKind: StringKind | null;
  mainsMm: number | null;
  crossesMm: number | null;
  unit: 'kg' | 'lb';
  preStretchPercent: number;
}
/** The job that would put the same strings in again. @example jobOf(stringing).mainsKg // stringing.mainsKg */
export function jobOf(strung: Strung): StringingJob {
  const { mains, crosses, mainsMm, crossesMm, mainsKg, crossesKg, unit, preStretchPercent } = strung;
  const kinds = kindsOf(strung);
  return {
    mains,
    crosses,
    ...(kinds.mains ? { mainsKind: kinds.mains } : {}),
    ...(kinds.crosses ? { crossesKind: kinds.crosses } : {}),
    ...(mainsMm === null ? {} : { mainsMm }),
    ...(crossesMm === null ? {} : { crossesMm }),
    mainsKg,
    crossesKg,
    unit,
    preStretchPercent,
  };
}
